import { needNumbers } from '../needNumbers';

/** Corners of a platform in the order in which they are tightened and tugged: crosswise. */
export const CORNERS = ['rear-left', 'front-right', 'rear-right', 'front-left'] as const;
export type Corner = (typeof CORNERS)[number];

/** What a sheet under a corner does when it is pulled, from loose to too tight. Their places are the readings of a job. */
export const TUGS = ['slides out', 'comes with effort', 'does not move', 'tears', 'moves the machine'] as const;
export type Tug = (typeof TUGS)[number];

/** How a sheet should feel: with effort, or not moving at all. Both are taught. Common practice. */
export const DRAGS = ['firm', 'still'] as const;
export type Drag = (typeof DRAGS)[number];

/**
 * even: all alike, as wanted · even-tighter, even-looser: all alike, but as the other school has it: level, and zero takes the
 * rest · corner, side: that is looser or tighter than the rest · rocks: two across from each other differ from the other two ·
 * all-loose: it does not lie on the sheets · all-tight: pressed, or home is too low · mixed: no pattern
 */
export type TugVerdict =
  'even' | 'even-tighter' | 'even-looser' | 'corner' | 'side' | 'rocks' | 'all-loose' | 'all-tight' | 'mixed';

export interface TugsRead {
  verdict: TugVerdict;
  /** The corners that differ; empty where all are alike. */
  at: Corner[];
  /** What those do against the rest. */
  than: 'looser' | 'tighter' | null;
  /** In which order to tighten next time: crosswise from where it is loosest. */
  order: Corner[];
  /** How far the corners' gaps are apart, mm: at least and at most; null: as far as can be. */
  range: { least: number; most: number | null };
}

/** Where the tugs part, as gap less the sheet's thickness, mm. Common practice: a sheet gives some hundredths. */
export const TUG_EDGES = [0.02, -0.01, -0.03] as const;

const SIDES: readonly [Corner, Corner][] = [
  ['front-left', 'front-right'],
  ['rear-left', 'rear-right'],
  ['front-left', 'rear-left'],
  ['front-right', 'rear-right'],
];

/**
 * What the tugs at the four corners say of a platform. What differs is tilt; what all have in common is zero's.
 * @param tugs by corner, as they were felt
 * @throws RangeError a tug or a corner that is not there
 */
export function readTugs(tugs: Readonly<Record<Corner, Tug>>, drag: Drag): TugsRead {
  const levels = CORNERS.map((corner) => {
    const level = TUGS.indexOf(tugs[corner]);
    if (level < 0) throw new RangeError(`readTugs knows ${TUGS.join(', ')}, got ${String(tugs[corner])}`);
    // Torn and moving the machine are both beyond what a sheet tells.
    return Math.min(level, 3);
  });
  const [least, most] = [Math.min(...levels), Math.max(...levels)];
  const read = (verdict: TugVerdict, at: Corner[] = [], than: TugsRead['than'] = null): TugsRead => ({
    verdict,
    at,
    than,
    order: orderFrom(CORNERS[levels.indexOf(least)]!),
    range: rangeOf(least, most),
  });
  if (least === most) {
    if (least === 0) return read('all-loose');
    if (least === 3) return read('all-tight');
    const wanted = drag === 'firm' ? 1 : 2;
    return read(least === wanted ? 'even' : least > wanted ? 'even-tighter' : 'even-looser');
  }
  const at = (level: number) => CORNERS.filter((_, i) => levels[i] === level);
  const [loose, tight] = [at(least), at(most)];
  if (loose.length + tight.length < 4) {
    // Three kinds of tug: the corner that stands alone at the loose end is where to begin.
    return loose.length === 1 ? read('corner', loose, 'looser') : read('mixed', loose, 'looser');
  }
  if (loose.length === 1) return read('corner', loose, 'looser');
  if (tight.length === 1) return read('corner', tight, 'tighter');
  const side = SIDES.some((pair) => pair.every((corner) => loose.includes(corner)));
  return side ? read('side', loose, 'looser') : read('rocks', loose, 'looser');
}

const OPPOSITE: Record<Corner, Corner> = {
  'rear-left': 'front-right',
  'front-right': 'rear-left',
  'rear-right': 'front-left',
  'front-left': 'rear-right',
};
function orderFrom(first: Corner): Corner[] {
  const second = CORNERS.find((corner) => corner !== first && corner !== OPPOSITE[first])!;
  return [first, OPPOSITE[first], second, OPPOSITE[second]];
}

/** How far apart gaps can be whose tugs are of these two levels. */
function rangeOf(least: number, most: number): TugsRead['range'] {
  const upper = least === 0 ? null : TUG_EDGES[least - 1]!;
  const lower = most === 3 ? null : TUG_EDGES[most]!;
  const apart = least === most ? 0 : TUG_EDGES[least]! - TUG_EDGES[most - 1]!;
  return { least: apart, most: upper === null || lower === null ? null : upper - lower };
}

/** The verdict as a job's question goes by it. */
export type TugAnswer = 'even' | 'uneven' | 'rocks' | 'loose' | 'tight';

/**
 * What a job goes by: four readings of a card, in the order of the corners, or one where a single sheet lies there.
 * @returns null: they aren't all there
 */
export function tugAnswer(readings: readonly (number | undefined)[], drag: Drag): TugAnswer | null {
  const one = readings.length === 1 ? [...readings, ...readings, ...readings, ...readings] : readings;
  if (one.length !== 4 || one.some((value) => value === undefined)) return null;
  needNumbers('tugAnswer', { readings: one as number[] });
  const read = readTugs(tugsFrom(one as number[]), drag);
  switch (read.verdict) {
    case 'even':
    case 'even-tighter':
    case 'even-looser':
      return 'even';
    case 'all-loose':
      return 'loose';
    case 'all-tight':
      return 'tight';
    case 'rocks':
      return 'rocks';
    default:
      return 'uneven';
  }
}

/** @param values places in `TUGS`, in the order of the corners */
export const tugsFrom = (values: readonly number[]): Record<Corner, Tug> =>
  Object.fromEntries(CORNERS.map((corner, i) => [corner, TUGS[values[i]!]!])) as Record<Corner, Tug>;
