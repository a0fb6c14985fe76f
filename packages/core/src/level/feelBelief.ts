import { stiffBed, type Position } from './stiffBed';

/** How a slip of paper feels between nozzle and bed, in the order of the gap. */
export const FEELS = ['jammed', 'tight', 'drags', 'light', 'free'] as const;
export type Feel = (typeof FEELS)[number];

/** An adjuster as feeling needs it: mm and mm a turn; `clockwise`, looking down, is what a clockwise turn does to the bed. */
export interface FeelAdjuster extends Position {
  id: string;
  pitch: number;
  clockwise: 'raises' | 'lowers';
  /** Driven by a motor of its own: turns are mm, + up. */
  motor?: true;
}

/** What a bed is before anybody has felt it, and how hands feel. mm; one standard deviation each. */
export interface FeelPrior {
  /** Of the height at an adjuster. */
  height: number;
  /** Of the middle over the plane of the adjusters. */
  bow: number;
  /** Of what a turn moves, as a share of what its thread says. */
  gain: number;
  /** How far a turn of the hand is from what was said, turns. */
  hand: number;
  /** Of the edges between two feels. */
  noise: number;
  /** How often a feel is off by one. */
  slip: number;
}

/** Where the feels part, as gap less thickness, mm. Common practice: a sheet gives some hundredths before it jams. */
export const FEEL_EDGES = [-0.05, -0.02, 0.02, 0.05] as const;

/** Common for a bed after a refit, and for a hand that takes five seconds a point. Common practice. */
export const USUAL_BED: FeelPrior = { height: 0.45, bow: 0.03, gain: 0.08, hand: 0.02, noise: 0.008, slip: 0.05 };

// Called a million times in a simulation, where a look-up among the globals of a test costs more than the sum.
const { abs, exp, max, sqrt, PI, SQRT2 } = Math;
const Numbers = Float64Array;

/** How often a key says nothing at all of the gap: the wrong one, pressed while looking elsewhere. */
const ASTRAY = 0.005;
/** A screw that is turned back loses some of its turn to the play of its thread, turns, one standard deviation. Common practice. */
const PLAY = 0.025;

/** What an adjuster does besides what its thread says. */
export type FeelOdd = 'stuck' | 'reversed' | 'other-thread';

/** One way in which the bed, its screws and the hand may be. */
export interface FeelWorld {
  /** How far the plate follows a screw alone instead of staying a plane: 0 stiff, 1 wholly. */
  twist: number;
  /** The adjuster that is not as written down, by its place in the list; -1: all of them. */
  odd: { index: number; way: FeelOdd } | null;
  /** Edges and noise of the hand, as a multiple of the usual. */
  hand: number;
  /** Heights as found, as a multiple of the usual. */
  height: number;
}

/** As written down, with a plate that stays plane and the usual hand. */
export const USUAL_WORLD: FeelWorld = { twist: 0, odd: null, hand: 1, height: 1 };

/** Where the adjusters stand and what each does to plate and places; worked out once for a bed. */
export interface FeelFrame {
  adjusters: readonly FeelAdjuster[];
  prior: FeelPrior;
  /** One standard deviation of what is known of the gauge, mm. */
  gauge: number;
  /** By place (the adjusters, then the middle): height, two slopes, bow, and one for each way in which the plate can twist. */
  places: readonly Float64Array[];
  /** By adjuster: what 1 mm of its rise does to the gap, for a plane and for the twists of a plate that follows wholly. */
  planes: readonly Float64Array[];
  twists: readonly Float64Array[];
  /** Plane, bow and twists; the gains of the adjusters come after. */
  bed: number;
  size: number;
}

const PLANE = 4;

/** @throws DegenerateAdjusters fewer than three, in one line, two on one spot */
export function feelFrame({ adjusters, prior, gauge }: Pick<FeelFrame, 'adjusters' | 'prior' | 'gauge'>): FeelFrame {
  const bed = stiffBed(adjusters);
  const n = adjusters.length;
  const [mx, my] = [adjusters.reduce((sum, { x }) => sum + x, 0) / n, adjusters.reduce((sum, { y }) => sum + y, 0) / n];
  const radius = max(...adjusters.map(({ x, y }) => Math.hypot(x - mx, y - my)));
  const twistsOf = n - 3;
  const size = PLANE + twistsOf;
  const basisAt = ({ x, y }: Position) => {
    const [u, v] = [(x - mx) / radius, (y - my) / radius];
    const row = new Numbers(size + n);
    row.set([1, u, v, 1 - u * u - v * v]);
    return row;
  };
  const unit = adjusters.map((_, i) => bed(adjusters.map((__, j) => (i === j ? 1 : 0))));
  // What a plane can't follow of one rise, at every adjuster.
  const left = unit.map(({ a, b, c }, i) => adjusters.map(({ x, y }, j) => (i === j ? 1 : 0) - (c + a * x + b * y)));
  const modes = orthonormal(left, twistsOf);
  const places = [...adjusters, { x: mx, y: my }].map((place, i) => {
    const row = basisAt(place);
    for (const [k, mode] of modes.entries()) row[PLANE + k] = i < n ? mode[i]! : 0;
    return row;
  });
  return {
    adjusters,
    prior,
    gauge,
    places,
    // A bed that rises closes the gap.
    planes: unit.map(({ a, b, c }) => Float64Array.from([-(c + a * mx + b * my), -a * radius, -b * radius, 0])),
    twists: left.map((rest) => Float64Array.from(modes, (mode) => -rest.reduce((sum, r, j) => sum + r * mode[j]!, 0))),
    bed: size,
    size: size + n,
  };
}

/** At most `count` unit vectors, at right angles, that span the given ones. */
function orthonormal(vectors: readonly (readonly number[])[], count: number): number[][] {
  const found: number[][] = [];
  for (const vector of vectors) {
    if (found.length === count) break;
    const rest = [...vector];
    for (const one of found) {
      const along = rest.reduce((sum, r, j) => sum + r * one[j]!, 0);
      for (const j of rest.keys()) rest[j]! -= along * one[j]!;
    }
    const length = Math.hypot(...rest);
    if (length > 1e-6) found.push(rest.map((r) => r / length));
  }
  return found;
}

/** What is known of a bed in one world: a Gaussian over plane, bow, twists and what each adjuster's turn does. */
export interface FeelBelief {
  world: FeelWorld;
  mean: Float64Array;
  /** Row by row. */
  covariance: Float64Array;
  /** What follows at each place, once it was asked for. */
  at?: Float64Array;
}

/** A plate that lies on its screws is itself not quite plane, mm. Common practice. */
const PLATE_TWIST = 0.02;
const STUCK = { share: 0.03, spread: 0.03 };
const OTHER_THREAD = 0.35;

/** What is known in a world before anything was felt. */
export function beliefBefore(frame: FeelFrame, world: FeelWorld): FeelBelief {
  const { prior, size, bed, adjusters, places } = frame;
  const mean = new Numbers(size);
  const covariance = new Numbers(size * size);
  const height = prior.height * world.height;
  // Slopes so that the height at an adjuster varies as the prior says.
  const corner = adjusters.reduce((sum, _, i) => sum + places[i]![1]! ** 2 + places[i]![2]! ** 2, 0);
  const variance = height ** 2 / (1 + corner / adjusters.length);
  for (let i = 0; i < 3; i++) covariance[i * (size + 1)] = variance;
  covariance[3 * (size + 1)] = prior.bow ** 2;
  for (let i = PLANE; i < bed; i++) covariance[i * (size + 1)] = (world.twist * height) ** 2 + PLATE_TWIST ** 2;
  for (const i of adjusters.keys()) {
    const way = world.odd && (world.odd.index === i || world.odd.index === -1) ? world.odd.way : null;
    mean[bed + i] = way === 'stuck' ? STUCK.share : way === 'reversed' ? -1 : 1;
    const spread = way === 'stuck' ? STUCK.spread : way === 'other-thread' ? OTHER_THREAD : prior.gain;
    covariance[(bed + i) * (size + 1)] = spread ** 2;
  }
  return { world, mean, covariance };
}

/** Gap less thickness along a row: its mean and variance. */
export function alongRow({ mean, covariance }: FeelBelief, row: Float64Array): { mean: number; variance: number } {
  const n = mean.length;
  let value = 0;
  let variance = 0;
  for (let i = 0; i < n; i++) {
    const r = row[i]!;
    if (r === 0) continue;
    value += r * mean[i]!;
    // Both halves of the covariance are alike.
    let sum = 0;
    for (let j = 0; j < i; j++) sum += covariance[i * n + j]! * row[j]!;
    variance += r * (2 * sum + covariance[i * n + i]! * r);
  }
  return { mean: value, variance: max(0, variance) };
}

/** Gap less thickness at each place, mean and variance by turns: worked out once for a belief. */
export function atPlaces(frame: FeelFrame, belief: FeelBelief): Float64Array {
  if (belief.at) return belief.at;
  const all = new Numbers(2 * frame.places.length);
  for (let i = 0; i < frame.places.length; i++) {
    const { mean, variance } = alongRow(belief, frame.places[i]!);
    all[2 * i] = mean;
    all[2 * i + 1] = variance;
  }
  belief.at = all;
  return all;
}

/** The variance with which a feel stands for the gap: edges that aren't sharp, and a gauge that isn't known exactly. */
const feelVariance = ({ prior, gauge }: FeelFrame, world: FeelWorld) => (prior.noise * world.hand) ** 2 + gauge ** 2;

/** The five classes of feel as parts of a Gaussian: share, mean and variance of each, in the order of the feels. */
interface Parts {
  share: Float64Array;
  mean: Float64Array;
  variance: Float64Array;
}

const CLASSES = FEELS.length;

function partsOf(mean: number, sd: number, hand: number): Parts {
  const parts: Parts = {
    share: new Numbers(CLASSES),
    mean: new Numbers(CLASSES),
    variance: new Numbers(CLASSES),
  };
  let [below, thick, a] = [0, 0, -Infinity];
  for (let i = 0; i < CLASSES; i++) {
    const high = i < FEEL_EDGES.length ? hand * FEEL_EDGES[i]! : Infinity;
    const b = (high - mean) / sd;
    const belowNext = normalBelow(b);
    const thickNext = b === Infinity ? 0 : exp((-b * b) / 2) / sqrt(2 * PI);
    const share = belowNext - below;
    if (share < 1e-9) {
      // No weight that could be told from rounding: the nearer edge stands for it.
      parts.share[i] = 1e-15;
      parts.mean[i] = a > 0 ? mean + sd * a : high;
      parts.variance[i] = 1e-6;
    } else {
      const shift = (thick - thickNext) / share;
      const spread = ((a === -Infinity ? 0 : a * thick) - (b === Infinity ? 0 : b * thickNext)) / share;
      parts.share[i] = share;
      parts.mean[i] = mean + sd * shift;
      parts.variance[i] = max(1e-12, sd * sd * (1 + spread - shift * shift));
    }
    [below, thick, a] = [belowNext, thickNext, b];
  }
  return parts;
}

/** How often the class that is felt is said as that key: mostly itself, now and then its neighbour, seldom any. */
function said(felt: number, key: number, slip: number): number {
  const apart = abs(felt - key);
  // At an end there is one neighbour alone.
  const beside = felt === 0 || felt === CLASSES - 1 ? slip / 2 : slip;
  const own = apart === 0 ? 1 - beside : apart === 1 ? slip / 2 : 0;
  return (1 - ASTRAY) * own + ASTRAY / CLASSES;
}

/** Adds how likely each key is at a place, by what is known in this world, times a weight. */
export function addKeyShares(into: number[], frame: FeelFrame, belief: FeelBelief, place: number, weight: number) {
  const at = atPlaces(frame, belief);
  const sd = sqrt(at[2 * place + 1]! + feelVariance(frame, belief.world));
  const { share } = partsOf(at[2 * place]!, sd, belief.world.hand);
  for (let key = 0; key < CLASSES; key++)
    for (let felt = 0; felt < CLASSES; felt++) into[key]! += weight * share[felt]! * said(felt, key, frame.prior.slip);
}

/**
 * What is known after a feel: the gap there lies between two edges, which themselves are not sharp, and now and then the
 * key is another. The posterior is matched in mean and covariance, which along the felt direction is exact.
 * @returns the belief, and how likely that key was by what was known
 */
export function feltBelief(
  frame: FeelFrame,
  belief: FeelBelief,
  place: number,
  key: number,
): { belief: FeelBelief; likely: number } {
  const row = frame.places[place]!;
  const { mean, covariance, world } = belief;
  const n = mean.length;
  const cross = new Numbers(n);
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let j = 0; j < frame.bed; j++) sum += covariance[i * n + j]! * row[j]!;
    cross[i] = sum;
  }
  const known = atPlaces(frame, belief);
  const at = known[2 * place]!;
  const variance = known[2 * place + 1]! + feelVariance(frame, world);
  const parts = partsOf(at, sqrt(variance), world.hand);
  let [likely, first, second] = [0, 0, 0];
  for (let felt = 0; felt < CLASSES; felt++) {
    const weight = parts.share[felt]! * said(felt, key, frame.prior.slip);
    likely += weight;
    first += weight * parts.mean[felt]!;
    second += weight * (parts.variance[felt]! + parts.mean[felt]! ** 2);
  }
  const newMean = first / likely;
  const less = variance - max(1e-12, second / likely - newMean * newMean);
  const next = new Numbers(n);
  const nextCovariance = new Numbers(n * n);
  for (let i = 0; i < n; i++) {
    const gain = cross[i]! / variance;
    next[i] = mean[i]! + gain * (newMean - at);
    for (let j = 0; j < n; j++)
      nextCovariance[i * n + j] = covariance[i * n + j]! - gain * (cross[j]! / variance) * less;
  }
  return { belief: { world, mean: next, covariance: nextCovariance }, likely };
}

/** Share of a standard Gaussian below x. Abramowitz & Stegun, 7.1.26, error below 1.5e-7 (from memory). */
export function normalBelow(x: number): number {
  if (x === Infinity) return 1;
  if (x === -Infinity) return 0;
  const z = abs(x) / SQRT2;
  const t = 1 / (1 + 0.3275911 * z);
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const erf = 1 - poly * exp(-z * z);
  return x < 0 ? (1 - erf) / 2 : (1 + erf) / 2;
}

/** How far a turn raises the bed at its adjuster by its thread, mm. */
export const riseOf = ({ pitch, clockwise }: FeelAdjuster, turns: number) =>
  turns * pitch * (clockwise === 'raises' ? 1 : -1);

/** What 1 mm of an adjuster's rise does to plane, bow and twists in a world. */
function effectOf(frame: FeelFrame, world: FeelWorld, index: number): Float64Array {
  const effect = new Numbers(frame.bed);
  effect.set(frame.planes[index]!);
  for (const [k, value] of frame.twists[index]!.entries()) effect[PLANE + k] = world.twist * value;
  return effect;
}

/** The variance of a turn of the hand, mm²; more where the screw is turned back. */
const handVariance = ({ prior, adjusters }: FeelFrame, index: number, back: boolean) =>
  ((back ? Math.hypot(prior.hand, PLAY) : prior.hand) * adjusters[index]!.pitch) ** 2;

/**
 * What is known after a turn: plate and screws have moved by the thread, times a gain that is not known exactly, times a hand
 * that isn't exact either.
 * @param back it was turned the other way the last time
 */
export function turnedBelief(
  frame: FeelFrame,
  { world, mean, covariance }: FeelBelief,
  { index, rise, back }: { index: number; rise: number; back: boolean },
): FeelBelief {
  const effect = effectOf(frame, world, index);
  const { bed, size: n } = frame;
  const gain = bed + index;
  const next = mean.slice();
  for (let i = 0; i < bed; i++) next[i]! += rise * effect[i]! * mean[gain]!;
  // The state moves linearly: bed += rise × gain × effect, on both sides of the covariance.
  const half = covariance.slice();
  for (let i = 0; i < n; i++)
    for (let j = 0; j < bed; j++) half[i * n + j]! += rise * effect[j]! * covariance[i * n + gain]!;
  const moved = half.slice();
  for (let i = 0; i < bed; i++)
    for (let j = 0; j < n; j++) moved[i * n + j]! += rise * effect[i]! * half[gain * n + j]!;
  if (rise !== 0) {
    const hand = handVariance(frame, index, back);
    for (let i = 0; i < bed; i++) for (let j = 0; j < bed; j++) moved[i * n + j]! += hand * effect[i]! * effect[j]!;
  }
  return { world, mean: next, covariance: moved };
}

/** Gap less thickness at a place after a turn that is only thought of. */
export function gapAfterTurn(
  frame: FeelFrame,
  belief: FeelBelief,
  place: number,
  { index, rise, back }: { index: number; rise: number; back: boolean },
): { mean: number; variance: number } {
  const row = frame.places[place]!.slice();
  const effect = effectOf(frame, belief.world, index);
  let along = 0;
  for (let i = 0; i < frame.bed; i++) along += row[i]! * effect[i]!;
  row[frame.bed + index]! += rise * along;
  const at = alongRow(belief, row);
  return { mean: at.mean, variance: at.variance + handVariance(frame, index, back) * along * along };
}

/** A bed that may have moved by itself: its plane and twists are known less well by so much, mm. */
export function widened(frame: FeelFrame, { world, mean, covariance }: FeelBelief, by: number): FeelBelief {
  const wide = covariance.slice();
  for (let i = 0; i < frame.bed; i++)
    if (i !== 3) wide[i * (frame.size + 1)]! += (i < 3 ? by * by : (by * max(world.twist, 0.2)) ** 2) / (i < 3 ? 3 : 1);
  return { world, mean, covariance: wide };
}
