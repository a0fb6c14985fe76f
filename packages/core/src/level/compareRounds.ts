import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { extentOf, spreadOf, type HeightPoint } from './HeightPoint';
import type { Adjuster } from './planTurns';
import { stepNoise } from './readingStep';
import { stiffBed } from './stiffBed';

/**
 * as-said: the tilt went where the turns should have taken it · reversed: each turn did the opposite · one-reversed: one
 * did · half: half of each was made · left-out: one was not made · swapped: two were made on each other's knobs ·
 * unmoved: none was made · off: none of these · unsure: more than one of these would explain it, within the probe's noise ·
 * small: the turns were too small to judge by.
 */
export type RoundAnswer =
  'as-said' | 'reversed' | 'one-reversed' | 'half' | 'left-out' | 'swapped' | 'unmoved' | 'off' | 'unsure' | 'small';

export interface RoundComparison {
  answer: RoundAnswer;
  /** Ids of the adjusters that the answer is about. */
  about: string[];
  /** Share of the expected change that was found: 1 as said, 0 nothing, −1 the opposite; null when too small to judge. */
  followed: number | null;
  /** Range before and now, mm. */
  before: number;
  now: number;
  /** True when the range grew by more than the readings' own uncertainty. */
  worse: boolean;
  /** Standard deviation of one reading that it was judged with, mm. */
  noise: number;
}

/** Deviation of a reading of common probes, mm, for as much as few readings can't tell. Common practice. */
const USUAL_NOISE = 0.015;
/** Weight of the usual deviation, in degrees of freedom. */
const USUAL_WEIGHT = 4;
/** No probe repeats better than this, mm. Common practice. */
const LEAST_NOISE = 0.002;
/** A hypothesis is given up when what was found is as far from it in one of a hundred readings. */
const RARE = 0.01;
/** What a hand's turn is off by: a share of it, and so much of a turn, one standard deviation each. Common practice. */
const HAND_SHARE = 0.06;
const HAND = 0.02;
/** The best must be this much nearer than the next, or both are possible: a likelihood ratio of about 150. */
const CLEARLY = 10;
/** Turns are made right so much oftener than in any one wrong way: 2 ln of about ten. Common practice, and our own guess of it. */
const USUALLY_RIGHT = 4.6;
/** Hypotheses nearer to each other than this foretell the same. */
const SAME = 1;
/** An expected change that is nearer to none than this can't be judged. */
const JUDGED_FROM = 9;

interface Hypothesis {
  answer: RoundAnswer;
  about: string[];
  /** Change of slope that it foretells. */
  a: number;
  b: number;
}

/**
 * Holds a new reading against what the turns made should have done to the one before, adjuster by adjuster.
 *
 * Only the tilt is compared: adjusters can't change the shape, and the height of the whole bed is often lost by homing.
 * Each thing that may have happened foretells a change of slope; their distances from the change found are weighed by its
 * uncertainty (Mahalanobis distance). The noise comes from what the readings differ by beside a plane, shrunk toward that
 * of common probes. What can't be told apart is "unsure".
 *
 * @param before readings of the round before, mm, + higher
 * @param rises what each turn made should have moved its adjuster by, mm, + up, in the order of the adjusters
 * @param now readings of this round
 * @param noise standard deviation of one reading, mm, where repeats have shown it
 * @throws DegenerateInput readings from which no plane follows
 * Source of the pooled variance: NIST/SEMATECH e-Handbook of Statistical Methods, §7.3.1.
 * @example compareRounds({ before, adjusters, rises, now }).answer // 'reversed'
 */
export function compareRounds({
  before,
  adjusters,
  rises,
  now,
  noise,
}: {
  before: readonly HeightPoint[];
  adjusters: readonly Adjuster[];
  rises: readonly number[];
  now: readonly HeightPoint[];
  noise?: number | undefined;
}): RoundComparison {
  if (noise !== undefined && !(noise >= 0 && noise <= 1e9))
    throw new DegenerateInput(`compareRounds needs a noise of 0 or more, got ${noise}`);
  const moveOf = stiffBed(adjusters);
  const change = slopeChange(before, now, noise);
  const rangeBefore = spreadOf(before.map(({ z }) => z)).range;
  const rangeNow = spreadOf(now.map(({ z }) => z)).range;
  const worse = rangeNow > rangeBefore + 4 * change.noise;
  const known = { before: rangeBefore, now: rangeNow, worse, noise: change.noise };

  const foretold = (changed: readonly number[]) => moveOf(changed);
  const expected = foretold(rises);
  if (!(change.distance(expected, { a: 0, b: 0 }) >= JUDGED_FROM))
    return { ...known, answer: 'small', about: [], followed: null };

  const found = { a: change.a, b: change.b };
  const { x0, y0, x1, y1 } = extentOf(before);
  const scaled = ({ a, b }: { a: number; b: number }) => [a * (x1 - x0), b * (y1 - y0)] as const;
  const [e, f] = [scaled(expected), scaled(found)];
  const followed = (f[0] * e[0] + f[1] * e[1]) / (e[0] * e[0] + e[1] * e[1]);
  const unit = adjusters.map((_, i) => moveOf(adjusters.map((__, j) => (i === j ? 1 : 0))));
  const ranked = hypothesesOf(adjusters, rises)
    .map((one) => ({ ...one, ...foretold(one.rises) }))
    .map((one) => {
      const hands = handOf(adjusters, unit, one.rises);
      const distance = change.distance(one, found, hands);
      const score = unlikeliness(distance, change.freedom) + change.size(hands);
      return { ...one, distance, score: score - (one.answer === 'as-said' ? USUALLY_RIGHT : 0) };
    })
    .sort((p, q) => p.score - q.score);
  return { ...known, followed, ...judged(ranked, change) };
}

interface Covariance {
  aa: number;
  ab: number;
  bb: number;
}
/** Deviations of a variance from which on it is not what was told; the tail of few readings is long. Our own choice. */
const SURPRISE = 3.5;
const NO_HAND: Covariance = { aa: 0, ab: 0, bb: 0 };

/** What hands that make these turns scatter the slopes by. */
function handOf(
  adjusters: readonly Adjuster[],
  unit: readonly { a: number; b: number }[],
  rises: readonly number[],
): Covariance {
  const cov = { ...NO_HAND };
  for (const [i, rise] of rises.entries()) {
    if (rise === 0) continue;
    // A motor is exact.
    const variance = adjusters[i]!.motor ? 0 : (HAND_SHARE * rise) ** 2 + (HAND * adjusters[i]!.pitch) ** 2;
    const { a, b } = unit[i]!;
    cov.aa += variance * a * a;
    cov.ab += variance * a * b;
    cov.bb += variance * b * b;
  }
  return cov;
}

/** What may have happened to the turns, with the rises that each would have made. As said comes first. */
function hypothesesOf(adjusters: readonly Adjuster[], rises: readonly number[]) {
  const made = rises.flatMap((rise, i) => (rise === 0 ? [] : [i]));
  const ids = (at: readonly number[]) => at.map((i) => adjusters[i]!.id);
  const changed = (change: (rise: number, i: number) => number) => rises.map(change);
  return [
    { answer: 'as-said', about: [], rises: [...rises] },
    { answer: 'reversed', about: ids(made), rises: changed((rise) => -rise) },
    { answer: 'unmoved', about: ids(made), rises: changed(() => 0) },
    { answer: 'half', about: ids(made), rises: changed((rise) => rise / 2) },
    ...made.map((k) => ({
      answer: 'one-reversed',
      about: ids([k]),
      rises: changed((rise, i) => (i === k ? -rise : rise)),
    })),
    ...made.map((k) => ({ answer: 'left-out', about: ids([k]), rises: changed((rise, i) => (i === k ? 0 : rise)) })),
    ...rises.flatMap((_, i) =>
      rises.flatMap((__, j) =>
        j > i && rises[i] !== rises[j]
          ? [
              {
                answer: 'swapped',
                about: ids([i, j]),
                rises: changed((rise, k) => (k === i ? rises[j]! : k === j ? rises[i]! : rise)),
              },
            ]
          : [],
      ),
    ),
  ] as { answer: RoundAnswer; about: string[]; rises: number[] }[];
}

interface SlopeChange {
  a: number;
  b: number;
  /** Deviation of one reading, mm. */
  noise: number;
  /** Degrees of freedom behind the noise; infinite where it was told. */
  freedom: number;
  /** Squared, 1 at one standard deviation of the change and of the hands. */
  distance: (p: Pick<Hypothesis, 'a' | 'b'>, q: Pick<Hypothesis, 'a' | 'b'>, hands?: Covariance) => number;
  /** ln of how much wider hands make it: what a likelihood pays for foretelling less exactly. */
  size: (hands: Covariance) => number;
}

/** `score`: −2 log of how likely it is, up to what all have in common. */
type Ranked = Hypothesis & { distance: number; score: number };

/** Names the one that explains the readings, when no other one does nearly as well. */
function judged(
  ranked: readonly Ranked[],
  { distance, freedom }: Pick<SlopeChange, 'distance' | 'freedom'>,
): Pick<RoundComparison, 'answer' | 'about'> {
  const best = ranked[0]!;
  if (best.distance > farthest(freedom)) return { answer: 'off', about: [] };
  const possible = ranked.filter((one) => one.score - best.score < CLEARLY);
  // Those that foretell the same are one; as said stands for them where it is among them.
  const rivals = possible.filter((one) => distance(one, best) > SAME);
  if (rivals.length > 0) return { answer: 'unsure', about: [] };
  const same =
    possible.find(({ answer }) => answer === 'as-said') ?? possible.find(({ answer }) => PLAIN.includes(answer));
  const { answer, about } = same ?? best;
  if (same) return { answer, about: answer === 'as-said' ? [] : about };
  // The same change by different knobs: what happened is known, not to which.
  const others = possible.filter((one) => one.answer !== answer || one.about.join() !== about.join());
  return others.length > 0 ? { answer: 'unsure', about: [] } : { answer, about };
}

/** The squared distance past which a hypothesis is given up: Hotelling's T² in two dimensions, 2·F(2, ν) in closed form. */
const farthest = (freedom: number) =>
  Number.isFinite(freedom) ? freedom * (RARE ** (-2 / freedom) - 1) : -2 * Math.log(RARE);

/** −2 log likelihood of a distance, of the t distribution where the noise was estimated. */
const unlikeliness = (distance: number, freedom: number) =>
  Number.isFinite(freedom) ? (freedom + 2) * Math.log1p(distance / freedom) : distance;

/** What is said first where several foretell the same: with one turn made, that it is reversed or was not made. */
const PLAIN: readonly RoundAnswer[] = ['reversed', 'unmoved', 'half'];

/**
 * The change of slope from one reading to the next, with a distance that is 1 at one standard deviation (squared).
 * At places that both name the heights are compared themselves, so that the plate's shape falls out.
 */
function slopeChange(
  before: readonly HeightPoint[],
  now: readonly HeightPoint[],
  told: number | undefined,
): SlopeChange {
  const common = differences(before, now);
  // A difference of two readings scatters by √2 of one.
  const fits = common ? [fitPlane(common)] : [fitPlane(before), fitPlane(now)];
  const sets = common ? [common] : [before, now];
  const [first, second] = fits;
  const a = second ? second.a - first!.a : first!.a;
  const b = second ? second.b - first!.b : first!.b;
  const per = common ? Math.SQRT2 : 1;
  const seen = { residuals: common ? first!.residuals : null, n: common?.length ?? 0 };
  // What is known of the probe holds, unless these readings scatter by more than it says.
  const held = told !== undefined && !surprises(seen, Math.max(told, LEAST_NOISE));
  const noise = Math.max(held ? Math.max(told, LEAST_NOISE) : noiseOf(seen), stepNoise(now.map(({ z }) => z)));
  // Covariance of the slopes: σ² (XᵀX)⁻¹, added up where two planes were fitted.
  const cov = { aa: 0, ab: 0, bb: 0 };
  for (const set of sets) {
    const { sxx, sxy, syy, det } = momentsOf(set);
    const s2 = (noise * per) ** 2;
    cov.aa += (s2 * syy) / det;
    cov.ab -= (s2 * sxy) / det;
    cov.bb += (s2 * sxx) / det;
  }
  const wider = (hands: Covariance) => ({
    aa: cov.aa + hands.aa,
    ab: cov.ab + hands.ab,
    bb: cov.bb + hands.bb,
  });
  const detOf = ({ aa, ab, bb }: Covariance) => aa * bb - ab * ab;
  const distance = (p: { a: number; b: number }, q: { a: number; b: number }, hands = NO_HAND) => {
    const [da, db] = [p.a - q.a, p.b - q.b];
    const all = wider(hands);
    return (all.bb * da * da - 2 * all.ab * da * db + all.aa * db * db) / detOf(all);
  };
  const size = (hands: Covariance) => Math.log(detOf(wider(hands)) / detOf(cov));
  const freedom = held ? Infinity : USUAL_WEIGHT + Math.max(0, seen.n - 3);
  return { a, b, noise, distance, size, freedom };
}

/** What differences leave beside a plane; null where no places are named twice. */
interface Left {
  residuals: Float64Array | null;
  n: number;
}
const squaresOf = ({ residuals }: Left) => (residuals ? residuals.reduce((sum, r) => sum + r * r, 0) / 2 : 0);

/** They scatter so much more than a noise allows as chance does once in about two hundred rounds. */
function surprises(left: Left, noise: number): boolean {
  const freedom = left.n - 3;
  return freedom > 0 && squaresOf(left) / freedom > noise ** 2 * (1 + SURPRISE * Math.sqrt(2 / freedom));
}

/** Deviation of one reading from what differences scatter by beside a plane, shrunk toward that of common probes, mm. */
function noiseOf(left: Left): number {
  const freedom = Math.max(0, left.n - 3);
  const squares = squaresOf(left);
  return Math.max(LEAST_NOISE, Math.sqrt((squares + USUAL_WEIGHT * USUAL_NOISE ** 2) / (freedom + USUAL_WEIGHT)));
}

/** now − before at the places that both name, each by its mean; null when they share fewer than four, or one line. */
function differences(before: readonly HeightPoint[], now: readonly HeightPoint[]): HeightPoint[] | null {
  const was = meansByPlace(before);
  const both: HeightPoint[] = [];
  for (const [key, { x, y, z }] of meansByPlace(now)) {
    const old = was.get(key);
    if (old) both.push({ x, y, z: z - old.z });
  }
  if (both.length < 4) return null;
  const { sxx, syy, det } = momentsOf(both);
  return det > 1e-6 * sxx * syy ? both : null;
}

function meansByPlace(points: readonly HeightPoint[]): Map<string, HeightPoint> {
  const places = new Map<string, { x: number; y: number; sum: number; n: number }>();
  for (const { x, y, z } of points) {
    const key = `${Math.round(x * 10)} ${Math.round(y * 10)}`;
    const place = places.get(key) ?? { x, y, sum: 0, n: 0 };
    places.set(key, { ...place, sum: place.sum + z, n: place.n + 1 });
  }
  return new Map([...places].map(([key, { x, y, sum, n }]) => [key, { x, y, z: sum / n }]));
}

function momentsOf(points: readonly HeightPoint[]) {
  const n = points.length;
  const mx = points.reduce((sum, { x }) => sum + x, 0) / n;
  const my = points.reduce((sum, { y }) => sum + y, 0) / n;
  let [sxx, sxy, syy] = [0, 0, 0];
  for (const { x, y } of points) {
    sxx += (x - mx) ** 2;
    sxy += (x - mx) * (y - my);
    syy += (y - my) ** 2;
  }
  return { sxx, sxy, syy, det: sxx * syy - sxy * sxy };
}
