import { needWord } from '../needNumbers';
import type { FeelAdjuster } from './feel';
import type { ResinWay } from './gapBudget';
import { skirtRange, skirtTrim, type SkirtAdvice, type SkirtRound } from './skirtTrim';
import { CORNERS, DRAGS, readTugs, TUGS, type Corner, type Drag, type Tug, type TugsRead } from './tugs';

/** A level by hand as it is kept: what was read, raw, by the way it was done. Lengths in mm. */
export type LevelNoteRaw =
  | { way: 'quarters'; tugs: Record<Corner, Tug>; drag: Drag; ten: number | null }
  | { way: 'sheet'; tug: Tug; drag: Drag; ten: number | null }
  /** Nothing but eyes proves these: it lay on all round. */
  | { way: 'film' | 'lock' }
  | {
      way: 'skirt';
      adjusters: FeelAdjuster[];
      print: { x: number; y: number; width: number; depth: number };
      rounds: SkirtRound[];
    };

export type NoteWay = ResinWay | 'skirt';

/** even: proven · uneven: proven not to be · unproven: this way can't show it */
export interface LevelNoteResult {
  verdict: 'even' | 'uneven' | 'unproven';
  /** Highest less lowest, mm: at least and at most; null: as far as can be. Null as a whole: nothing was measured. */
  range: { least: number; most: number | null } | null;
  /** What was to be done next by it. */
  next: { tugs: Pick<TugsRead, 'verdict' | 'at' | 'than' | 'order'> } | { skirt: SkirtAdvice } | null;
}

/**
 * What a level by hand came to, computed anew from what was read.
 * @throws RangeError words or numbers that can't be
 */
export function levelNoteResult(raw: LevelNoteRaw): LevelNoteResult {
  switch (raw.way) {
    case 'quarters': {
      needWord('levelNoteResult', 'drags', raw.drag, DRAGS);
      for (const corner of CORNERS) needWord('levelNoteResult', 'tugs', raw.tugs[corner], TUGS);
      const { verdict, at, than, order, range } = readTugs(raw.tugs, raw.drag);
      return {
        verdict: verdict.startsWith('even') ? 'even' : 'uneven',
        range,
        next: { tugs: { verdict, at, than, order } },
      };
    }
    case 'sheet':
      needWord('levelNoteResult', 'drags', raw.drag, DRAGS);
      needWord('levelNoteResult', 'tugs', raw.tug, TUGS);
      return { verdict: 'unproven', range: null, next: null };
    case 'film':
    case 'lock':
      return { verdict: 'unproven', range: null, next: null };
    case 'skirt': {
      const advice = skirtTrim(raw);
      return {
        verdict: advice.do === 'done' ? 'even' : 'uneven',
        range: skirtRange(raw.rounds.at(-1)!.looks),
        next: { skirt: advice },
      };
    }
  }
}

/**
 * A level by hand as a job kept it: places in the lists of tugs by the name of their corner, or by "all".
 * @returns null: what it needs was not read
 */
export function noteFromJob(
  way: string,
  drag: string,
  readings: Readonly<Record<string, number>>,
): LevelNoteRaw | null {
  const felt: Drag = drag === 'still' ? 'still' : 'firm';
  const ten = readings.ten ?? null;
  const tug = (name: string): Tug | undefined => TUGS[readings[name] ?? -1];
  switch (way) {
    case 'quarters': {
      const tugs = CORNERS.map((corner) => [corner, tug(corner)] as const);
      if (tugs.some(([, one]) => one === undefined)) return null;
      return { way, tugs: Object.fromEntries(tugs) as Record<Corner, Tug>, drag: felt, ten };
    }
    case 'sheet': {
      const one = tug('all');
      return one === undefined ? null : { way, tug: one, drag: felt, ten };
    }
    case 'film':
    case 'lock':
      return { way };
    default:
      return null;
  }
}
