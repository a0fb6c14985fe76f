import { groupFacts, type Slot, type SurfaceGroup } from './groups';

export { groupFacts, GROUPS, SURFACE_GROUPS, type GroupFacts, type Slot, type SurfaceGroup } from './groups';

/** Slots in the order in which they lie, bottom first; the film is in the vat, apart from the stack. */
export const SLOTS: readonly Slot[] = ['platform', 'base', 'top', 'film'];

export type Side = 'A' | 'B';
export type QuarterTurn = 0 | 90 | 180 | 270;

/** The slot that a group of surfaces lies in. */
export const slotOf = (group: SurfaceGroup): Slot => groupFacts(group).slot;

/** Letter that the tags of a group begin with. */
export const tagLetter = (group: SurfaceGroup): string => groupFacts(group).letter;

/**
 * The next free tag of a letter: one more than the highest number in use, at least three digits.
 * @example nextTag('S', ['S-014', 'S-009', 'B-100']) // 'S-015'
 */
export function nextTag(letter: string, taken: Iterable<string>): string {
  let highest = 0;
  for (const tag of taken) {
    const [, start, digits] = /^([A-Z]+)-(\d{1,9})$/.exec(tag.toUpperCase()) ?? [];
    if (start === letter) highest = Math.max(highest, Number(digits));
  }
  return `${letter}-${String(highest + 1).padStart(3, '0')}`;
}

/** How long a surface is expected to serve. */
export interface Life {
  unit: 'prints' | 'grams' | 'days';
  expected: number;
  /** Half the width of the band in which its end is to be expected, in the same unit. */
  spread: number;
}
