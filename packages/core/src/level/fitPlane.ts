import { DegenerateInput } from './errors';
import type { HeightPoint } from './HeightPoint';

/** A fitted plane z = a·x + b·y + c with its residuals and uncertainty. */
export interface PlaneFit {
  /** Slope along x, mm per mm. */
  a: number;
  /** Slope along y, mm per mm. */
  b: number;
  /** Height at x = y = 0, mm. */
  c: number;
  /** z − (a·x + b·y + c) for each point, mm, in input order. */
  residuals: Float64Array;
  /** Always 3: a smaller rank is an error. */
  rank: 3;
  /** Standard error of a, b and c; null with exactly three points, which leave nothing to judge by. */
  standardErrors: { a: number; b: number; c: number } | null;
  /** Residual standard deviation √(Σr²/(n − 3)), mm; null with exactly three points. */
  deviation: number | null;
  /** Centre of the points: the fit is best read there, far from it c loses digits. */
  centre: HeightPoint;
}

/** Relative size below which the points' second direction counts as missing. */
const RANK_TOLERANCE = 1e-10;

/**
 * Least-squares plane z = a·x + b·y + c through measured heights.
 *
 * Centred QR: the means are taken out (twice, so that offsets of 1e6 mm cost no digits), then the two
 * columns are made orthogonal by modified Gram-Schmidt with one reorthogonalisation.
 *
 * @param points n ≥ 3 heights, mm, not all on one line
 * @returns slopes, height at the origin, residuals (mm, in input order), rank and standard errors
 * @throws DegenerateInput fewer than 3 points, all on one line, or a value that is not a finite number
 * Source: Å. Björck, Numerical Methods for Least Squares Problems, SIAM 1996, §2.4 (MGS, "twice is enough");
 * standard errors from s²(RᵀR)⁻¹, ibid. §1.3.
 * @example fitPlane([{x:0,y:0,z:1},{x:10,y:0,z:2},{x:0,y:10,z:1}]).a // 0.1
 */
export function fitPlane(points: readonly HeightPoint[]): PlaneFit {
  const n = points.length;
  if (n < 3) throw new DegenerateInput(`fitPlane needs at least 3 points, got ${n}`);
  const { u, v, w, centre, largest } = centred(points);

  const normX = Math.sqrt(dot(u, u));
  const normY = Math.sqrt(dot(v, v));
  const floor = 4 * Number.EPSILON * Math.sqrt(n) * largest;
  // Orthogonalise against the longer column first: it defines the better-known direction.
  const xFirst = normX >= normY;
  const p = xFirst ? u : v;
  const q = xFirst ? v : u;
  const r11 = Math.max(normX, normY);
  const norm2 = Math.min(normX, normY);
  if (!(r11 > floor)) throw new DegenerateInput('fitPlane needs points in more than one place');
  scale(p, 1 / r11);
  let r12 = dot(p, q);
  addScaled(q, p, -r12);
  const again = dot(p, q);
  addScaled(q, p, -again);
  r12 += again;
  const r22 = Math.sqrt(dot(q, q));
  if (!(r22 > floor) || !(r22 > RANK_TOLERANCE * norm2)) {
    throw new DegenerateInput('fitPlane needs points that are not all on one line');
  }
  scale(q, 1 / r22);

  const g1 = dot(p, w);
  addScaled(w, p, -g1);
  const g2 = dot(q, w);
  addScaled(w, q, -g2);
  const s2 = g2 / r22;
  const s1 = (g1 - r12 * s2) / r11;
  const a = xFirst ? s1 : s2;
  const b = xFirst ? s2 : s1;
  const c = centre.z - a * centre.x - b * centre.y;

  let deviation: number | null = null;
  let standardErrors: PlaneFit['standardErrors'] = null;
  if (n > 3) {
    deviation = Math.sqrt(dot(w, w) / (n - 3));
    // Columns of R⁻¹ = [[1/r11, −r12/(r11·r22)], [0, 1/r22]] give (RᵀR)⁻¹ = R⁻¹R⁻ᵀ.
    const i11 = 1 / r11;
    const i12 = -r12 / (r11 * r22);
    const i22 = 1 / r22;
    const se1 = deviation * Math.hypot(i11, i12);
    const se2 = deviation * Math.abs(i22);
    const m1 = xFirst ? centre.x : centre.y;
    const m2 = xFirst ? centre.y : centre.x;
    standardErrors = {
      a: xFirst ? se1 : se2,
      b: xFirst ? se2 : se1,
      c: deviation * Math.hypot(1 / Math.sqrt(n), m1 * i11, m1 * i12 + m2 * i22),
    };
  }
  return { a, b, c, residuals: w, rank: 3, standardErrors, deviation, centre };
}

/** Columns with their means taken out, the means, and the largest coordinate met. Refuses what is not finite. */
function centred(points: readonly HeightPoint[]) {
  const n = points.length;
  const u = new Float64Array(n);
  const v = new Float64Array(n);
  const w = new Float64Array(n);
  const o = points[0]!;
  let sx = 0;
  let sy = 0;
  let sz = 0;
  let largest = 0;
  for (let i = 0; i < n; i++) {
    const { x, y, z } = points[i]!;
    if (!Number.isFinite(x) || !Number.isFinite(y) || !Number.isFinite(z)) {
      throw new DegenerateInput(`fitPlane needs finite numbers, point ${i + 1} is (${x}, ${y}, ${z})`);
    }
    largest = Math.max(largest, Math.abs(x), Math.abs(y));
    sx += u[i] = x - o.x;
    sy += v[i] = y - o.y;
    sz += w[i] = z - o.z;
  }
  const mx = recentre(u, sx / n);
  const my = recentre(v, sy / n);
  const mz = recentre(w, sz / n);
  return { u, v, w, largest, centre: { x: o.x + mx, y: o.y + my, z: o.z + mz } };
}

/** Takes `mean` out of a column in place, then what rounding left of it; returns the whole mean. */
function recentre(column: Float64Array, mean: number): number {
  const n = column.length;
  let rest = 0;
  for (let i = 0; i < n; i++) rest += column[i]! -= mean;
  rest /= n;
  for (let i = 0; i < n; i++) column[i]! -= rest;
  return mean + rest;
}

function dot(p: Float64Array, q: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < p.length; i++) sum += p[i]! * q[i]!;
  return sum;
}

function scale(p: Float64Array, factor: number): void {
  for (let i = 0; i < p.length; i++) p[i]! *= factor;
}

/** target += factor · p, in place. */
function addScaled(target: Float64Array, p: Float64Array, factor: number): void {
  for (let i = 0; i < p.length; i++) target[i]! += factor * p[i]!;
}
