import { gridOf } from './gridOf';
import type { HeightPoint, Spread } from './HeightPoint';

/**
 * tilt: rounding of the turns · shape: the plate itself · noise: the readings can't tell more · unsure: too few readings to
 * tell a shape from noise; reading the same places twice would.
 */
export type Limit = 'tilt' | 'shape' | 'noise' | 'unsure';

/** Residuals within this many times the readings' own deviation are noise. */
const NOISE_FACTOR = 1.5;
/** Von Neumann's ratio is 1 for white noise (as normalised here) and near 0 for a smooth shape. */
const WHITE_FROM = 0.7;
/** Fewer neighbouring pairs than this say nothing. */
const FEWEST_PAIRS = 12;
/** No common probe scatters by as much as this, mm: what does is a shape. Common practice. */
const NO_NOISE = 0.09;
/** Upper 1 % of F with 3 and ν degrees of freedom, ν → value. NIST/SEMATECH e-Handbook §1.3.6.7.3, from memory. */
const F_3: readonly [freedom: number, value: number][] = [
  [1, 5403],
  [2, 99.2],
  [3, 29.5],
  [4, 16.7],
  [5, 12.1],
  [6, 9.78],
  [8, 7.59],
  [10, 6.55],
  [15, 5.42],
  [20, 4.94],
  [30, 4.51],
  [60, 4.13],
];

/**
 * What keeps the range from being smaller after the turns.
 *
 * A heuristic. With a known deviation of one reading the residuals are compared with it. Without one, a bowl, ridge or twist
 * that explains them (F test of the quadratic terms) is a shape; else neighbours are compared along rows and along columns
 * (von Neumann, "Distribution of the ratio of the mean square successive difference to the variance", Ann. Math. Stat. 12,
 * 1941): a shape is smooth in at least one direction, noise in none. Few readings leave it open.
 *
 * @param tilt the range that the said turns leave as tilt, mm
 * @param residuals of the plane fitted through the points, mm
 * @param shape spread of the residuals, mm
 * @param noise standard deviation of one reading, mm, if known
 */
export function limitOf({
  points,
  residuals,
  tilt,
  shape,
  noise,
}: {
  points: readonly HeightPoint[];
  residuals: ArrayLike<number>;
  tilt: number;
  shape: Spread;
  noise?: number | undefined;
}): Limit {
  if (tilt > shape.range) return 'tilt';
  if (noise !== undefined && noise > 0) return shape.rms <= NOISE_FACTOR * noise ? 'noise' : 'shape';
  if (shape.rms > NO_NOISE || bendExplains(points, residuals)) return 'shape';
  const ratios = neighbourRatios(points, residuals, shape.rms);
  if (ratios.length === 0) return 'unsure';
  return Math.min(...ratios) >= WHITE_FROM ? 'noise' : 'shape';
}

/** Whether u², uv and v² take so much out of the residuals that noise would in less than one of a hundred beds. */
function bendExplains(points: readonly HeightPoint[], residuals: ArrayLike<number>): boolean {
  const n = points.length;
  const freedom = n - 6;
  if (freedom < 1) return false;
  const scaled = (of: (p: HeightPoint) => number) => {
    const values = points.map(of);
    const mean = values.reduce((sum, v) => sum + v, 0) / n;
    const size = Math.max(...values.map((v) => Math.abs(v - mean))) || 1;
    return values.map((v) => (v - mean) / size);
  };
  const [u, v] = [scaled(({ x }) => x), scaled(({ y }) => y)];
  // Orthogonal columns by modified Gram-Schmidt, each taken out twice; the plane's own come first.
  const basis: number[][] = [];
  let explained = 0;
  const columns = [u.map(() => 1), u, v, u.map((a) => a * a), u.map((a, i) => a * v[i]!), v.map((a) => a * a)];
  for (const [k, column] of columns.entries()) {
    const q = [...column];
    for (let pass = 0; pass < 2; pass++)
      for (const other of basis) {
        const share = dot(q, other);
        for (let i = 0; i < n; i++) q[i]! -= share * other[i]!;
      }
    const size = Math.sqrt(dot(q, q));
    if (!(size > 1e-9 * Math.sqrt(n))) continue;
    basis.push(q.map((value) => value / size));
    if (k > 2) explained += dot(basis.at(-1)!, residuals) ** 2;
  }
  const left = dot(residuals, residuals) - explained;
  if (!(explained > 0)) return false;
  const critical = F_3.findLast(([nu]) => nu <= freedom)![1];
  return explained / 3 > critical * (Math.max(0, left) / freedom);
}

/** Von Neumann's ratio along rows and along columns of the grid, or in reading order where there is none. */
function neighbourRatios(points: readonly HeightPoint[], residuals: ArrayLike<number>, rms: number): number[] {
  if (!(rms > 0)) return [];
  const grid = gridOf(points.map(({ x, y }, i) => ({ x, y, z: residuals[i]! })));
  if (!grid) return [];
  const { heights } = grid;
  const ratio = (pairs: [number, number][]) => {
    const known = pairs.filter(([p, q]) => p === p && q === q);
    if (known.length < FEWEST_PAIRS || known.length < points.length / 2) return [];
    return [known.reduce((sum, [p, q]) => sum + (p - q) ** 2, 0) / known.length / (2 * rms * rms)];
  };
  const along = heights.flatMap((row) => row.slice(1).map((z, c): [number, number] => [row[c]!, z]));
  const across = heights.slice(1).flatMap((row, r) => row.map((z, c): [number, number] => [heights[r]![c]!, z]));
  return [...ratio(along), ...ratio(across)];
}

const dot = (p: ArrayLike<number>, q: ArrayLike<number>) => {
  let sum = 0;
  for (let i = 0; i < p.length; i++) sum += p[i]! * q[i]!;
  return sum;
};
