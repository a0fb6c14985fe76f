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
 * fade while the middle is touched: the hands rock · stalled: the last rounds took nothing off, or all of them: the sheet is clogged
 * or worn · first: one round says nothing yet
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
/** All of it, as a share of area: the last spots lie in one corner, which counts for a fifth. */
const END = 1 - (1 - ALL / 100) * MIDDLE_SHARE;
/** Share of area told by an eye from five parts, one standard deviation; with what the model is out by. Our own. */
const EYE = 0.04;
const EYE_AND_MODEL = 0.06;
/** Edges that lost so much in one round, or in two, with the middle no worse: they rock, %. Our own, by simulation. */
const FADES = 9;
const FADES_IN_TWO = 7;
/** So many rounds without anything taken off are looked for, and so much better they must tell what was seen. Our own, by simulation. */
const STILL_ROUNDS = [2, 3, 4];
const STALL_ODDS = 20;
/** Less than an eye tells, as a share of area, since the first round. */
const NOTHING_YET = 0.03;
/** Nine in ten are said; platforms have more shapes than the ways here, so a little more is taken. Our own, by simulation. */
const NINE_IN_TEN = [0.025, 0.5, 0.975] as const;

/**
 * How far a platform is lapped, and how many rounds are left, from what this person's rounds touched.
 *
 * With the same force a stroke takes off the same volume, whatever is touched (Preston). With the depth what is touched grows
 * as 1 − (1 − depth^p)^q: p says how the first spots widen, q how the last ones give way. Both, the beginning and the pace are
 * not known beforehand: each of a grid of them is weighed by how well it tells the rounds so far, and the rounds left are read
 * off all together.
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
  if (stalls(rounds, areas)) return { ...told, verdict: 'stalled', left: null };
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

/** How the first spots widen with depth: a bow's along its whole length at once, a dome's evenly, a narrow rim's late. */
const TOPS = [0.5, 0.75, 1, 1.5];
/** How the last untouched ones give way: a ridge's plain all at once, corners and pits slowly. */
const TAILS = [0.15, 0.3, 0.5, 0.75, 1, 1.5, 2, 3, 5, 8, 13, 20, 32];
/** Depth that was flat already when it began, as a share. */
const BEGINNINGS = [0, 0.1, 0.25, 0.45];
/** Rounds in all, from one to two hundred, even in their logarithms. */
const TOTALS = Array.from({ length: 56 }, (_, i) => 200 ** (i / 55));
/** Long tails are the rule: corners come last. Our own, by simulation. */
const LONG_TAILS = 0.35;
const STEPS = 300;
const { exp, min, round: nearest } = Math;

interface Way {
  /** Touched area by even steps of volume, from none to all of it, as shares. */
  area: Float64Array;
  /** Volume to begin with, and at which nothing is untouched. */
  from: number;
  end: number;
  likely: number;
}

/** Every way in which touched area can grow with what is taken off; worked out where somebody laps. */
let ways: Way[] | null = null;
const allWays = (): Way[] => (ways ??= TOPS.flatMap((top) => TAILS.flatMap((tail) => waysOf(top, tail))));

/** Steps of depth of one way. */
const FINE = 3000;

function waysOf(top: number, tail: number): Way[] {
  const areaAt = (i: number) => 1 - (1 - (i / FINE) ** top) ** tail;
  // The volume down to a depth is what is touched, added up over the depth: by the trapezium rule.
  const volumes = new Float64Array(FINE + 1);
  for (let i = 1; i <= FINE; i++) volumes[i] = volumes[i - 1]! + (areaAt(i - 1) + areaAt(i)) / 2;
  const all = volumes[FINE]!;
  const area = new Float64Array(STEPS + 1);
  let at = 0;
  for (let i = 0; i <= STEPS; i++) {
    while (at < FINE && volumes[at]! < (all * i) / STEPS) at++;
    area[i] = areaAt(at);
  }
  let done = 0;
  while (areaAt(done) < END) done++;
  return BEGINNINGS.map((begin) => ({
    area,
    from: volumes[nearest(begin * FINE)]! / all,
    end: volumes[done]! / all,
    likely: tail ** LONG_TAILS,
  }));
}

/** How well each way and pace tells what was seen: all of it as misfits, with the rounds that would be left. */
function weigh(made: readonly number[], areas: readonly number[], eye: number): { left: number; weight: number }[] {
  const last = made.at(-1)!;
  return allWays().flatMap(({ area, from, end, likely }) =>
    TOTALS.map((total) => {
      let misfit = 0;
      for (let i = 0; i < made.length; i++) {
        const off = areas[i]! - area[nearest(STEPS * min(1, from + made[i]! / total))]!;
        misfit += off * off;
      }
      const left = (end - from) * total - last;
      return { left: left > 0 ? left : 0, weight: likely * exp(-misfit / (2 * eye * eye)) };
    }),
  );
}

const sumOf = (weighed: readonly { weight: number }[]) => weighed.reduce((sum, { weight }) => sum + weight, 0);

/** Rounds in units of `ROUND_STROKES` up to each; those from `still` on took nothing off. */
function paces(rounds: readonly LapRound[], still = Infinity): number[] {
  let made = 0;
  return rounds.map(({ strokes }, i) => (made += i < still ? strokes / ROUND_STROKES : 0));
}

/** That nothing was taken off for some rounds tells them so much better than any steady pace does; or nothing ever was. */
function stalls(rounds: readonly LapRound[], areas: readonly number[]): boolean {
  if (rounds.length < 2 + STILL_ROUNDS[0]!) return false;
  if (areas.at(-1)! - areas[0]! < NOTHING_YET) return true;
  const steady = sumOf(weigh(paces(rounds), areas, EYE));
  return STILL_ROUNDS.some(
    (still) =>
      rounds.length >= 2 + still &&
      sumOf(weigh(paces(rounds, rounds.length - still), areas, EYE)) > STALL_ODDS * steady,
  );
}

function roundsLeft(
  rounds: readonly LapRound[],
  areas: readonly number[],
): { rounds: number; low: number; high: number } {
  const weighed = weigh(paces(rounds), areas, EYE_AND_MODEL).sort((a, b) => a.left - b.left);
  const all = sumOf(weighed);
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
