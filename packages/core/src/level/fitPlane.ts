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
/** Beyond this the products that the fit is made of are no numbers any more. */
const LARGEST = 1e60;

/**
 * Least-squares plane z = a·x + b·y + c through measured heights.
 *
 * Centred QR: the means are taken out (twice, so that offsets of 1e6 mm cost no digits), then the two
 * columns are made orthogonal by modified Gram-Schmidt with one reorthogonalisation, without square roots inside.
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
  const { u, v, w, uu, uv, vv, centre, largest } = centred(points);

  const floor = 4 * Number.EPSILON * Math.sqrt(n) * largest;
  // Orthogonalise against the longer column first: it defines the better-known direction.
  const xFirst = uu >= vv;
  const p = xFirst ? u : v;
  const q = xFirst ? v : u;
  const pp = Math.max(uu, vv);
  const r11 = Math.sqrt(pp);
  const norm2 = Math.sqrt(Math.min(uu, vv));
  if (!(r11 > floor)) throw new DegenerateInput('fitPlane needs points in more than one place');
  // Each loop takes one projection out and gathers the products that the next one needs.
  const k = uv / pp;
  let again = 0;
  for (let i = 0; i < n; i++) again += p[i]! * (q[i]! -= k * p[i]!);
  const k2 = again / pp;
  let qq = 0;
  let pw = 0;
  for (let i = 0; i < n; i++) {
    const rest = (q[i]! -= k2 * p[i]!);
    qq += rest * rest;
    pw += p[i]! * w[i]!;
  }
  const r12 = (k + k2) * r11;
  const r22 = Math.sqrt(qq);
  if (!(r22 > floor) || !(r22 > RANK_TOLERANCE * norm2)) {
    throw new DegenerateInput('fitPlane needs points that are not all on one line');
  }
  const t1 = pw / pp;
  let qw = 0;
  for (let i = 0; i < n; i++) qw += q[i]! * (w[i]! -= t1 * p[i]!);
  const s2 = qw / qq;
  let ww = 0;
  for (let i = 0; i < n; i++) {
    const residual = (w[i]! -= s2 * q[i]!);
    ww += residual * residual;
  }
  const s1 = t1 - (k + k2) * s2;
  const a = xFirst ? s1 : s2;
  const b = xFirst ? s2 : s1;
  const c = centre.z - a * centre.x - b * centre.y;

  let deviation: number | null = null;
  let standardErrors: PlaneFit['standardErrors'] = null;
  if (n > 3) {
    deviation = Math.sqrt(ww / (n - 3));
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
  const columns = new Float64Array(3 * n);
  const u = columns.subarray(0, n);
  const v = columns.subarray(n, 2 * n);
  const w = columns.subarray(2 * n);
  const o = points[0]!;
  let sx = 0;
  let sy = 0;
  let sz = 0;
  let largest = 0;
  for (let i = 0; i < n; i++) {
    const { x, y, z } = points[i]!;
    const size = Math.abs(x) + Math.abs(y);
    if (size > largest) largest = size;
    sx += u[i] = x - o.x;
    sy += v[i] = y - o.y;
    sz += w[i] = z - o.z;
  }
  // One value that is not finite spoils its sum: only then is it worth looking for.
  if (!Number.isFinite(sx + sy + sz) || !(largest <= LARGEST) || !(Math.abs(sz) <= n * LARGEST))
    refuseNotFinite(points);
  const centre = { x: o.x, y: o.y, z: o.z };
  centre.x += sx / n;
  centre.y += sy / n;
  centre.z += sz / n;
  const rest = [takeOut(u, sx / n), takeOut(v, sy / n), takeOut(w, sz / n)] as const;
  // Once more: what rounding has left of the means, and the products that the fit begins with.
  let uu = 0;
  let uv = 0;
  let vv = 0;
  for (let i = 0; i < n; i++) {
    const du = (u[i]! -= rest[0]);
    const dv = (v[i]! -= rest[1]);
    w[i]! -= rest[2];
    uu += du * du;
    uv += du * dv;
    vv += dv * dv;
  }
  centre.x += rest[0];
  centre.y += rest[1];
  centre.z += rest[2];
  return { u, v, w, uu, uv, vv, largest, centre };
}

/** Takes a mean out of a column in place and returns the mean of what is left. */
function takeOut(column: Float64Array, mean: number): number {
  let sum = 0;
  for (let i = 0; i < column.length; i++) sum += column[i]! -= mean;
  return sum / column.length;
}

function refuseNotFinite(points: readonly HeightPoint[]): void {
  const at = points.findIndex(({ x, y, z }) => ![x, y, z].every((value) => Math.abs(value) <= LARGEST));
  const bad = points[at];
  if (bad) {
    throw new DegenerateInput(`fitPlane needs finite numbers, point ${at + 1} is (${bad.x}, ${bad.y}, ${bad.z})`);
  }
  throw new DegenerateInput('fitPlane needs coordinates whose sum is a finite number');
}
