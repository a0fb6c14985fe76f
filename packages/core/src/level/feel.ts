import { needNumbers } from '../needNumbers';
import { roundMove } from './roundTurn';
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

/** What is felt with. mm. */
export interface FeelGauge {
  thickness: number;
  /** One standard deviation of what is known of it. */
  uncertainty: number;
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
export const USUAL_BED: FeelPrior = { height: 0.45, bow: 0.03, gain: 0.08, hand: 0.02, noise: 0.008, slip: 0.02 };

/** A place that can be felt: at an adjuster, or the middle. */
export interface FeelPlace extends Position {
  id: string;
}

/** All that is known of a bed while it is felt: a Gaussian over its plane, its bow and what each adjuster's turn does. */
export interface FeelState {
  adjusters: readonly FeelAdjuster[];
  places: readonly FeelPlace[];
  gauge: FeelGauge;
  prior: FeelPrior;
  /** Gap less thickness at the middle, its slopes, its bow, then the gain of each adjuster. */
  mean: readonly number[];
  /** Covariance of `mean`, row by row. */
  covariance: readonly number[];
  /** What was done, in order. */
  history: readonly FeelEvent[];
  /** The last feel could hardly be, by what was known: it should be felt again. */
  contradiction: { at: string; feel: Feel; expected: Feel } | null;
}

export type FeelEvent = { do: 'feel'; at: string; feel: Feel } | { do: 'turn'; adjuster: string; turns: number };

/** What to do next. Turns are + clockwise looking down. */
export type FeelMove =
  | { do: 'feel'; at: string; again: boolean }
  /** `mayTouch`: the bed may come up against the nozzle by it: the nozzle is lifted first and comes down slowly. */
  | { do: 'turn'; adjuster: string; turns: number; raises: boolean; mayTouch: boolean }
  /** `sure`: how likely every place is within what was asked for. */
  | { do: 'done'; sure: number };

/** How near every adjuster's gap has to come to the gauge, mm: half of a fine first layer's give. Common practice. */
const WITHIN = 0.03;
/** Done when it is so likely that every place is within. */
const SURE = 0.95;
/** A turn waits until it corrects so much of what is not known, in standard deviations, and at least so much, mm. */
const WORTH = 1;
const LEAST = 0.012;
/** A turn is made with the nozzle lifted where the bed is more likely than this to come up against it. */
const TOUCHES = 0.01;
/** A feel less likely than this, by what was known, is felt again. */
const ODD = 0.002;

/** The place in the middle of the adjusters. */
export const MIDDLE = 'middle';

const PLANE = 4;

/**
 * A bed about which nothing is known yet but where its adjusters stand.
 * @param adjusters n ≥ 3, mm
 * @throws DegenerateAdjusters fewer than three, in one line, two on one spot
 * @throws RangeError a pitch or thickness that is not above 0
 */
export function startFeel({
  adjusters,
  gauge,
  prior = USUAL_BED,
}: {
  adjusters: readonly FeelAdjuster[];
  gauge: FeelGauge;
  prior?: FeelPrior;
}): FeelState {
  needNumbers('startFeel', { gauge, prior });
  stiffBed(adjusters);
  for (const { id, pitch } of adjusters)
    if (!(pitch > 0 && pitch < Infinity))
      throw new RangeError(`startFeel needs a pitch above 0 mm, ${id} has ${pitch}`);
  if (!(gauge.thickness > 0)) throw new RangeError(`startFeel needs a thickness above 0 mm, got ${gauge.thickness}`);
  if (!(gauge.uncertainty >= 0))
    throw new RangeError(`startFeel needs an uncertainty of 0 or more, got ${gauge.uncertainty}`);
  const middle = {
    id: MIDDLE,
    x: adjusters.reduce((sum, { x }) => sum + x, 0) / adjusters.length,
    y: adjusters.reduce((sum, { y }) => sum + y, 0) / adjusters.length,
  };
  const size = PLANE + adjusters.length;
  const covariance = new Array<number>(size * size).fill(0);
  const scale = basisScale(adjusters);
  // Slopes so that the height at an adjuster varies as the prior says: a third of it by each of height, two slopes.
  const mean = [...new Array<number>(PLANE).fill(0), ...new Array<number>(adjusters.length).fill(1)];
  const corner = adjusters.reduce((sum, { x, y }) => {
    const [, u, v] = planeBasis({ x, y }, scale);
    return sum + u! * u! + v! * v!;
  }, 0);
  const variance = prior.height ** 2 / (1 + corner / adjusters.length);
  for (let i = 0; i < 3; i++) covariance[i * size + i] = variance;
  covariance[3 * size + 3] = prior.bow ** 2;
  for (let i = PLANE; i < size; i++) covariance[i * size + i] = prior.gain ** 2;
  return {
    adjusters,
    places: [...adjusters.map(({ id, x, y }) => ({ id, x, y })), middle],
    gauge,
    prior,
    mean,
    covariance,
    history: [],
    contradiction: null,
  };
}

interface Scale {
  x: number;
  y: number;
  size: number;
}
function basisScale(adjusters: readonly Position[]): Scale {
  const x = adjusters.reduce((sum, p) => sum + p.x, 0) / adjusters.length;
  const y = adjusters.reduce((sum, p) => sum + p.y, 0) / adjusters.length;
  return { x, y, size: Math.max(...adjusters.map((p) => Math.hypot(p.x - x, p.y - y))) };
}
/** Height, slopes and bow at a place: the bow is 1 in the middle and 0 at the farthest adjuster. */
function planeBasis({ x, y }: Position, scale: Scale): number[] {
  const [u, v] = [(x - scale.x) / scale.size, (y - scale.y) / scale.size];
  return [1, u, v, 1 - u * u - v * v];
}

/** The row by which the state gives the gap less thickness at a place. */
function rowAt(state: FeelState, placeId: string): number[] {
  const place = state.places.find(({ id }) => id === placeId);
  if (!place) throw new RangeError(`There is no place “${placeId}” to feel`);
  return [...planeBasis(place, basisScale(state.adjusters)), ...new Array<number>(state.adjusters.length).fill(0)];
}

/** Gap less thickness at a place: its mean and standard deviation, mm; + too wide. */
export function gapAt(state: FeelState, placeId: string): { mean: number; sd: number } {
  const row = rowAt(state, placeId);
  return { mean: dot(row, state.mean), sd: Math.sqrt(Math.max(0, dot(row, times(state, row)))) };
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * b[i]!, 0);
function times({ covariance, mean }: FeelState, row: readonly number[]): number[] {
  const n = mean.length;
  return mean.map((_, i) => {
    let sum = 0;
    for (let j = 0; j < n; j++) sum += covariance[i * n + j]! * row[j]!;
    return sum;
  });
}

/**
 * What is known after a feel: the gap there lies between two edges, which themselves are not sharp, and now and then the
 * feel is off by one. The posterior is matched in mean and covariance, which along the felt direction is exact.
 * @throws RangeError a place or a feel that is not there
 */
export function afterFeel(state: FeelState, { at, feel }: { at: string; feel: Feel }): FeelState {
  const row = rowAt(state, at);
  const index = FEELS.indexOf(feel);
  if (index < 0) throw new RangeError(`afterFeel knows ${FEELS.join(', ')}, got ${String(feel)}`);
  const cross = times(state, row);
  const mean = dot(row, state.mean);
  const variance = dot(row, cross) + state.prior.noise ** 2 + state.gauge.uncertainty ** 2;
  const sd = Math.sqrt(variance);
  const parts = FEELS.map((_, i) => truncated(mean, sd, FEEL_EDGES[i - 1] ?? -Infinity, FEEL_EDGES[i] ?? Infinity));
  const { slip } = state.prior;
  const weights = parts.map(({ share }, i) =>
    i === index ? (1 - slip) * share : Math.abs(i - index) === 1 ? (slip / 2) * share : 0,
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const expected = FEELS[parts.reduce((best, { share }, i) => (share > parts[best]!.share ? i : best), 0)]!;
  const odd = parts[index]!.share < ODD && state.history.some(({ do: what }) => what === 'feel');
  // So far out that no weight is left: take the nearest edge as read.
  const [newMean, newVariance] =
    total > 1e-12
      ? matched(parts, weights, total)
      : [index < 2 ? FEEL_EDGES[index]! : FEEL_EDGES[index - 1]!, state.prior.noise ** 2];
  const n = state.mean.length;
  const gain = cross.map((value) => value / variance);
  return {
    ...state,
    mean: state.mean.map((value, i) => value + gain[i]! * (newMean - mean)),
    covariance: state.covariance.map((value, k) => {
      const [i, j] = [Math.floor(k / n), k % n];
      return value - gain[i]! * gain[j]! * (variance - newVariance);
    }),
    history: [...state.history, { do: 'feel', at, feel }],
    contradiction: odd ? { at, feel, expected } : null,
  };
}

/**
 * How likely each feel is at a place, by what is known: in the order of the feels, now and then off by one.
 * @throws RangeError a place that is not there
 */
export function feelShares(state: FeelState, at: string): number[] {
  const row = rowAt(state, at);
  const mean = dot(row, state.mean);
  const sd = Math.sqrt(dot(row, times(state, row)) + state.prior.noise ** 2 + state.gauge.uncertainty ** 2);
  const sharp = FEELS.map(
    (_, i) => truncated(mean, sd, FEEL_EDGES[i - 1] ?? -Infinity, FEEL_EDGES[i] ?? Infinity).share,
  );
  const { slip } = state.prior;
  return sharp.map((share, i) => (1 - slip) * share + (slip / 2) * ((sharp[i - 1] ?? 0) + (sharp[i + 1] ?? 0)));
}

interface Part {
  share: number;
  mean: number;
  variance: number;
}
function matched(parts: readonly Part[], weights: readonly number[], total: number): [number, number] {
  const mean = parts.reduce((sum, part, i) => sum + weights[i]! * part.mean, 0) / total;
  const square = parts.reduce((sum, part, i) => sum + weights[i]! * (part.variance + part.mean ** 2), 0) / total;
  return [mean, Math.max(1e-12, square - mean * mean)];
}

/** Share, mean and variance of a Gaussian between two edges. */
function truncated(mean: number, sd: number, low: number, high: number): Part {
  const [a, b] = [(low - mean) / sd, (high - mean) / sd];
  const share = Math.max(0, normalBelow(b) - normalBelow(a));
  if (share < 1e-12) return { share: 0, mean: 0, variance: 0 };
  const [pa, pb] = [density(a), density(b)];
  const shift = (pa - pb) / share;
  const spread = ((Number.isFinite(a) ? a * pa : 0) - (Number.isFinite(b) ? b * pb : 0)) / share;
  return { share, mean: mean + sd * shift, variance: Math.max(1e-12, sd * sd * (1 + spread - shift * shift)) };
}

const density = (x: number) => (Number.isFinite(x) ? Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI) : 0);

/** Share of a standard Gaussian below x. Abramowitz & Stegun, 7.1.26, error below 1.5e-7 (from memory). */
export function normalBelow(x: number): number {
  if (x === Infinity) return 1;
  if (x === -Infinity) return 0;
  const z = Math.abs(x) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * z);
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const erf = 1 - poly * Math.exp(-z * z);
  return x < 0 ? (1 - erf) / 2 : (1 + erf) / 2;
}

/** What a turn of an adjuster does to the gap's plane for each mm that its thread says, in the basis of the state. */
function effectOf({ adjusters }: FeelState, index: number): number[] {
  const rises = adjusters.map((_, i) => (i === index ? 1 : 0));
  const { a, b, c } = stiffBed(adjusters)(rises);
  const { x, y, size } = basisScale(adjusters);
  // A bed that rises closes the gap.
  return [-(c + a * x + b * y), -a * size, -b * size, 0];
}

/** How far a turn raises the bed at its adjuster by its thread, mm. */
const riseOf = ({ pitch, clockwise }: FeelAdjuster, turns: number) => turns * pitch * (clockwise === 'raises' ? 1 : -1);

/**
 * What is known after a turn: the plane has moved by the thread, times a gain that is not known exactly, times a hand that
 * isn't exact either. Three adjusters tip each other; with four the plate settles between them.
 * @param turns + clockwise looking down
 * @throws RangeError an adjuster that is not there, turns that are no number
 */
export function afterTurn(state: FeelState, { adjuster, turns }: { adjuster: string; turns: number }): FeelState {
  const index = state.adjusters.findIndex(({ id }) => id === adjuster);
  if (index < 0) throw new RangeError(`There is no adjuster “${adjuster}” to turn`);
  if (!(Math.abs(turns) <= 1000)) throw new RangeError(`afterTurn needs turns that are a number, got ${turns}`);
  const one = state.adjusters[index]!;
  const rise = riseOf(one, turns);
  const effect = effectOf(state, index);
  const n = state.mean.length;
  // The state moves linearly: plane += rise × gain × effect.
  const move = (vector: readonly number[]) =>
    vector.map((value, i) => (i < PLANE ? value + rise * effect[i]! * vector[PLANE + index]! : value));
  const rows = Array.from({ length: n }, (_, i) => move(state.covariance.slice(i * n, (i + 1) * n)));
  const columns = Array.from({ length: n }, (_, j) => move(rows.map((row) => row[j]!)));
  const hand = turns === 0 ? 0 : (state.prior.hand * one.pitch) ** 2;
  return {
    ...state,
    mean: move(state.mean),
    covariance: Array.from({ length: n * n }, (_, k) => {
      const [i, j] = [Math.floor(k / n), k % n];
      return columns[j]![i]! + (i < PLANE && j < PLANE ? hand * effect[i]! * effect[j]! : 0);
    }),
    history: [...state.history, { do: 'turn', adjuster, turns }],
    contradiction: null,
  };
}

/** How likely the gap at a place is farther from the gauge than asked for. */
export function outAt(state: FeelState, placeId: string, within = WITHIN): number {
  const { mean, sd } = gapAt(state, placeId);
  if (sd === 0) return Math.abs(mean) > within ? 1 : 0;
  return normalBelow((-within - mean) / sd) + 1 - normalBelow((within - mean) / sd);
}

/** How likely every adjuster's place is within, at the least: what is likely out is added up. */
export const sureOf = (state: FeelState, within = WITHIN) =>
  Math.max(0, 1 - state.adjusters.reduce((sum, { id }) => sum + outAt(state, id, within), 0));

/** How far each adjuster should raise the bed so that every gap is the gauge's, mm, as its thread says it. */
function risesWanted(state: FeelState): number[] {
  return state.adjusters.map(({ id }, i) => gapAt(state, id).mean / state.mean[PLANE + i]!);
}

/**
 * What to do next: a contradictory feel again first; a turn where it corrects more than what isn't known there; otherwise a
 * feel where a place is most likely out; and done when all are likely enough within. Turns are said in steps of a sixteenth.
 */
export function nextMove(state: FeelState, within = WITHIN): FeelMove {
  const { contradiction } = state;
  if (contradiction) return { do: 'feel', at: contradiction.at, again: true };
  const sure = sureOf(state, within);
  if (sure >= SURE) return { do: 'done', sure };
  const rises = risesWanted(state);
  let best: { turns: number; index: number; worth: number } | null = null;
  for (const [index, adjuster] of state.adjusters.entries()) {
    const { sd } = gapAt(state, adjuster.id);
    const turns = roundMove(rises[index]! / riseOf(adjuster, 1), adjuster.motor === true);
    const moved = Math.abs(riseOf(adjuster, turns));
    if (turns === 0 || moved < LEAST || Math.abs(rises[index]!) < WORTH * sd) continue;
    const worth = outAt(state, adjuster.id, within) - outAfter(state, index, turns, within);
    if (worth > (best?.worth ?? 0)) best = { turns, index, worth };
  }
  if (best) {
    const adjuster = state.adjusters[best.index]!;
    const raises = riseOf(adjuster, best.turns) > 0;
    // Jammed at a screw that has not answered yet: should it turn the other way than is written down, the bed comes up.
    const blind = lastFeelAt(state, adjuster.id) === 'jammed' && !hasAnswered(state, adjuster.id);
    const mayTouch = blind || (raises && touchAfter(state, best.index, best.turns) > TOUCHES);
    return { do: 'turn', adjuster: adjuster.id, turns: best.turns, raises, mayTouch };
  }
  const worst = state.adjusters.reduce((a, b) => (outAt(state, b.id, within) > outAt(state, a.id, within) ? b : a));
  return { do: 'feel', at: worst.id, again: false };
}

const lastFeelAt = ({ history }: FeelState, id: string): Feel | null =>
  history.reduce<Feel | null>((last, event) => (event.do === 'feel' && event.at === id ? event.feel : last), null);

/** Whether a turn of this adjuster was felt to move its place the way that is written down. */
export function hasAnswered(state: FeelState, id: string): boolean {
  const adjuster = state.adjusters.find((one) => one.id === id)!;
  let before: number | null = null;
  let rise = 0;
  for (const event of state.history) {
    if (event.do === 'turn' && event.adjuster === id) rise += riseOf(adjuster, event.turns);
    if (event.do !== 'feel' || event.at !== id) continue;
    const now = FEELS.indexOf(event.feel);
    // A bed that rises closes the gap.
    if (before !== null && rise !== 0 && (now - before) * rise < 0) return true;
    before = now;
    rise = 0;
  }
  return false;
}

/** How likely some adjuster's bed stands against the nozzle after a turn: nothing is left of the gauge's thickness. */
function touchAfter(state: FeelState, index: number, turns: number): number {
  const after = afterTurn(state, { adjuster: state.adjusters[index]!.id, turns });
  return Math.max(
    ...state.adjusters.map(({ id }) => {
      const { mean, sd } = gapAt(after, id);
      return normalBelow((-state.gauge.thickness - mean) / Math.max(sd, 1e-9));
    }),
  );
}

/** How likely a place is out after its own adjuster's turn. */
function outAfter(state: FeelState, index: number, turns: number, within: number): number {
  const { id } = state.adjusters[index]!;
  return outAt(afterTurn(state, { adjuster: id, turns }), id, within);
}

/** What stands out while a bed is felt. */
export type FeelFinding =
  /** One adjuster is far out and the others are not. */
  | { code: 'one-culprit'; adjuster: string }
  /** A turn there moves less, or more, than its thread says: it sticks, slips, or has another thread. */
  | { code: 'moves-less' | 'moves-more'; adjuster: string; share: number }
  /** It was turned and turned and its place feels as before: stuck, or the other way round than is written down. */
  | { code: 'does-not-answer'; adjuster: string }
  /** Feels contradict each other again and again without a turn between: something gives. */
  | { code: 'wont-hold-still' }
  /** It was turned so far one way that its spring may be at its end. */
  | { code: 'near-its-end'; adjuster: string; turns: number };

/** Turns one way after which a spring may be at its end. Common practice: most have four to six. */
const SPRING_TURNS = 3;

/** What has been found out beside the level: one culprit, a screw that does not do what it says, a bed that gives. */
export function feelFindings(state: FeelState): FeelFinding[] {
  const findings: FeelFinding[] = [];
  const turned = state.history.filter((event) => event.do === 'turn');
  const felt = new Set(state.history.flatMap((event) => (event.do === 'feel' ? [event.at] : [])));
  if (turned.length === 0 && state.adjusters.every(({ id }) => felt.has(id))) {
    const out = state.adjusters.filter(({ id }) => Math.abs(gapAt(state, id).mean) > 2 * WITHIN);
    const near = state.adjusters.filter(({ id }) => Math.abs(gapAt(state, id).mean) <= WITHIN);
    if (out.length === 1 && near.length === state.adjusters.length - 1)
      findings.push({ code: 'one-culprit', adjuster: out[0]!.id });
  }
  const n = state.mean.length;
  for (const [i, { id }] of state.adjusters.entries()) {
    const [share, sd] = [state.mean[PLANE + i]!, Math.sqrt(state.covariance[(PLANE + i) * (n + 1)]!)];
    if (isDeaf(state, id)) findings.push({ code: 'does-not-answer', adjuster: id });
    else if (share + 2 * sd < 0.9) findings.push({ code: 'moves-less', adjuster: id, share });
    if (share - 2 * sd > 1.1) findings.push({ code: 'moves-more', adjuster: id, share });
    const net = turned.reduce((sum, event) => sum + (event.adjuster === id ? event.turns : 0), 0);
    if (Math.abs(net) >= SPRING_TURNS) findings.push({ code: 'near-its-end', adjuster: id, turns: net });
  }
  if (contradictions(state) >= 2) findings.push({ code: 'wont-hold-still' });
  return findings;
}

/** Turned one way so often, with its place jammed or free all the while, it does not answer. Common practice: twice can be far out. */
const DEAF_TURNS = 3;

function isDeaf({ history }: FeelState, id: string): boolean {
  let [turns, way, feel]: [number, number, Feel | null] = [0, 0, null];
  for (const event of history) {
    if (event.do === 'turn' && event.adjuster === id && event.turns !== 0) {
      const sign = Math.sign(event.turns);
      turns = sign === way ? turns + 1 : 1;
      way = sign;
    }
    if (event.do === 'feel' && event.at === id) {
      if (feel !== event.feel || (event.feel !== 'jammed' && event.feel !== 'free')) turns = 0;
      feel = event.feel;
    }
  }
  return turns >= DEAF_TURNS && feel !== null;
}

/** How often a place was felt otherwise than before by more than a class, with no turn between. */
function contradictions({ history }: FeelState): number {
  let count = 0;
  const last = new Map<string, Feel>();
  for (const event of history)
    if (event.do === 'turn') last.clear();
    else {
      const before = last.get(event.at);
      if (before !== undefined && Math.abs(FEELS.indexOf(before) - FEELS.indexOf(event.feel)) > 1) count++;
      last.set(event.at, event.feel);
    }
  return count;
}

/** Plays what was done again. @throws RangeError a place or an adjuster that is not there */
export function replayFeel(start: FeelState, history: readonly FeelEvent[]): FeelState {
  return history.reduce(
    (state, event) => (event.do === 'feel' ? afterFeel(state, event) : afterTurn(state, event)),
    start,
  );
}
