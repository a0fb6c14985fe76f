import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';
import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { gridOf } from './gridOf';
import { extentOf, type HeightPoint } from './HeightPoint';
import { stepNoise } from './readingStep';
import { solveLeast } from './solveLeast';
import { thinMap } from './thinMap';

/**
 * One thing that a map shows, with its height above (+) or below (−) what lies around, mm, and one standard deviation.
 * bow: sagitta along x or y, + higher in the middle · cap: a dome whose edges lie even all round, its middle over them ·
 * twist: how far the corners front left and rear right stand over the other two, halved · ridge: along `direction` (degrees
 * from x) through `at` · region: as wide as `across` · bump: one reading
 */
export type ShapePart = { size: number; sd: number } & (
  | { kind: 'bow'; along: 'x' | 'y' }
  | { kind: 'cap' }
  | { kind: 'twist' }
  | { kind: 'ridge'; direction: 0 | 45 | 90 | 135; at: { x: number; y: number }; across: number }
  | { kind: 'region'; at: { x: number; y: number }; across: number }
  | { kind: 'bump'; at: { x: number; y: number } }
);

/** The largest thing, named; bow: in one direction alone · none: below what this probe can see · untold: nothing says how it scatters */
export type ShapeName =
  | 'none'
  | 'untold'
  | 'dome'
  | 'dish'
  | 'saddle'
  | 'bow-up'
  | 'bow-down'
  | 'twist'
  | 'ridge'
  | 'valley'
  | 'high-region'
  | 'low-region'
  | 'bump'
  | 'pit';

export interface BedShape {
  name: ShapeName;
  /** The largest first; what is no larger than the readings' scatter is not among them. */
  parts: ShapePart[];
  /** Rise across the map along x and along y, mm, with one standard deviation: screws take it out. */
  tilt: { x: number; y: number; sdX: number; sdY: number; seen: boolean };
  /** Standard deviation of one reading, mm, and where from; null: neither told nor to be had from this map. */
  noise: { sd: number; by: 'told' | 'map' } | null;
  /** The least size that this map would show, mm: a bow, a region, one reading that stands out. */
  sees: { bow: number; region: number; bump: number } | null;
}

/** So often at most is anything claimed of a flat bed, by the kind of thing. Our own split of one in twenty. */
const ERRORS = { bow: 0.012, twist: 0.006, ridge: 0.01, region: 0.01, bump: 0.01 } as const;
/** And of a bow in both directions at once. */
const PAIR_ERROR = 0.01;
/** What a second direction must add before a bow is taken as one in both. Our own. */
const PAIR_COST = 4;
/** What the fit of all together leaves with less than so many deviations is not said. */
const STILL_SEEN = 2;
/** More things than this can't be told apart on one map. */
const MOST_PARTS = 6;
/** Places of ridges and regions are tried at this many steps a side at most. */
const MOST_STEPS = 15;
/** Widths tried, as shares of the map's shorter side. */
const WIDTHS = [0.09, 0.16, 0.23] as const;
/** What a plane says almost as well is no shape; nor is what those chosen before say but for a tenth. */
const LEAST_NORM = 0.2;
const LEAST_FREE = 0.1;
/** A deviation known better than by so many readings is as good as known. */
const MANY = 1000;
/** More readings are thinned out first: a shape needs no more. */
const MOST_READINGS = 900;

interface Atom {
  part: ShapeTemplate;
  family: keyof typeof ERRORS;
  /** Over the readings, before the plane is taken out. */
  column: Float64Array;
}
type Without<T> = T extends unknown ? Omit<T, 'size' | 'sd'> : never;
type ShapeTemplate = Without<ShapePart>;

/**
 * What shape a bed has: what is larger than the readings' scatter, each with its size, largest first.
 *
 * The plane is taken out; then the kind of thing that explains most of the rest, beyond what the best of so many places would
 * explain by chance (Bonferroni within each kind), is taken in, all are fitted anew together, until nothing more stands out.
 * Matching pursuit over a small dictionary: bows and twist as u², v², uv, a cap as (1 − u²)(1 − v²); ridges and regions as
 * Gaussians at the readings' places; bumps as single readings.
 * @param noise standard deviation of one reading, mm; not said, or 0: from the second differences of neighbours, by their median,
 * which a single bump or a smooth shape does not disturb
 * @param step deviation that the steps of what the heights were made from bring, mm, where their own no longer show it
 * @throws DegenerateInput fewer than 3 readings, all in one line, or not numbers
 * Source: orthogonal matching pursuit, Pati, Rezaiifar, Krishnaprasad, Asilomar 1993; the verdicts are common practice.
 */
export function describeShape(
  points: readonly HeightPoint[],
  { noise, step = 0 }: { noise?: number | undefined; step?: number | undefined } = {},
): BedShape {
  needNumbers('describeShape', { noise: noise ?? 0, step });
  if (noise !== undefined && !(noise >= 0))
    throw new DegenerateInput(`describeShape needs noise of 0 mm or more, got ${noise}`);
  const all = thinMap(points, MOST_READINGS);
  const fit = fitPlane(all);
  // No probe scatters by nothing: one that never showed it says no more than one that was never read twice.
  const known = !noise ? noiseOfMap(all, step) : { sd: noise, freedom: Infinity, by: 'told' as const };
  const extent = extentOf(all);
  const [width, depth] = [extent.x1 - extent.x0, extent.y1 - extent.y0];
  const sd = known?.sd ?? null;
  const scatter = Math.max(fit.deviation ?? 0, sd ?? 0);
  const errors = fit.standardErrors;
  const scale = errors && fit.deviation ? (sd ?? scatter) / fit.deviation : 0;
  const tilt = {
    x: fit.a * width,
    y: fit.b * depth,
    sdX: errors ? errors.a * scale * width : 0,
    sdY: errors ? errors.b * scale * depth : 0,
    seen: false,
  };
  tilt.seen = Math.abs(tilt.x) > 2.6 * tilt.sdX || Math.abs(tilt.y) > 2.6 * tilt.sdY;
  if (known === null) return { name: 'untold', parts: [], tilt, noise: null, sees: null };
  const least = Math.max(known.sd, 1e-9);
  const { atoms, bare, norms } = wordsFor(all);
  const limits = limitsOf(atoms, norms, known.freedom);
  const sees = {
    bow: seen('bow'),
    region: seen('region'),
    bump: seen('bump'),
  };

  const chosen: number[] = [];
  const taken: Float64Array[] = [];
  let rest = Float64Array.from(fit.residuals);
  const take = (k: number) => {
    chosen.push(k);
    const free = takeOut(bare[k]!, taken);
    const size = Math.sqrt(dot(free, free));
    const unit = free.map((value) => value / size);
    const share = dot(unit, rest);
    rest = rest.map((value, i) => value - share * unit[i]!);
    taken.push(unit);
    return (share / least) ** 2;
  };
  while (chosen.length < MOST_PARTS) {
    let best = -1;
    let most = 0;
    for (const [k, { family }] of atoms.entries()) {
      const column = bare[k]!;
      const norm = norms[k]!;
      if (chosen.includes(k) || !(norm > LEAST_NORM)) continue;
      // What is left of it beside the chosen ones; the rest holds nothing of those any more.
      const free = norm ** 2 - taken.reduce((sum, unit) => sum + dot(unit, column) ** 2, 0);
      if (!(free > LEAST_FREE * norm ** 2)) continue;
      const over = dot(column, rest) ** 2 / free / least ** 2 - limits[family] ** 2;
      if (over > most) [best, most] = [k, over];
    }
    // A dome is bowed in both directions: neither alone says as much as a heap in the middle would.
    const both = chosen.length === 0 && norms[0]! > LEAST_NORM && norms[1]! > LEAST_NORM ? togetherOver() : 0;
    if (both > most) {
      take(0);
      take(1);
      continue;
    }
    if (best < 0) break;
    take(best);
  }
  const parts = sizesOf(
    all,
    chosen.map((k) => atoms[k]!),
    least,
  )
    .filter((part) => Math.abs(part.size) > STILL_SEEN * part.sd)
    .sort((p, q) => Math.abs(q.size) - Math.abs(p.size));
  return { name: nameOf(parts), parts, tilt, noise: { sd: known.sd, by: known.by }, sees };

  function togetherOver(): number {
    const [x, y] = [bare[0]!, bare[1]!];
    const [xx, xy, yy, xr, yr] = [dot(x, x), dot(x, y), dot(y, y), dot(x, rest), dot(y, rest)];
    const divisor = xx * yy - xy * xy;
    if (!(divisor > LEAST_FREE * xx * yy)) return 0;
    const explained = (yy * xr * xr - 2 * xy * xr * yr + xx * yr * yr) / divisor;
    // Twice the F of 2 and ν that chance exceeds so often, in closed form; 1 % for the pair.
    const freedom = Math.min(known!.freedom, MANY);
    return explained / least ** 2 - PAIR_COST - freedom * (PAIR_ERROR ** (-2 / freedom) - 1);
  }

  function seen(family: keyof typeof ERRORS): number {
    const sizes = atoms.flatMap((atom, k) =>
      atom.family === family && norms[k]! > LEAST_NORM ? [(limits[family] * least) / norms[k]!] : [],
    );
    return sizes.length === 0 ? Infinity : sizes.sort((p, q) => p - q)[sizes.length >> 1]!;
  }
}

/** The chosen things fitted together with the plane, and one standard deviation of each. */
function sizesOf(points: readonly HeightPoint[], atoms: readonly Atom[], noise: number): ShapePart[] {
  if (atoms.length === 0) return [];
  const { u, v } = scaled(points);
  const rows = points.map((_, i) => [1, u[i]!, v[i]!, ...atoms.map(({ column }) => column[i]!)]);
  const { solution, spread } = solveLeast(
    rows,
    points.map(({ z }) => z),
  );
  return atoms.map(({ part }, k) => ({ ...part, size: solution[3 + k]!, sd: noise * spread[3 + k]! }) as ShapePart);
}

function nameOf(parts: readonly ShapePart[]): ShapeName {
  const [first] = parts;
  if (!first) return 'none';
  const up = first.size > 0;
  switch (first.kind) {
    case 'bow': {
      const other = parts.find((part) => part.kind === 'bow' && part.along !== first.along);
      // A bow of less than a quarter of the other is no dome to speak of.
      if (!other || Math.abs(other.size) < Math.abs(first.size) / 4) return up ? 'bow-up' : 'bow-down';
      if (other.size > 0 !== up) return 'saddle';
      return up ? 'dome' : 'dish';
    }
    case 'cap':
      return up ? 'dome' : 'dish';
    case 'twist':
      return 'twist';
    case 'ridge':
      return up ? 'ridge' : 'valley';
    case 'region':
      return up ? 'high-region' : 'low-region';
    case 'bump':
      return up ? 'bump' : 'pit';
  }
}

/** Places about the middle, −1 to 1 across the map. */
function scaled(points: readonly HeightPoint[]) {
  const { x0, y0, x1, y1 } = extentOf(points);
  return {
    u: Float64Array.from(points, ({ x }) => (2 * x - x0 - x1) / (x1 - x0)),
    v: Float64Array.from(points, ({ y }) => (2 * y - y0 - y1) / (y1 - y0)),
  };
}

interface Dictionary {
  places: Float64Array;
  atoms: Atom[];
  /** The atoms without what a plane says, and their lengths. */
  bare: Float64Array[];
  norms: number[];
}
/** The last one: maps of one machine are read at the same places again and again. */
let last: Dictionary | null = null;

function wordsFor(points: readonly HeightPoint[]): Dictionary {
  const places = new Float64Array(2 * points.length);
  points.forEach(({ x, y }, i) => places.set([x, y], 2 * i));
  if (last?.places.length === places.length && last.places.every((value, i) => value === places[i])) return last;
  const atoms = dictionary(points);
  const basis = planeBasis(points);
  const bare = atoms.map(({ column }) => takeOut(column, basis));
  last = { places, atoms, bare, norms: bare.map((column) => Math.sqrt(dot(column, column))) };
  return last;
}

function dictionary(points: readonly HeightPoint[]): Atom[] {
  const { u, v } = scaled(points);
  const { x0, y0, x1, y1 } = extentOf(points);
  const short = Math.min(x1 - x0, y1 - y0);
  const of = (at: (i: number) => number) => {
    const column = new Float64Array(points.length);
    for (let i = 0; i < column.length; i++) column[i] = at(i);
    return column;
  };
  const atoms: Atom[] = [
    { part: { kind: 'bow', along: 'x' }, family: 'bow', column: of((i) => 1 - u[i]! ** 2) },
    { part: { kind: 'bow', along: 'y' }, family: 'bow', column: of((i) => 1 - v[i]! ** 2) },
    { part: { kind: 'cap' }, family: 'bow', column: of((i) => (1 - u[i]! ** 2) * (1 - v[i]! ** 2)) },
    { part: { kind: 'twist' }, family: 'twist', column: of((i) => u[i]! * v[i]!) },
  ];
  const few = (values: readonly number[]) => {
    const lines = [...new Set(values.map((value) => Math.round(value * 1000) / 1000))].sort((p, q) => p - q);
    return lines.length <= MOST_STEPS
      ? lines
      : Array.from({ length: MOST_STEPS }, (_, k) => lines[0]! + ((lines.at(-1)! - lines[0]!) * k) / (MOST_STEPS - 1));
  };
  const middle = { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
  for (const share of WIDTHS) {
    const w = share * short;
    for (const direction of [0, 45, 90, 135] as const) {
      const angleRad = (direction * Math.PI) / 180;
      const [nx, ny] = [-Math.sin(angleRad), Math.cos(angleRad)];
      const across = few(points.map(({ x, y }) => nx * (x - middle.x) + ny * (y - middle.y)));
      // A ridge along an edge is half a ridge: no place to tell it from a bow.
      for (const offset of across.slice(1, -1)) {
        const column = of((i) =>
          Math.exp(-((nx * (points[i]!.x - middle.x) + ny * (points[i]!.y - middle.y) - offset) ** 2) / (2 * w * w)),
        );
        const at = { x: middle.x + nx * offset, y: middle.y + ny * offset };
        atoms.push({ part: { kind: 'ridge', direction, at, across: 2 * w }, family: 'ridge', column });
      }
    }
    for (const y of few(points.map((p) => p.y)))
      for (const x of few(points.map((p) => p.x)))
        atoms.push({
          part: { kind: 'region', at: { x, y }, across: 2 * w },
          family: 'region',
          column: of((i) => Math.exp(-((points[i]!.x - x) ** 2 + (points[i]!.y - y) ** 2) / (2 * w * w))),
        });
  }
  for (const [k, { x, y }] of points.entries()) {
    // So many single readings that none could stand out among them: a bump is then a region.
    if (points.length > MOST_STEPS * MOST_STEPS) break;
    atoms.push({ part: { kind: 'bump', at: { x, y } }, family: 'bump', column: of((i) => +(i === k)) });
  }
  return atoms;
}

/** How many deviations something of each kind must stand out by. */
function limitsOf(
  atoms: readonly Atom[],
  norms: readonly number[],
  freedom: number,
): Record<keyof typeof ERRORS, number> {
  const limit = (family: keyof typeof ERRORS) => {
    const tried = Math.max(1, atoms.filter((atom, k) => atom.family === family && norms[k]! > LEAST_NORM).length);
    return tQuantile(1 - ERRORS[family] / (2 * tried), Math.min(freedom, MANY));
  };
  return {
    bow: limit('bow'),
    twist: limit('twist'),
    ridge: limit('ridge'),
    region: limit('region'),
    bump: limit('bump'),
  };
}

/** Three orthonormal columns that span all planes over the places. */
function planeBasis(points: readonly HeightPoint[]): Float64Array[] {
  const { u, v } = scaled(points);
  const basis: Float64Array[] = [];
  for (const column of [u.map(() => 1), u, v]) {
    const free = takeOut(column, basis);
    const size = Math.sqrt(dot(free, free));
    basis.push(free.map((value) => value / size));
  }
  return basis;
}

/** What is left of a column when what orthonormal ones say is taken out, twice for the digits. */
function takeOut(column: Float64Array, basis: readonly Float64Array[]): Float64Array {
  const free = Float64Array.from(column);
  for (let pass = 0; pass < 2; pass++)
    for (const other of basis) {
      const share = dot(free, other);
      for (let i = 0; i < free.length; i++) free[i]! -= share * other[i]!;
    }
  return free;
}

function dot(p: ArrayLike<number>, q: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < p.length; i++) sum += p[i]! * q[i]!;
  return sum;
}

/** What steps look like beside a noise that is anywhere: stripes add up along a shape. Our own. */
export const STRIPES = 1.5;
/** Fewer second differences than this say nothing. */
const FEWEST_DIFFERENCES = 12;

/** Deviation of one reading from the second differences along rows and columns, by their median; null: too few. */
function noiseOfMap(points: readonly HeightPoint[], step: number): { sd: number; freedom: number; by: 'map' } | null {
  const grid = gridOf(points);
  if (!grid) return null;
  const sizes: number[] = [];
  const along = (lines: readonly number[], heights: readonly number[]) => {
    for (let k = 1; k + 1 < lines.length; k++) {
      const share = (lines[k]! - lines[k - 1]!) / (lines[k + 1]! - lines[k - 1]!);
      const second = heights[k]! - (1 - share) * heights[k - 1]! - share * heights[k + 1]!;
      // Of three alike readings with these shares.
      if (second === second) sizes.push(Math.abs(second) / Math.sqrt(1 + share ** 2 + (1 - share) ** 2));
    }
  };
  for (const row of grid.heights) along(grid.xs, row);
  for (const [c] of grid.xs.entries())
    along(
      grid.ys,
      grid.heights.map((row) => row[c]!),
    );
  if (sizes.length < FEWEST_DIFFERENCES) return null;
  const median = sizes.sort((p, q) => p - q)[sizes.length >> 1]!;
  // The median of a normal deviate's size is 0.6745; as sure as about a third of as many readings.
  // Steps are a noise, and one that runs in stripes over a slope: it is counted as half as large again.
  const sd = Math.max(median / 0.6745, STRIPES * Math.max(step, stepNoise(points.map(({ z }) => z))));
  return { sd, freedom: Math.max(4, sizes.length / 4), by: 'map' };
}
