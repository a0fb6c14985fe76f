/** Where light shows along one line under a straightedge, as a reading says it. */
export const LIGHT = { none: 0, middle: 1, ends: 2, first: 3, last: 4 } as const;

/** What six lines of light say of a plate. */
export type LightShape = 'flat' | 'dish' | 'dome' | 'twist' | 'region' | 'mixed';

/**
 * The shape that six lines of light under a straightedge say: two along, two across, both diagonals. A straightedge that
 * stands on its ends with light in the middle lies over a dip; one that rocks on the middle, over a rise. Diagonals that
 * disagree are a twist; light at one end only, beside lines without any, is one high region.
 * @param lines `LIGHT` of each, in that order; undefined where it was not looked at
 * @returns null while a line is missing
 * Source: common practice; the joining of lines of a plate is that of surface-plate work.
 * @example lightVerdict([1, 1, 1, 1, 1, 1]) // 'dish'
 */
export function lightVerdict(lines: readonly (number | undefined)[]): LightShape | null {
  if (lines.length !== 6 || lines.some((line) => line === undefined)) return null;
  const [along1, along2, across1, across2, first, second] = lines as number[];
  const sides = [along1!, along2!, across1!, across2!];
  const all = [...sides, first!, second!];
  const { none, middle, ends } = LIGHT;
  if (all.every((line) => line === none)) return 'flat';
  const diagonals = [first, second].sort();
  if (diagonals[0] === middle && diagonals[1] === ends) return 'twist';
  const seen = all.filter((line) => line !== none);
  if (seen.every((line) => line === middle)) return 'dish';
  if (seen.every((line) => line === ends)) return 'dome';
  if (seen.every((line) => line !== middle) && all.some((line) => line === none)) return 'region';
  return 'mixed';
}
