import fs from 'node:fs';

/** Long simulations run whole where somebody asks for them, and as a seeded sample with every change. */
const SHARE = Number(process.env.EVEN_BED_PROVE ?? 0);

/** How many trials a simulation takes: all, or the share of them that was asked for, and never fewer than the sample. */
export const trials = (whole: number, sample: number): number =>
  Math.max(sample, Math.min(whole, Math.round(whole * SHARE)));

/**
 * Notes what a simulation saw, for the table that `npm run prove` writes. A sample notes nothing.
 * @param instrument what was followed, as its row is headed · @param what in which world · @param saw the figures
 */
export function proved(instrument: string, what: string, saw: string): void {
  const file = process.env.EVEN_BED_PROVED;
  if (SHARE > 0 && file) fs.appendFileSync(file, `${JSON.stringify({ instrument, what, saw })}\n`);
}
