import { parseHeights, UnreadableHeights, type HeightPoint, type ParseOptions } from '@even-bed/core';
import type { Knex } from 'knex';
import { LIMITS } from '../kernel/limits';

/** A kept reading as rounds that are looked back upon are read: its text is left out where it is long. */
export interface RoundText {
  raw: string | null;
  reading: string;
}

/** The text of a reading, where it is short enough to be read again while others wait. */
export const shortText = (db: Knex) =>
  db.raw('case when length(r.raw) <= ? then r.raw end as raw', [LIMITS.heightsAtOnce]) as Knex.Raw<string>;

/**
 * Reads kept heights again, so many characters of them in all: whoever looks back begins with what matters most.
 * @returns of each reading its heights; null where its text is long, can no longer be read, or comes after too many others
 */
export function lookingBack(): (round: RoundText) => readonly HeightPoint[] | null {
  let left: number = LIMITS.heightsLookedBack;
  return ({ raw, reading }) => {
    if (raw === null || raw.length > left) return null;
    left -= raw.length;
    try {
      return parseHeights(raw, JSON.parse(reading) as ParseOptions).points;
    } catch (error) {
      // Kept as it came, and no longer understood.
      if (error instanceof UnreadableHeights) return null;
      throw error;
    }
  };
}
