import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';
import type { Adjuster } from './planTurns';
import { stiffBed } from './stiffBed';

/** Turns that were made between two readings of a bed. */
export interface TurnsSeen {
  before: readonly HeightPoint[];
  now: readonly HeightPoint[];
  /** Turns made, + clockwise looking down, in the order of the adjusters. */
  turns: readonly number[];
}

/** What an adjuster may be: as its thread says · of another thread · stuck or slipping · turned the other way round. */
export const ADJUSTER_WAYS = ['as-said', 'other-thread', 'stuck', 'reversed'] as const;
export type AdjusterWay = (typeof ADJUSTER_WAYS)[number];

/** What has been learned of an adjuster. */
export interface AdjusterLearned {
  id: string;
  /** How likely each is, 0 to 1. */
  likely: Record<AdjusterWay, number>;
  /** The likeliest, where it is sure enough; null: can't tell yet. */
  way: AdjusterWay | null;
  /** What a turn moves as a share of what its thread says, and one standard deviation; − it moves the other way. */
  share: number;
  uncertainty: number;
}

/** Share and spread of each way, and how likely it is before anything is seen. Common practice, from memory. */
const PRIOR: Record<AdjusterWay, { share: number; spread: number; likely: number }> = {
  'as-said': { share: 1, spread: 0.06, likely: 0.91 },
  'other-thread': { share: 1, spread: 0.4, likely: 0.03 },
  stuck: { share: 0.05, spread: 0.1, likely: 0.03 },
  reversed: { share: -1, spread: 0.1, likely: 0.03 },
};
/** How likely each way is before anything is seen. */
export const WAY_PRIOR = Object.fromEntries(ADJUSTER_WAYS.map((way) => [way, PRIOR[way].likely])) as Record<
  AdjusterWay,
  number
>;

/** It is said when it is so likely. */
const SURE = 0.9;
/** A hand turns to within so much of what was said, turns, one standard deviation. */
const HAND = 0.02;
/** Deviation of one reading of common probes, mm; the readings' own is shrunk toward it as that of so many readings. */
const USUAL_NOISE = 0.01;
const USUAL_WEIGHT = 4;
/** So many rounds are looked back upon. */
const MOST_ROUNDS = 20;
/** More than so many that are each odd in a way of their own are not thought of at once. */
const MOST_ODD = 2;
/** A screw that is turned back loses some of its turn to the play of its thread, turns, one standard deviation. Common practice. */
const PLAY = 0.1;
/**
 * All alike, which is one slip of whoever wrote the machine down: all the other way round, or all of another thread, whose share
 * they have in common. Common practice, and our own guess of how common.
 */
export const ALL_ALIKE: readonly { way: AdjusterWay; share: number; likely: number; common: number; own: number }[] = [
  { way: 'reversed', share: -1, likely: 0.03, common: 0.05, own: 0.06 },
  { way: 'reversed', share: -1, likely: 0.004, common: 0.4, own: 0.06 },
  { way: 'other-thread', share: 0.75, likely: 0.01, common: 0.25, own: 0.06 },
  { way: 'other-thread', share: 1.4, likely: 0.01, common: 0.3, own: 0.08 },
];

/** What the adjusters may be together: each its way, with what they have in common. */
interface Pairing {
  ways: readonly AdjusterWay[];
  log: number;
  mean: number[];
  /** Covariance of the shares, row by row. */
  spread: number[][];
}

/**
 * What each adjuster really does, from turns that were made and the readings before and after them. A probe homes anew each
 * time, so that only the change of slope counts. Every pairing of what the adjusters may be is weighed by how well it
 * foretells the changes seen, exactly: within a pairing all is Gaussian.
 * @param rounds turns with the readings around them, of one bed with these adjusters
 * @returns one for each adjuster, in their order; without rounds, what is thought beforehand
 * @throws DegenerateAdjusters adjusters that can't tilt a plate
 * @throws DegenerateInput turns that are no numbers, or of another count
 * Source: Bayesian linear model with Gaussian prior and noise, e.g. C. M. Bishop, Pattern Recognition and Machine Learning,
 * Springer 2006, §3.3, with the evidence of §3.4 (from memory).
 */
export function learnAdjusters({
  adjusters,
  rounds,
  likely: before = adjusters.map(() => WAY_PRIOR),
}: {
  adjusters: readonly Adjuster[];
  rounds: readonly TurnsSeen[];
  /** What is thought of each beforehand: by what was felt. */
  likely?: readonly Readonly<Record<AdjusterWay, number>>[];
}): AdjusterLearned[] {
  const moveOf = stiffBed(adjusters);
  const n = adjusters.length;
  const unit = adjusters.map((_, i) => moveOf(adjusters.map((__, j) => (i === j ? 1 : 0))));
  const rows: number[][] = [];
  const seen: number[] = [];
  /** Of the readings, and of the hands for each adjuster: what they slip by moves the more, the coarser its thread. */
  const noise: number[][] = [];
  const slips: { at: number; unit: { a: number; b: number }; adjuster: number; variance: number }[] = [];
  const lastTurns: (number | undefined)[] = [];
  for (const { before: then, now, turns } of rounds.slice(-MOST_ROUNDS)) {
    if (turns.length !== n || !turns.every((turn) => Math.abs(turn) <= 1000))
      throw new DegenerateInput(`learnAdjusters needs a number of turns for each of ${n} adjusters`);
    const rises = adjusters.map(({ pitch, clockwise }, i) => turns[i]! * pitch * (clockwise === 'raises' ? 1 : -1));
    const change = slopeChange(then, now);
    if (!change || rises.every((rise) => rise === 0)) continue;
    const at = rows.length;
    rows.push(
      rises.map((rise, i) => rise * unit[i]!.a),
      rises.map((rise, i) => rise * unit[i]!.b),
    );
    seen.push(change.a, change.b);
    for (const row of noise) row.push(0, 0);
    for (const [i, turn] of turns.entries()) {
      if (turn === 0) continue;
      const back = turn * (lastTurns[i] ?? 0) < 0;
      const variance = ((back ? Math.hypot(HAND, PLAY) : HAND) * adjusters[i]!.pitch) ** 2;
      slips.push({ at, unit: unit[i]!, adjuster: i, variance });
      lastTurns[i] = turn;
    }
    noise.push(
      [...new Array<number>(at).fill(0), change.aa, change.ab],
      [...new Array<number>(at).fill(0), change.ab, change.bb],
    );
  }
  const pairings = pairingsOf(before);
  const noiseOf = ({ mean }: Pairing) => {
    const all = noise.map((row) => [...row]);
    for (const {
      at,
      unit: { a, b },
      adjuster,
      variance,
    } of slips) {
      const own = variance * Math.max(1, mean[adjuster]! ** 2);
      all[at]![at]! += own * a * a;
      all[at]![at + 1]! += own * a * b;
      all[at + 1]![at]! += own * a * b;
      all[at + 1]![at + 1]! += own * b * b;
    }
    return all;
  };
  const weighed = pairings.map((pairing) => posterior(pairing, rows, seen, noiseOf(pairing)));
  const best = Math.max(...weighed.map(({ log }) => log));
  const weights = weighed.map(({ log }) => Math.exp(log - best));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return adjusters.map(({ id }, i) => {
    const likely = Object.fromEntries(ADJUSTER_WAYS.map((way) => [way, 0])) as Record<AdjusterWay, number>;
    let [share, square] = [0, 0];
    for (const [k, { ways }] of pairings.entries()) {
      const weight = weights[k]! / total;
      likely[ways[i]!] += weight;
      share += weight * weighed[k]!.mean[i]!;
      square += weight * (weighed[k]!.variance[i]! + weighed[k]!.mean[i]! ** 2);
    }
    const way = ADJUSTER_WAYS.find((one) => likely[one] >= SURE) ?? null;
    // A screw that was never turned or felt is what is thought of any; and none is as said that moves the other way.
    const known = rows.some((row) => row[i] !== 0) || before[i] !== WAY_PRIOR;
    return {
      id,
      likely,
      way: known && !(way === 'as-said' && !(share > 0)) ? way : null,
      share,
      uncertainty: Math.sqrt(Math.max(0, square - share * share)),
    };
  });
}

/** All that the adjusters may be together: at most so many odd in ways of their own, or all alike. */
function pairingsOf(before: readonly Readonly<Record<AdjusterWay, number>>[]): Pairing[] {
  const n = before.length;
  const single = Array.from({ length: n }).reduce<AdjusterWay[][]>(
    (all) =>
      all.flatMap((ways) => {
        const odd = ways.filter((way) => way !== 'as-said').length;
        return ADJUSTER_WAYS.filter((way) => way === 'as-said' || odd < MOST_ODD).map((way) => [...ways, way]);
      }),
    [[]],
  );
  // What is thought beforehand of each weighs as much more, or less, as it does of any.
  const thought = (ways: readonly AdjusterWay[]) =>
    ways.reduce((sum, way, i) => sum + Math.log(Math.max(1e-12, before[i]![way] / WAY_PRIOR[way])), 0);
  const diagonal = (own: readonly number[], common: number) =>
    own.map((variance, i) => own.map((_, j) => common ** 2 + (i === j ? variance : 0)));
  return [
    ...single.map((ways): Pairing => ({
      ways,
      log: ways.reduce((sum, way) => sum + Math.log(WAY_PRIOR[way]), 0) + thought(ways),
      mean: ways.map((way) => PRIOR[way].share),
      spread: diagonal(
        ways.map((way) => PRIOR[way].spread ** 2),
        0,
      ),
    })),
    ...ALL_ALIKE.map(({ way, share, likely, common, own }): Pairing => {
      const ways = before.map(() => way);
      return {
        ways,
        log: Math.log(likely) + thought(ways),
        mean: ways.map(() => share),
        spread: diagonal(
          ways.map(() => own ** 2),
          common,
        ),
      };
    }),
  ];
}

/** Change of slope between two readings of the same places, and its covariance; null: none can be told. */
function slopeChange(before: readonly HeightPoint[], now: readonly HeightPoint[]) {
  // By place: what the plate's shape adds is in both, and drops out.
  const first = new Map(before.map((point) => [`${point.x.toFixed(2)} ${point.y.toFixed(2)}`, point]));
  const pairs = now.flatMap(({ x, y, z }) => {
    const was = first.get(`${x.toFixed(2)} ${y.toFixed(2)}`);
    return was ? [{ x, y, z: z - was.z }] : [];
  });
  if (pairs.length < 4) return null;
  try {
    const { a, b, residuals, centre } = fitPlane(pairs);
    const free = pairs.length - 3;
    // Of a difference: twice that of one reading.
    const own = residuals.reduce((sum, r) => sum + r * r, 0);
    const variance = (own + USUAL_WEIGHT * 2 * USUAL_NOISE ** 2) / (free + USUAL_WEIGHT);
    let [uu, uv, vv] = [0, 0, 0];
    for (const { x, y } of pairs) {
      const [u, v] = [x - centre.x, y - centre.y];
      uu += u * u;
      uv += u * v;
      vv += v * v;
    }
    const det = uu * vv - uv * uv;
    return { a, b, aa: (variance * vv) / det, ab: (-variance * uv) / det, bb: (variance * uu) / det };
  } catch (error) {
    if (error instanceof DegenerateInput) return null;
    throw error;
  }
}

/** Log evidence of a pairing, prior included, and what it makes of each share. */
function posterior(
  { log: prior, mean, spread }: Pairing,
  rows: readonly number[][],
  seen: readonly number[],
  noise: readonly number[][],
): { log: number; mean: number[]; variance: number[] } {
  const m = seen.length;
  if (m === 0) return { log: prior, mean, variance: spread.map((row, i) => row[i]!) };
  // How the shares go with each change that was seen.
  const along = rows.map((row) => spread.map((line) => line.reduce((sum, value, k) => sum + value * row[k]!, 0)));
  const off = seen.map((value, i) => value - rows[i]!.reduce((sum, h, k) => sum + h * mean[k]!, 0));
  const all = rows.map((row, i) =>
    along.map((other, j) => noise[i]![j]! + row.reduce((sum, h, k) => sum + h * other[k]!, 0)),
  );
  const lower = cholesky(all);
  const white = solveLower(lower, off);
  let log = prior;
  for (let i = 0; i < m; i++) log -= white[i]! ** 2 / 2 + Math.log(lower[i]![i]!);
  const shares = mean.map((value, k) => {
    const cross = solveLower(
      lower,
      along.map((one) => one[k]!),
    );
    return {
      mean: value + cross.reduce((sum, c, i) => sum + c * white[i]!, 0),
      variance: spread[k]![k]! - cross.reduce((sum, c) => sum + c * c, 0),
    };
  });
  return { log, mean: shares.map((one) => one.mean), variance: shares.map((one) => one.variance) };
}

/** Lower triangle L with L·Lᵀ = A, A symmetric and positive. */
function cholesky(a: readonly number[][]): number[][] {
  const n = a.length;
  const lower = a.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = a[i]![j]!;
      for (let k = 0; k < j; k++) sum -= lower[i]![k]! * lower[j]![k]!;
      lower[i]![j] = i === j ? Math.sqrt(Math.max(sum, 1e-30)) : sum / lower[j]![j]!;
    }
  return lower;
}

function solveLower(lower: readonly number[][], b: readonly number[]): number[] {
  const x: number[] = [];
  for (let i = 0; i < b.length; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= lower[i]![k]! * x[k]!;
    x.push(sum / lower[i]![i]!);
  }
  return x;
}

/** Three quarters of a turn: large enough to tell a thread from another, small enough for any spring. */
const LEARNING_TURN = 0.75;
/** As much of a motor, mm. */
const LEARNING_MOVE = 0.4;

/**
 * Turns that teach most, for a round of their own: the two adjusters that are least known, by three quarters of a turn each, whose moves of
 * slope are not along one line. Two slopes are seen in a round, so that two shares come out of it. The first turn of each
 * lowers by what its thread says: a bed that is lower is farther from what homes above it.
 * @param done turns of the rounds before: what was turned one way is turned back
 * @returns turns, + clockwise looking down, in the order of the adjusters
 */
export function learningTurns({
  adjusters,
  learned,
  done,
}: {
  adjusters: readonly Adjuster[];
  learned: readonly AdjusterLearned[];
  done: readonly (readonly number[])[];
}): number[] {
  const moveOf = stiffBed(adjusters);
  const unit = adjusters.map((_, i) => moveOf(adjusters.map((__, j) => (i === j ? 1 : 0))));
  const net = adjusters.map((_, i) => done.reduce((sum, turns) => sum + turns[i]!, 0));
  // Least known first: seldom turned alone, then by its spread.
  const unsure = (i: number) => (learned[i]!.way === 'as-said' ? 0 : 1) + learned[i]!.uncertainty;
  let best = { i: 0, j: 1, worth: -1 };
  for (let i = 0; i < adjusters.length; i++)
    for (let j = i + 1; j < adjusters.length; j++) {
      const [p, q] = [unit[i]!, unit[j]!];
      const across = Math.abs(p.a * q.b - p.b * q.a) / (Math.hypot(p.a, p.b) * Math.hypot(q.a, q.b));
      const seldom = done.filter((turns) => turns[i] !== 0).length + done.filter((turns) => turns[j] !== 0).length;
      const worth = across < 0.3 ? -1 : (unsure(i) + unsure(j)) / (1 + seldom);
      if (worth > best.worth) best = { i, j, worth };
    }
  return adjusters.map(({ clockwise, motor }, i) => {
    if (i !== best.i && i !== best.j) return 0;
    const size = motor ? LEARNING_MOVE : LEARNING_TURN;
    const lowers = clockwise === 'lowers' ? size : -size;
    return net[i]! * lowers > 0 ? -lowers : lowers;
  });
}
