import { fitPlane } from './fitPlane';
import { extentOf, spreadOf, type HeightPoint } from './HeightPoint';
import type { BedMove } from './stiffBed';

/**
 * as-said: the tilt went where the turns should have taken it · reversed: it went the opposite way ·
 * unmoved: hardly at all · off: some other way · small: the turns were too small to judge by.
 */
export type RoundAnswer = 'as-said' | 'reversed' | 'unmoved' | 'off' | 'small';

export interface RoundComparison {
  answer: RoundAnswer;
  /** Share of the expected change that was found: 1 as said, 0 nothing, −1 the opposite; null when too small to judge. */
  followed: number | null;
  /** Range before and now, mm. */
  before: number;
  now: number;
  /** True when the range grew by more than the readings' own uncertainty. */
  worse: boolean;
}

/** A change of tilt below this range over the plate can't be judged, mm. Twice a good probe's repeatability; common practice. */
const SMALLEST_CHANGE = 0.02;

/**
 * Holds a new reading against what the turns made should have done to the one before.
 *
 * Only the tilt is compared: adjusters can't change the shape, and the height of the whole bed is often lost by homing.
 * The change of tilt found is projected on the change expected, both weighted by the plate's size.
 *
 * @param before readings of the round before, mm, + higher
 * @param made the plate's move under the turns that were made (see stiffBed)
 * @param now readings of this round
 * @throws DegenerateInput readings from which no plane follows
 * @example compareRounds({ before, made, now }).answer // 'reversed': a sign or a knob's sense is turned over
 */
export function compareRounds({
  before,
  made,
  now,
}: {
  before: readonly HeightPoint[];
  made: Pick<BedMove, 'a' | 'b'>;
  now: readonly HeightPoint[];
}): RoundComparison {
  const was = fitPlane(before);
  const is = fitPlane(now);
  const { x0, y0, x1, y1 } = extentOf(before);
  const width = (x1 - x0) / 2;
  const depth = (y1 - y0) / 2;
  const expected = [made.a * width, made.b * depth] as const;
  const found = [(is.a - was.a) * width, (is.b - was.b) * depth] as const;
  const size = Math.hypot(...expected);
  const rangeBefore = spreadOf(before.map(({ z }) => z)).range;
  const rangeNow = spreadOf(now.map(({ z }) => z)).range;
  const worse = rangeNow > rangeBefore + SMALLEST_CHANGE;
  const result = { before: rangeBefore, now: rangeNow, worse };
  if (!(2 * size > SMALLEST_CHANGE)) return { ...result, answer: 'small', followed: null };
  const followed = (found[0] * expected[0] + found[1] * expected[1]) / (size * size);
  const aside = Math.abs(found[0] * expected[1] - found[1] * expected[0]) / (size * size);
  return { ...result, followed, answer: answerOf(followed, aside) };
}

function answerOf(followed: number, aside: number): RoundAnswer {
  if (followed < -0.5) return 'reversed';
  if (Math.abs(followed) <= 0.3 && aside <= 0.3) return 'unmoved';
  return followed > 0.5 && followed < 1.6 && aside < 0.6 ? 'as-said' : 'off';
}
