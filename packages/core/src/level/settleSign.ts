import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';
import type { HeightPoint } from './HeightPoint';
import { stepNoise } from './readingStep';
import { solveLeast } from './solveLeast';

export interface SignSettled {
  /** What + means in these heights; null: the place doesn't stand out. */
  plus: 'higher' | 'lower' | null;
  /** How far the place stands from what the others lead one to expect there, as it was read, mm. */
  stands: number;
  /** How far it would have to stand, mm. */
  needed: number;
}

/** So seldom the others alone would put it there, on either side. */
const RARE = 0.0025;
/** And so far at the least, mm: a shim or a pile of paper is thicker. Common practice. */
const LEAST = 0.08;
/** What a bed's own shape may do between so few readings that only a plane can be laid through them, mm. Common practice. */
const SHAPE = 0.25;
/** Readings at one place: the nearest, and what lies as near to it as this, mm. */
const SAME_PLACE = 1;

/** A plate's own shape between readings: tilt, bow and twist. */
const SMOOTH = (u: number, v: number) => [1, u, v, u * u, u * v, v * v];
const PLANE = (u: number, v: number) => [1, u, v];
/** A smooth shape wants so many readings besides what it fits. */
const SPARE = 3;

/**
 * What + means in a map, from a place that is known to be higher: something of a few tenths lay there under the probe. Until
 * that is known a compensation that is off and one that is reversed look alike, and so do a bed's tilt and its mirror image.
 * The place is held against the bow and twist of the others, so that a twisted bed with nothing on it settles nothing.
 * @param points heights as they were read, at least five
 * @param high the place; the nearest reading counts, and all that were taken there
 * @throws RangeError fewer than five readings, numbers that are none
 */
export function settleSign(points: readonly HeightPoint[], high: { x: number; y: number }): SignSettled {
  if (points.length < 5) throw new RangeError(`settleSign needs at least 5 readings, got ${points.length}`);
  needNumbers('settleSign', { points, high });
  const from =
    ({ x, y }: { x: number; y: number }) =>
    (point: HeightPoint) =>
      Math.hypot(point.x - x, point.y - y);
  const far = from(high);
  const nearest = points.reduce((a, b) => (far(b) < far(a) ? b : a));
  const near = from(nearest);
  const there = points.filter((point) => near(point) <= SAME_PLACE);
  const others = points.filter((point) => near(point) > SAME_PLACE);
  const at = there.reduce((sum, { z }) => sum + z, 0) / there.length;
  const open = { plus: null, stands: 0, needed: LEAST };
  if (others.length < 4) return open;
  const [mx, my] = [mean(others.map(({ x }) => x)), mean(others.map(({ y }) => y))];
  const size = Math.max(...others.map(({ x, y }) => Math.hypot(x - mx, y - my)));
  const placed = ({ x, y }: HeightPoint) => [(x - mx) / size, (y - my) / size] as const;
  const read = others.map(({ z }) => z);
  // Heights of many digits are fitted about their mean.
  const level = mean(read);
  const fitOf = (terms: typeof PLANE) =>
    solveLeast(
      others.map((point) => terms(...placed(point))),
      read.map((z) => z - level),
    );
  const smooth = others.length >= 6 + SPARE ? fitOf(SMOOTH) : null;
  const whole = smooth?.rank === 6;
  const terms = whole ? SMOOTH : PLANE;
  const fit = whole ? smooth : fitOf(PLANE);
  if (fit.rank < 3) return open;
  const here = terms(...placed(nearest));
  const stands = at - level - here.reduce((sum, term, k) => sum + term * fit.solution[k]!, 0);
  const freedom = Math.max(1, others.length - fit.rank);
  const rms = Math.max(Math.sqrt(fit.residuals.reduce((sum, r) => sum + r * r, 0) / freedom), stepNoise(read));
  const give = tQuantile(1 - RARE, freedom) * rms * Math.sqrt(1 / there.length + fit.varianceOf(here));
  const needed = Math.max(whole ? LEAST : SHAPE, give);
  return { plus: Math.abs(stands) < needed ? null : stands > 0 ? 'higher' : 'lower', stands, needed };
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
