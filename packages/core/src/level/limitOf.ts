import type { Extent, HeightPoint, Spread } from './HeightPoint';

/** tilt: rounding of the turns · shape: the plate itself · noise: the readings can't tell more. */
export type Limit = 'tilt' | 'shape' | 'noise';

/** Residuals within this many times the readings' own deviation are noise. */
const NOISE_FACTOR = 1.5;
/** Von Neumann's ratio is 1 for white noise (as normalised here) and near 0 for a smooth shape. */
const WHITE_FROM = 0.7;
/** Fewer neighbouring pairs than this say nothing. */
const FEWEST_PAIRS = 12;

/**
 * What keeps the range from being smaller after the turns.
 *
 * A heuristic. With a known deviation of one reading the residuals are compared with it. Without one,
 * neighbours in reading order are compared (von Neumann, "Distribution of the ratio of the mean square successive
 * difference to the variance", Ann. Math. Stat. 12, 1941): a shape is smooth from one reading to the next, noise is not.
 *
 * @param extent the rectangle that holds the points, mm
 * @param tilt the range that the said turns leave as tilt, mm
 * @param shape spread of the residuals, mm
 * @param noise standard deviation of one reading, mm, if known
 */
export function limitOf({
  points,
  extent,
  residuals,
  tilt,
  shape,
  noise,
}: {
  points: readonly HeightPoint[];
  extent: Extent;
  residuals: ArrayLike<number>;
  tilt: number;
  shape: Spread;
  noise?: number | undefined;
}): Limit {
  if (tilt > shape.range) return 'tilt';
  if (noise !== undefined && noise > 0) return shape.rms <= NOISE_FACTOR * noise ? 'noise' : 'shape';
  const n = points.length;
  const { x0, y0, x1, y1 } = extent;
  // Twice the usual spacing: a step along a row passes, the jump back to the next row's start does not.
  const near = 2 * Math.sqrt(((x1 - x0) * (y1 - y0)) / n);
  let pairs = 0;
  let squares = 0;
  for (let i = 1; i < n; i++) {
    const p = points[i - 1]!;
    const q = points[i]!;
    if (Math.abs(p.x - q.x) > near || Math.abs(p.y - q.y) > near) continue;
    pairs++;
    squares += (residuals[i]! - residuals[i - 1]!) ** 2;
  }
  if (pairs < FEWEST_PAIRS || pairs < n / 2 || !(shape.rms > 0)) return 'shape';
  const ratio = squares / pairs / (2 * shape.rms * shape.rms);
  return ratio >= WHITE_FROM ? 'noise' : 'shape';
}
