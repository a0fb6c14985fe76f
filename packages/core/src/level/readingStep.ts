/** Steps in which probes, calipers and hands give heights, mm; coarser ones first. */
const STEPS = [0.05, 0.025, 0.02, 0.0125, 0.01, 0.005, 0.0025, 0.002, 0.001] as const;
/** Fewer readings than this fall on a coarse step by chance: they are taken for hundredths at the most. */
const ENOUGH = 9;
const HUNDREDTH = 0.01;

/**
 * The step in which heights were read, mm: the coarsest of the usual ones that all of them are whole numbers of.
 * @returns 0: finer than any of them, or nothing but one height
 * @example readingStep([0.02, 0.05, -0.01]) // 0.01
 */
export function readingStep(heights: readonly number[]): number {
  if (new Set(heights).size < 2) return 0;
  const fits = (step: number) => heights.every((z) => Math.abs(z / step - Math.round(z / step)) < 1e-6);
  return STEPS.find((step) => (heights.length >= ENOUGH || step <= HUNDREDTH) && fits(step)) ?? 0;
}

/**
 * The least that one reading scatters by, mm, one standard deviation: a step is a noise that is even over its width.
 * Source: step ÷ √12, e.g. JCGM 100:2008 (GUM), F.2.2.1.
 */
export const stepNoise = (heights: readonly number[]): number => readingStep(heights) / Math.sqrt(12);
