import { needNumbers } from '../needNumbers';

/** Parts of a platform whose scratches are looked at after a round. */
export const LAP_PLACES = ['front-left', 'front-right', 'rear-left', 'rear-right', 'middle'] as const;
export type LapPlace = (typeof LAP_PLACES)[number];

/** A round: strokes made, and after a few light ones without rocking how much of each part is scratched, %. */
export interface LapRound {
  strokes: number;
  touched: Record<LapPlace, number>;
}

/**
 * go-on: more rounds · nearly: one round more settles it · done: nothing is untouched: tooth, then burrs · doming: the edges
 * fade while the middle is touched: the hands rock · stalled: no more is touched than two rounds ago: the sheet is clogged or
 * worn · first: one round says nothing yet
 */
export type LapVerdict = 'first' | 'go-on' | 'nearly' | 'done' | 'doming' | 'stalled';

export interface LapProgress {
  verdict: LapVerdict;
  /** Share of the platform that is touched, % of its area. */
  touched: number;
  /** Where it is touched least. */
  least: LapPlace;
  /** Rounds of `ROUND_STROKES` left, and between which numbers in nine of ten; null: two rounds at least tell. */
  left: { rounds: number; low: number; high: number } | null;
  rounds: number;
}

/** Five straight strokes each way, then a quarter turn, four times. Common practice. */
export const ROUND_STROKES = 20;
/** The middle counts for a fifth of the area. */
const MIDDLE_SHARE = 0.2;
/** Nothing is untouched, as an eye tells it, %. */
const ALL = 98;
/** Share of area told by an eye from five parts, one standard deviation, with what the model is out by. Our own. */
const EYE = 0.06;
/** Edges that lost so much in one round, or in two, with the middle no worse: they rock, %. Our own, by simulation. */
const FADES = 9;
const FADES_IN_TWO = 7;
const STALLED = 3;
const NINE_IN_TEN = [0.05, 0.5, 0.95] as const;

/**
 * How far a platform is lapped, and how many rounds are left, from what this person's rounds touched.
 *
 * With the same force a stroke takes off the same volume, whatever is touched (Preston). With the depth what is touched grows
 * as 1 − (1 − depth)^q: q below 1 where the last spot is as wide as the first, above where corners and pits are left to the
 * end. Tail, beginning and pace are not known beforehand: each of a grid of them is weighed by how well it tells the rounds so
 * far, and the rounds left are read off all together.
 * @param rounds in order
 * @throws RangeError no rounds, shares beyond 0 to 100, strokes that are not above 0
 * Source: F. W. Preston, J. Soc. Glass Tech. 11 (1927): removal goes with pressure and way (from memory); the marks and
 * quarter turns are common practice.
 */
export function lapProgress(rounds: readonly LapRound[]): LapProgress {
  needNumbers('lapProgress', rounds);
  if (rounds.length === 0) throw new RangeError('lapProgress needs at least 1 round, got 0');
  for (const { strokes, touched } of rounds) {
    if (!(strokes > 0)) throw new RangeError(`lapProgress needs strokes above 0, got ${strokes}`);
    for (const place of LAP_PLACES)
      if (!(touched[place] >= 0 && touched[place] <= 100))
        throw new RangeError(`lapProgress needs 0 to 100 % touched, got ${touched[place]} at ${place}`);
  }
  const areas = rounds.map(areaOf);
  const last = rounds.at(-1)!;
  const least = LAP_PLACES.reduce((low, place) => (last.touched[place] < last.touched[low] ? place : low));
  const told = { touched: areas.at(-1)! * 100, least, rounds: rounds.length };
  if (LAP_PLACES.every((place) => last.touched[place] >= ALL))
    return { ...told, verdict: 'done', left: { rounds: 0, low: 0, high: 0 } };
  if (domes(rounds)) return { ...told, verdict: 'doming', left: null };
  if (rounds.length < 2) return { ...told, verdict: 'first', left: null };
  const before = areas.at(-3);
  if (before !== undefined && told.touched < 95 && told.touched - before * 100 < STALLED)
    return { ...told, verdict: 'stalled', left: null };
  const left = roundsLeft(rounds, areas);
  return { ...told, left, verdict: left.high <= 1 ? 'nearly' : 'go-on' };
}

const edgesOf = ({ touched }: LapRound) =>
  LAP_PLACES.reduce((sum, place) => sum + (place === 'middle' ? 0 : touched[place]), 0) / (LAP_PLACES.length - 1);
const areaOf = (round: LapRound) => ((1 - MIDDLE_SHARE) * edgesOf(round) + MIDDLE_SHARE * round.touched.middle) / 100;

/** On a flat reference what is touched only grows: edges that fade are cut away by rocking. */
function domes(rounds: readonly LapRound[]): boolean {
  const last = rounds.at(-1)!;
  const fell = (earlier: LapRound | undefined) => (earlier ? edgesOf(earlier) - edgesOf(last) : 0);
  const middleStays = last.touched.middle >= edgesOf(last) - 5;
  return middleStays && (fell(rounds.at(-2)) >= FADES || fell(rounds.at(-3)) >= FADES_IN_TWO);
}

/** How fast the last untouched spots give way: a ridge all at once, corners and pits slowly. */
const TAILS = [0.5, 0.75, 1, 1.5, 2, 3, 4, 6, 8];
/** Long tails are the rule on square platforms: corners come last. Our own, by simulation. */
const TAIL_WEIGHT = (q: number) => q ** 1.5;
/** Depth that was flat already when it began, as a share. */
const BEGINNINGS = [0, 0.08, 0.16, 0.25, 0.35, 0.5];
/** Rounds in all, from one to two hundred, even in their logarithms. */
const TOTALS = Array.from({ length: 70 }, (_, i) => 200 ** (i / 69));
const STEPS = 200;

/** Rounds against touched area, both as shares, for each tail: by equal steps of depth. */
const WAYS = TAILS.map((q) =>
  Array.from({ length: STEPS + 1 }, (_, i) => {
    const depth = i / STEPS;
    const rest = (1 - depth) ** q;
    // The volume down to a depth is what is touched, added up over the depth.
    return { area: 1 - rest, volume: ((depth - (1 - rest * (1 - depth)) / (q + 1)) * (q + 1)) / q };
  }),
);

function roundsLeft(
  rounds: readonly LapRound[],
  areas: readonly number[],
): { rounds: number; low: number; high: number } {
  const at: number[] = [];
  let made = 0;
  for (const { strokes } of rounds) at.push((made += strokes / ROUND_STROKES));
  const weighed: { left: number; weight: number }[] = [];
  for (const [k, way] of WAYS.entries()) {
    const weight = TAIL_WEIGHT(TAILS[k]!);
    const end = way.find(({ area }) => area >= ALL / 100)!.volume;
    for (const begin of BEGINNINGS) {
      const from = way[Math.round(begin * STEPS)]!.volume;
      for (const total of TOTALS) {
        let misfit = 0;
        let step = 0;
        for (const [i, k] of at.entries()) {
          const volume = from + k / total;
          while (step < STEPS && way[step]!.volume < volume) step++;
          misfit += ((areas[i]! - way[step]!.area) / EYE) ** 2;
        }
        weighed.push({ left: Math.max(0, (end - from) * total - made), weight: weight * Math.exp(-misfit / 2) });
      }
    }
  }
  weighed.sort((a, b) => a.left - b.left);
  const all = weighed.reduce((sum, { weight }) => sum + weight, 0);
  // Nothing fits at all: what is touched jumps about. Then all that is known is that it is not done.
  if (!(all > 1e-12)) return { rounds: 10, low: 1, high: 100 };
  const quantile = (share: number) => {
    let sum = 0;
    for (const { left, weight } of weighed) if ((sum += weight) >= share * all) return left;
    return weighed.at(-1)!.left;
  };
  const [low, middle, high] = NINE_IN_TEN.map(quantile) as [number, number, number];
  // Whole rounds; what is not done takes one more at least.
  return {
    rounds: Math.max(1, Math.round(middle)),
    low: Math.max(1, Math.floor(low)),
    high: Math.max(1, Math.ceil(high)),
  };
}
