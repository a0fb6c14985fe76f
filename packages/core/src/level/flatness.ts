import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';

export interface Plane {
  /** Slopes along x and y, mm per mm, and height at x = y = 0, mm. */
  a: number;
  b: number;
  c: number;
}

/** Where the two planes touch: 3-1 (a triangle against a point inside it), 2-2 (two that cross), 2-1 (one over a line between two), 1-1 (one place read twice). */
export type ContactKind = '3-1' | '2-2' | '2-1' | '1-1';

export interface Flatness {
  /** Distance of the two planes along z, mm: the smallest range that any tilt leaves. */
  value: number;
  /** The same across the planes, mm, as the standard measures it: beds are so nearly level that the two hardly differ. */
  perpendicular: number;
  /** The plane in the middle; the two lie half the value above and below it. */
  plane: Plane;
  /** Points that the upper and the lower plane touch, by their place in the input, ascending. */
  contacts: { upper: number[]; lower: number[]; kind: ContactKind };
  /** Range about the least-squares plane, mm: never less than the value. */
  leastSquares: number;
}

/**
 * A point this far outside the planes lies between them, as a share of the heights' range. Where places lie on each other but
 * for rounding, a solve through two of them keeps few digits: each pivot without progress widens it, a millionth after a
 * thousand. What is said holds every point all the same.
 */
const TOLERANCE = 1e-12;
/** Pivots without progress before Bland's rule takes over: it never goes round in a circle. */
const PATIENCE = 30;
const MOST_PIVOTS = 20_000;
/** Places so much narrower than long are one line: across it no tilt can be told. Our own choice. */
const NEAR_LINE = 1e-3;
/** Correlation of x and y from which on places run slantwise. */
const SLANTING = 0.8;
/** Heights and places beyond this lose their last digits, mm. */
const LARGEST = 1e9;

/**
 * Minimum-zone flatness: the least distance of two parallel planes that hold all points between them.
 *
 * The planes are found exactly: min h with |z − (ax + by + c)| ≤ h is a linear programme whose dual has four rows, so that a
 * step of the revised simplex costs one look at each point and a 4 × 4 solve. The point farthest outside enters; after
 * `PATIENCE` steps without progress Bland's rule does. Places are centred and scaled, and the plane of least squares is taken
 * out first, so that offsets and slopes cost no digits.
 *
 * @param points n ≥ 3 heights, mm, not all in one line
 * @throws DegenerateInput fewer, all or nearly all in one line, or not numbers
 * Source: ISO 12781-1:2011, minimum zone reference planes; the exchange of points is Stiefel's (Numer. Math. 1, 1959).
 * @example flatness([0, 100].flatMap((y) => [0, 100].map((x) => ({ x, y, z: (x * y) / 1e5 })))).value // 0.05
 */
export function flatness(points: readonly HeightPoint[]): Flatness {
  for (const { x, y, z } of points)
    if (!(Math.abs(x) <= LARGEST && Math.abs(y) <= LARGEST && Math.abs(z) <= LARGEST))
      throw new DegenerateInput(`flatness needs numbers, got (${x}, ${y}, ${z})`);
  const fit = fitPlane(points);
  const { centre, residuals } = fit;
  const n = points.length;
  const u = new Float64Array(n);
  const v = new Float64Array(n);
  let [wide, deep, high, low] = [0, 0, -Infinity, Infinity];
  const { cos, sin } = axesOf(points, centre);
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [points[i]!.x - centre.x, points[i]!.y - centre.y];
    u[i] = cos * dx + sin * dy;
    v[i] = cos * dy - sin * dx;
    wide = Math.max(wide, Math.abs(u[i]!));
    deep = Math.max(deep, Math.abs(v[i]!));
    high = Math.max(high, residuals[i]!);
    low = Math.min(low, residuals[i]!);
  }
  if (!(Math.min(wide, deep) > NEAR_LINE * Math.max(wide, deep)))
    throw new DegenerateInput('flatness needs places all over the bed: these lie nearly in one line');
  const leastSquares = high - low;
  // All in one plane, but for what rounding leaves.
  const floor =
    8 * Number.EPSILON * Math.max(Math.abs(centre.z), leastSquares, Math.abs(fit.a * wide) + Math.abs(fit.b * deep));
  if (!(leastSquares > floor)) {
    const all = points.map((_, i) => i);
    return {
      value: leastSquares,
      perpendicular: leastSquares / Math.hypot(1, fit.a, fit.b),
      plane: { a: fit.a, b: fit.b, c: fit.c },
      contacts: { upper: all, lower: all, kind: '1-1' },
      leastSquares,
    };
  }
  for (let i = 0; i < n; i++) {
    u[i] = u[i]! / wide;
    v[i] = v[i]! / deep;
  }
  const z = new Float64Array(n);
  for (let i = 0; i < n; i++) z[i] = residuals[i]! / leastSquares;
  const { plane, half, basis } = zone(u, v, z);
  // Rounding: what is said holds every point.
  let reach = half;
  for (let i = 0; i < n; i++) reach = Math.max(reach, Math.abs(z[i]! - plane[0] * u[i]! - plane[1] * v[i]! - plane[2]));
  const [along, across] = [(plane[0] * leastSquares) / wide, (plane[1] * leastSquares) / deep];
  const a = fit.a + cos * along - sin * across;
  const b = fit.b + sin * along + cos * across;
  const c = centre.z + plane[2] * leastSquares - a * centre.x - b * centre.y;
  const value = Math.min(2 * reach * leastSquares, leastSquares);
  return {
    value,
    perpendicular: value / Math.hypot(1, a, b),
    plane: { a, b, c },
    contacts: contactsOf(basis),
    leastSquares,
  };
}

/** Axes along and across the places where they run slantwise, else as they are: a narrow slanting strip is told by no others. */
function axesOf(points: readonly HeightPoint[], centre: HeightPoint): { cos: number; sin: number } {
  let [uu, uv, vv] = [0, 0, 0];
  for (const { x, y } of points) {
    const [dx, dy] = [x - centre.x, y - centre.y];
    uu += dx * dx;
    uv += dx * dy;
    vv += dy * dy;
  }
  if (Math.abs(uv) < SLANTING * Math.sqrt(uu * vv)) return { cos: 1, sin: 0 };
  const angleRad = Math.atan2(2 * uv, uu - vv) / 2;
  return { cos: Math.cos(angleRad), sin: Math.sin(angleRad) };
}

interface Column {
  /** Of the points. */
  at: number;
  /** +1: it holds the upper plane, −1: the lower. */
  side: 1 | -1;
}

/** The dual simplex over columns (s, s·u, s·v, 1) with right side (0, 0, 0, 1) and gain s·z. */
function zone(u: Float64Array, v: Float64Array, z: Float64Array) {
  const n = z.length;
  const entry = ({ at, side }: Column) => [side, side * u[at]!, side * v[at]!, 1];
  const basis = startingBasis(u, v);
  let inverse = invert(basis.map(entry));
  // The first two share the weight: the others begin at nothing.
  let weights = timesRight(inverse);
  let still = 0;
  let best = -Infinity;
  for (let pivots = 0; pivots < MOST_PIVOTS; pivots++) {
    // Prices are the plane and half the zone: c, a, b, h with s·(c + au + bv) + h = s·z on the basis.
    const gains = basis.map(({ at, side }) => side * z[at]!);
    const price = [0, 1, 2, 3].map((row) => gains.reduce((sum, gain, k) => sum + gain * inverse[k]![row]!, 0));
    const [c, a, b, h] = price as [number, number, number, number];
    const slack = TOLERANCE * (1 + still * still);
    const enters = still < PATIENCE ? farthest() : firstOutside();
    if (enters === null)
      return { plane: [a, b, c] as const, half: Math.max(0, h), basis: basis.filter((_, k) => weights[k]! > 1e-11) };
    const column = entry(enters);
    const step = inverse.map((row) => row.reduce((sum, value, k) => sum + value * column[k]!, 0));
    let leaves = -1;
    let ratio = Infinity;
    for (let k = 0; k < 4; k++) {
      if (!(step[k]! > 1e-11)) continue;
      const one = Math.max(0, weights[k]!) / step[k]!;
      const ties = Math.abs(one - ratio) <= 1e-14;
      // Of several the surest divisor, or by Bland's rule the lowest point.
      const better =
        ties && (still < PATIENCE ? step[k]! > step[leaves]! : orderOf(basis[k]!) < orderOf(basis[leaves]!));
      if (one < ratio - 1e-14 || better) [leaves, ratio] = [k, one];
    }
    // The gain is bounded by the zone of any plane: there is always one that leaves.
    if (leaves < 0) throw new DegenerateInput('flatness needs points whose places can be told apart');
    basis[leaves] = enters;
    inverse = invert(basis.map(entry));
    weights = timesRight(inverse);
    const reached = basis.reduce((sum, { at, side }, k) => sum + weights[k]! * side * z[at]!, 0);
    still = reached > best + 1e-13 ? 0 : still + 1;
    best = Math.max(best, reached);

    function farthest(): Column | null {
      let most = h + slack;
      let found = -1;
      let side: 1 | -1 = 1;
      for (let i = 0; i < n; i++) {
        const over = z[i]! - a * u[i]! - b * v[i]! - c;
        if (over > most) [most, found, side] = [over, i, 1];
        else if (-over > most) [most, found, side] = [-over, i, -1];
      }
      return found < 0 ? null : { at: found, side };
    }

    function firstOutside(): Column | null {
      for (let i = 0; i < n; i++) {
        const over = z[i]! - a * u[i]! - b * v[i]! - c;
        if (Math.abs(over) > h + 10 * slack) return { at: i, side: over > 0 ? 1 : -1 };
      }
      return null;
    }
  }
  throw new DegenerateInput(`flatness needs points that settle within ${MOST_PIVOTS} steps`);
}

const orderOf = ({ at, side }: Column) => 2 * at + (side > 0 ? 0 : 1);

/** One point held from both sides, and two more so that the places span a plane: far apart, so that the solve is sure. */
function startingBasis(u: Float64Array, v: Float64Array): Column[] {
  let first = 0;
  for (let i = 1; i < u.length; i++) if (u[i]! + v[i]! < u[first]! + v[first]!) first = i;
  const far = (size: (i: number) => number) => {
    let best = 0;
    for (let i = 1; i < u.length; i++) if (size(i) > size(best)) best = i;
    return best;
  };
  const second = far((i) => Math.hypot(u[i]! - u[first]!, v[i]! - v[first]!));
  const [du, dv] = [u[second]! - u[first]!, v[second]! - v[first]!];
  const third = far((i) => Math.abs(du * (v[i]! - v[first]!) - dv * (u[i]! - u[first]!)));
  return [
    { at: first, side: 1 },
    { at: first, side: -1 },
    { at: second, side: 1 },
    { at: third, side: 1 },
  ];
}

const timesRight = (inverse: number[][]) => inverse.map((row) => row[3]!);

/** Inverse of a 4 × 4 matrix whose columns are given, by Gauss-Jordan with row pivots. */
function invert(columns: number[][]): number[][] {
  const m = [0, 1, 2, 3].map((row) => [
    ...columns.map((column) => column[row]!),
    ...[0, 1, 2, 3].map((k) => +(k === row)),
  ]);
  for (let k = 0; k < 4; k++) {
    let pivot = k;
    for (let row = k + 1; row < 4; row++) if (Math.abs(m[row]![k]!) > Math.abs(m[pivot]![k]!)) pivot = row;
    [m[k], m[pivot]] = [m[pivot]!, m[k]!];
    const divisor = m[k]![k]!;
    for (let j = 0; j < 8; j++) m[k]![j]! /= divisor;
    for (let row = 0; row < 4; row++) {
      if (row === k) continue;
      const share = m[row]![k]!;
      for (let j = 0; j < 8; j++) m[row]![j]! -= share * m[k]![j]!;
    }
  }
  return m.map((row) => row.slice(4));
}

function contactsOf(basis: readonly Column[]): Flatness['contacts'] {
  const held = (wanted: 1 | -1) =>
    basis
      .filter(({ side }) => side === wanted)
      .map(({ at }) => at)
      .sort((p, q) => p - q);
  const [upper, lower] = [held(1), held(-1)];
  const kind = [Math.max(upper.length, lower.length), Math.min(upper.length, lower.length)].join('-') as ContactKind;
  return { upper, lower, kind };
}

export interface LoneReading {
  /** Its place in the input. */
  at: number;
  /** Flatness without it, mm. */
  without: number;
}

/** A single reading that makes up as much of the flatness as this is read again before anything is done. Our own choice. */
const LONE_SHARE = 0.25;

/**
 * The reading that the flatness hangs on, where taking it out leaves a quarter less: a crumb, a slip, or one bump.
 * @returns null: no one reading decides; or there are too few to take one out
 */
export function loneReading(points: readonly HeightPoint[], found: Flatness): LoneReading | null {
  if (points.length < 5) return null;
  let lone: LoneReading | null = null;
  for (const at of [...found.contacts.upper, ...found.contacts.lower].slice(0, 4)) {
    let without: number;
    try {
      without = flatness(points.filter((_, i) => i !== at)).value;
    } catch (error) {
      // Without it the rest lie in one line.
      if (!(error instanceof DegenerateInput)) throw error;
      continue;
    }
    if (without <= (1 - LONE_SHARE) * found.value && without < (lone?.without ?? Infinity)) lone = { at, without };
  }
  return lone;
}
