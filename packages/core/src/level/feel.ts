import { needNumbers } from '../needNumbers';
import {
  addKeyShares,
  atPlaces,
  beliefBefore,
  FEELS,
  feelFrame,
  feltBelief,
  gapAfterTurn,
  normalBelow,
  riseOf,
  turnedBelief,
  USUAL_BED,
  widened,
  type Feel,
  type FeelAdjuster,
  type FeelBelief,
  type FeelFrame,
  type FeelPrior,
  type FeelWorld,
} from './feelBelief';
import { roundMove } from './roundTurn';
import type { Position } from './stiffBed';

/** What is felt with. mm. */
export interface FeelGauge {
  thickness: number;
  /** One standard deviation of what is known of it. */
  uncertainty: number;
}

/** A place that can be felt: at an adjuster, or the middle. */
export interface FeelPlace extends Position {
  id: string;
}

/** A world that is still thought of, and how likely it is beside the others. */
interface Weighed {
  belief: FeelBelief;
  weight: number;
}

/** All that is known of a bed while it is felt. */
export interface FeelState {
  adjusters: readonly FeelAdjuster[];
  places: readonly FeelPlace[];
  gauge: FeelGauge;
  prior: FeelPrior;
  frame: FeelFrame;
  /** The worlds in which what was felt makes sense; with `astray` their weights add up to 1. */
  worlds: readonly Weighed[];
  /** How likely the keys say nothing of the bed: any at random, or always the same. By kind: at random, then by key. */
  astray: readonly number[];
  /** What was done, in order. */
  history: readonly FeelEvent[];
  /** The last feel could hardly be, by what was known: it should be felt again. */
  contradiction: { at: string; feel: Feel; expected: Feel } | null;
  /** How often a contradiction was felt again and stood, so that what was known had to be widened. */
  surprises: number;
}

export type FeelEvent = { do: 'feel'; at: string; feel: Feel } | { do: 'turn'; adjuster: string; turns: number };

/** Why feeling ends without a level bed: what hands have to look at. */
export type FeelStop =
  /** Its place feels alike whatever was turned. */
  | { why: 'does-not-answer'; adjuster: string }
  /** Its turns do the opposite of what is written down; `adjuster` null: all of them do. */
  | { why: 'turns-other-way'; adjuster: string | null }
  /** What is still wanted of it goes beyond what a spring has: the bed is far off, or the screw does not move it. */
  | { why: 'spring-end'; adjuster: string }
  /** The keys don't follow from any bed. */
  | { why: 'keys-say-nothing' }
  /** What is felt changes without a turn. */
  | { why: 'wont-hold-still' }
  /** Every place is within so much, mm, and by this hand it can't be told more nearly. */
  | { why: 'as-near-as-felt'; within: number; sure: number }
  /** So many touches, and still not known well enough. */
  | { why: 'too-long' };

/** What to do next. Turns are + clockwise looking down. */
export type FeelMove =
  | { do: 'feel'; at: string; again: boolean }
  /** `mayTouch`: the bed may come up against the nozzle by it: the nozzle is lifted first and comes down slowly. */
  | { do: 'turn'; adjuster: string; turns: number; raises: boolean; mayTouch: boolean }
  | ({ do: 'stop' } & FeelStop)
  /** `sure`: how likely every place is within what was asked for. */
  | { do: 'done'; sure: number };

/** How near every adjuster's gap has to come to the gauge, mm: half of a fine first layer's give. Common practice. */
export const WITHIN = 0.03;
/** Done when it is so likely that every place is within. */
const SURE = 0.95;
/** A turn waits until it corrects so much of what is not known, in standard deviations, and at least so much, mm. */
const WORTH = 1;
const LEAST = 0.012;
/** A turn is made with the nozzle lifted where the bed is more likely than this to come up against it. */
const TOUCHES = 2e-4;
/** A feel less likely than this, by what was known, is felt again. */
const ODD = 0.005;
/** An adjuster is said not to be as written down when it is so likely. */
const FOUND = 0.985;
/** No single turn moves a screw farther, mm: about two turns, after which it is felt again. */
const AT_ONCE = 1;
/** Nor all together from where it was found, one way, mm: springs have four to six turns. Common practice. */
const TRAVEL = 2.5;
/** One whose place has not answered yet goes no farther than this, mm: few beds are so far off. */
const UNANSWERED = 2.2;
/** Keys that follow no bed are reckoned with from here on. */
const ASTRAY_AT_ALL = 0.0005;
/** After so many touches, and so many more for each adjuster, it also ends where all is within so many times what was asked for. */
const ENOUGH = 28;
const MORE_EACH = 8;
/** Near enough for a common first layer. */
export const NEAR = 5 / 3;
/** Felt alike so often, one after the other, a place is turned rather than felt again. */
const ALIKE = 3;
/** A turn that is made only to see whether the feel follows it, mm. */
const TRIAL = 0.06;
/** What was known is widened by so much when a contradiction stands, mm. */
const WIDEN = 0.12;
const MOST_SURPRISES = 3;
/** Feels and turns after which it ends: twice what an untidy hand on a twisting plate takes. */
const MOST_TOUCHES = 120;
/** A world less likely than this is no longer thought of. */
const GONE = 3e-5;

/** The place in the middle of the adjusters. */
export const MIDDLE = 'middle';

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
  for (const { id, pitch } of adjusters)
    if (!(pitch > 0 && pitch < Infinity))
      throw new RangeError(`startFeel needs a pitch above 0 mm, ${id} has ${pitch}`);
  if (!(gauge.thickness > 0)) throw new RangeError(`startFeel needs a thickness above 0 mm, got ${gauge.thickness}`);
  if (!(gauge.uncertainty >= 0))
    throw new RangeError(`startFeel needs an uncertainty of 0 or more, got ${gauge.uncertainty}`);
  const frame = feelFrame({ adjusters, prior, gauge: gauge.uncertainty });
  const middle = {
    id: MIDDLE,
    x: adjusters.reduce((sum, { x }) => sum + x, 0) / adjusters.length,
    y: adjusters.reduce((sum, { y }) => sum + y, 0) / adjusters.length,
  };
  const astray = [KEYS_AT_RANDOM, ...FEELS.map(() => KEY_ALWAYS)];
  const left = 1 - astray.reduce((sum, weight) => sum + weight, 0);
  const worlds = worldsOf(adjusters.length);
  const total = worlds.reduce((sum, { weight }) => sum + weight, 0);
  return {
    adjusters,
    places: [...adjusters.map(({ id, x, y }) => ({ id, x, y })), middle],
    gauge,
    prior,
    frame,
    worlds: worlds.map(({ world, weight }) => ({
      belief: beliefBefore(frame, world),
      weight: (left * weight) / total,
    })),
    astray,
    history: [],
    contradiction: null,
    surprises: 0,
  };
}

/** How often somebody presses keys without feeling; and always the same one. */
const KEYS_AT_RANDOM = 0.004;
const KEY_ALWAYS = 0.002;

/** Every way in which bed, screws and hand are thought to be, with how common that is. Common practice, and our own guess of it. */
function worldsOf(n: number): { world: FeelWorld; weight: number }[] {
  const twists: [number, number][] =
    n === 3
      ? [[0, 1]]
      : [
          [0, 0.7],
          [0.5, 0.15],
          [1, 0.15],
        ];
  const heights: [number, number][] = [
    [0.12, 0.15],
    [1, 0.65],
    [2.5, 0.2],
  ];
  const hands: [number, number][] = [
    [0.5, 0.05],
    [1, 0.8],
    [1.5, 0.1],
    [2, 0.05],
  ];
  const odds: [FeelWorld['odd'], number][] = [
    [{ index: -1, way: 'reversed' }, 0.02],
    ...Array.from({ length: n }, (_, index): [FeelWorld['odd'], number][] => [
      [{ index, way: 'stuck' }, 0.006],
      [{ index, way: 'reversed' }, 0.008],
      [{ index, way: 'other-thread' }, 0.01],
    ]).flat(),
  ];
  const oddWeight = odds.reduce((sum, [, weight]) => sum + weight, 0);
  return twists.flatMap(([twist, a]) => [
    ...heights.flatMap(([height, b]) =>
      hands.map(([hand, c]) => ({ world: { twist, odd: null, hand, height }, weight: a * b * c * (1 - oddWeight) })),
    ),
    // Odd screws are looked for among usual hands and beds, and where all begins far off.
    ...odds.flatMap(([odd, b]) =>
      heights.slice(1).map(([height, c]) => ({ world: { twist, odd, hand: 1, height }, weight: a * b * c })),
    ),
  ]);
}

/** The same bed with every screw as written down and a usual hand whose keys follow it: for what asks how well just that foretells feels. */
export function asWritten(state: FeelState): FeelState {
  const worlds = state.worlds.filter(
    ({ belief: { world } }) => world.odd === null && world.hand === 1 && world.height === 1,
  );
  const total = worlds.reduce((sum, { weight }) => sum + weight, 0);
  return {
    ...state,
    worlds: worlds.map(({ belief, weight }) => ({ belief, weight: weight / total })),
    astray: state.astray.map(() => 0),
  };
}

function placeIndex(state: FeelState, id: string): number {
  const index = state.places.findIndex((place) => place.id === id);
  if (index < 0) throw new RangeError(`There is no place “${id}” to feel`);
  return index;
}
function adjusterIndex(state: FeelState, id: string): number {
  const index = state.adjusters.findIndex((one) => one.id === id);
  if (index < 0) throw new RangeError(`There is no adjuster “${id}” to turn`);
  return index;
}

/** Weight of all worlds that fit. */
const weightOf = ({ worlds }: FeelState, fits: (world: FeelWorld) => boolean = () => true) =>
  worlds.reduce((sum, { belief, weight }) => sum + (fits(belief.world) ? weight : 0), 0);

/** Gap less thickness at a place: its mean and standard deviation over all worlds, mm; + too wide. */
export function gapAt(state: FeelState, placeId: string): { mean: number; sd: number } {
  return placeGap(state, placeIndex(state, placeId));
}

const placeGap = ({ frame, worlds }: FeelState, place: number) =>
  mixed(
    worlds.map(({ belief, weight }) => {
      const at = atPlaces(frame, belief);
      return { mean: at[2 * place]!, variance: at[2 * place + 1]!, weight };
    }),
  );

function mixed(parts: readonly { mean: number; variance: number; weight: number }[]): { mean: number; sd: number } {
  const total = parts.reduce((sum, { weight }) => sum + weight, 0);
  const mean = parts.reduce((sum, part) => sum + part.weight * part.mean, 0) / total;
  const square = parts.reduce((sum, part) => sum + part.weight * (part.variance + (part.mean - mean) ** 2), 0) / total;
  return { mean, sd: Math.sqrt(square) };
}

/** What a turn of this adjuster moves as a share of what its thread says, by all that was felt. */
export function gainOf(state: FeelState, id: string): { mean: number; sd: number } {
  const { bed, size } = state.frame;
  const at = bed + adjusterIndex(state, id);
  return mixed(
    state.worlds.map(({ belief, weight }) => ({
      mean: belief.mean[at]!,
      variance: belief.covariance[at * (size + 1)]!,
      weight,
    })),
  );
}

/** How likely the keys follow no bed at all. */
export const astrayOf = ({ astray }: FeelState): number => astray.reduce((sum, weight) => sum + weight, 0);

/**
 * What is known after a feel. Worlds that foretold it gain weight, those that did not lose it; where none did and a second
 * feel says the same, all that is known becomes wider.
 * @throws RangeError a place or a feel that is not there
 */
export function afterFeel(state: FeelState, { at, feel }: { at: string; feel: Feel }): FeelState {
  const place = placeIndex(state, at);
  const key = FEELS.indexOf(feel);
  if (key < 0) throw new RangeError(`afterFeel knows ${FEELS.join(', ')}, got ${String(feel)}`);
  // A contradiction that is felt again stands: something moved, or was never as thought.
  const stands = state.contradiction?.at === at && Math.abs(FEELS.indexOf(state.contradiction.feel) - key) <= 1;
  const known = stands ? widenedState(state) : state;
  const { frame } = state;
  const shares = feelShares(known, at);
  const felt = known.worlds.map(({ belief, weight }) => {
    const after = feltBelief(frame, belief, place, key);
    return { belief: after.belief, weight: weight * after.likely };
  });
  const astray = known.astray.map((weight, kind) =>
    kind === 0 ? weight / FEELS.length : weight * (kind - 1 === key ? 1 : 0.02 / (FEELS.length - 1)),
  );
  const total = [...felt.map(({ weight }) => weight), ...astray].reduce((sum, weight) => sum + weight, 0);
  const history: FeelEvent[] = [...state.history, { do: 'feel', at, feel }];
  const odd = shares[key]! < ODD && state.history.some(({ do: what }) => what === 'feel') && !stands;
  const expected = FEELS[shares.reduce((best, share, i) => (share > shares[best]! ? i : best), 0)]!;
  return {
    ...known,
    worlds: felt
      .map(({ belief, weight }) => ({ belief, weight: weight / total }))
      .filter(({ weight }, i) => weight > GONE || (i === 0 && felt.length === 1)),
    astray: astray.map((weight) => weight / total),
    history,
    contradiction: odd ? { at, feel, expected } : null,
  };
}

/** Everything known less well: what was felt twice does not follow from it. */
function widenedState(state: FeelState): FeelState {
  return {
    ...state,
    surprises: state.surprises + 1,
    worlds: state.worlds.map(({ belief, weight }) => ({ belief: widened(state.frame, belief, WIDEN), weight })),
  };
}

/**
 * How likely each feel is at a place, by what is known: in the order of the feels, now and then off by one.
 * @throws RangeError a place that is not there
 */
export function feelShares(state: FeelState, at: string): number[] {
  const place = placeIndex(state, at);
  const total = weightOf(state);
  const shares = FEELS.map(() => 0);
  for (const { belief, weight } of state.worlds) addKeyShares(shares, state.frame, belief, place, weight / total);
  return shares;
}

/**
 * What is known after a turn.
 * @param turns + clockwise looking down
 * @throws RangeError an adjuster that is not there, turns that are no number
 */
export function afterTurn(state: FeelState, { adjuster, turns }: { adjuster: string; turns: number }): FeelState {
  if (!(Math.abs(turns) <= 1000)) throw new RangeError(`afterTurn needs turns that are a number, got ${turns}`);
  const index = adjusterIndex(state, adjuster);
  const turn = turnOf(state, index, riseOf(state.adjusters[index]!, turns));
  return {
    ...state,
    worlds: state.worlds.map(({ belief, weight }) => ({ belief: turnedBelief(state.frame, belief, turn), weight })),
    history: [...state.history, { do: 'turn', adjuster, turns }],
    contradiction: null,
  };
}

/** A turn as beliefs take it: whether it goes back on the one before is what the thread's play depends on. */
function turnOf(state: FeelState, index: number, rise: number): { index: number; rise: number; back: boolean } {
  const last = state.history.findLast(
    (event) => event.do === 'turn' && event.adjuster === state.adjusters[index]!.id && event.turns !== 0,
  );
  const before = last?.do === 'turn' ? riseOf(state.adjusters[index]!, last.turns) : 0;
  return { index, rise, back: before * rise < 0 };
}

/** How likely the gap at a place is farther from the gauge than asked for, in worlds that are all there is. */
export function outAt(state: FeelState, placeId: string, within = WITHIN): number {
  return placeOut(state, placeIndex(state, placeId), within);
}

function placeOut({ frame, worlds }: FeelState, place: number, within: number): number {
  let [total, sum] = [0, 0];
  for (const { belief, weight } of worlds) {
    const at = atPlaces(frame, belief);
    total += weight;
    sum += weight * out(at[2 * place]!, at[2 * place + 1]!, within);
  }
  return sum / total;
}

function out(mean: number, variance: number, within: number): number {
  const sd = Math.sqrt(variance);
  if (sd === 0) return Math.abs(mean) > within ? 1 : 0;
  return normalBelow((-within - mean) / sd) + 1 - normalBelow((within - mean) / sd);
}

/** How likely every adjuster's place is within, at the least: world by world what is likely out is added up. */
export function sureOf({ frame, worlds, adjusters }: FeelState, within = WITHIN): number {
  let sure = 0;
  for (const { belief, weight } of worlds) {
    const at = atPlaces(frame, belief);
    let outs = 0;
    for (let i = 0; i < adjusters.length && outs < 1; i++) outs += out(at[2 * i]!, at[2 * i + 1]!, within);
    sure += weight * Math.max(0, 1 - outs);
  }
  return sure;
}

/** How far an adjuster has been turned from where it was found, as its thread says, mm; + raised. */
export const travelOf = (state: FeelState, id: string): number =>
  state.history.reduce(
    (sum, event) =>
      event.do === 'turn' && event.adjuster === id
        ? sum + riseOf(state.adjusters[adjusterIndex(state, id)]!, event.turns)
        : sum,
    0,
  );

/**
 * What to do next: a contradictory feel again first; the end, where what was found must be looked at by hand; done when all are
 * likely enough within; a turn where it corrects more than what isn't known there; otherwise a feel where a place is most
 * likely out. Turns are said in steps of a sixteenth and never go farther than a spring has.
 */
export function nextMove(state: FeelState, within = WITHIN): FeelMove {
  const { contradiction } = state;
  const stop = stopOf(state);
  if (stop) return { do: 'stop', ...stop };
  if (contradiction) return { do: 'feel', at: contradiction.at, again: true };
  const sure = sureOf(state, within);
  if (sure >= SURE) return { do: 'done', sure };
  const near = sureOf(state, NEAR * within);
  if (state.history.length >= ENOUGH + MORE_EACH * state.adjusters.length && near >= SURE)
    return { do: 'stop', why: 'as-near-as-felt', within: NEAR * within, sure: near };
  const turn = bestTurn(state, within) ?? trialTurn(state, within);
  if (turn) {
    const adjuster = state.adjusters[turn.index]!;
    const travel = Math.abs(travelOf(state, adjuster.id) + riseOf(adjuster, turn.turns));
    if (travel > (hasAnswered(state, adjuster.id) ? TRAVEL : UNANSWERED))
      return { do: 'stop', why: 'spring-end', adjuster: adjuster.id };
    const raises = riseOf(adjuster, turn.turns) > 0;
    // Jammed: should it turn the other way than is written down, or answer late, the bed comes up against the nozzle.
    const jammed = lastFeelAt(state, adjuster.id) === 'jammed';
    return {
      do: 'turn',
      adjuster: adjuster.id,
      turns: turn.turns,
      raises,
      mayTouch:
        jammed ||
        (raises && (!hasAnswered(state, adjuster.id) || astrayOf(state) > ASTRAY_AT_ALL)) ||
        touchAfter(state, turn.index, turn.turns) > TOUCHES,
    };
  }
  return { do: 'feel', at: worstPlace(state, within), again: false };
}

/** What must be looked at by hand; null: go on. */
function stopOf(state: FeelState): FeelStop | null {
  const touches = state.history.length;
  if (state.surprises >= MOST_SURPRISES) return { why: 'wont-hold-still' };
  if (astrayOf(state) > 0.9) return { why: 'keys-say-nothing' };
  const turned = state.history.some(({ do: what }) => what === 'turn');
  if (turned && weightOf(state, ({ odd }) => odd?.index === -1) > FOUND)
    return { why: 'turns-other-way', adjuster: null };
  for (const [index, { id }] of state.adjusters.entries()) {
    const is = (way: string) => weightOf(state, ({ odd }) => odd?.index === index && odd.way === way);
    const [stuck, reversed] = [is('stuck'), is('reversed')];
    if (reversed > FOUND) return { why: 'turns-other-way', adjuster: id };
    if (stuck + reversed > FOUND) return { why: 'does-not-answer', adjuster: id };
  }
  return touches >= MOST_TOUCHES ? { why: 'too-long' } : null;
}

function worstPlace(state: FeelState, within: number): string {
  const outs = state.adjusters.map((_, place) => placeOut(state, place, within));
  return state.adjusters[outs.indexOf(Math.max(...outs))]!.id;
}

interface Turn {
  index: number;
  turns: number;
}

/** The turn that takes most of what is likely out at its place away; null: none is worth it before more is felt. */
function bestTurn(state: FeelState, within: number): Turn | null {
  let best: (Turn & { worth: number }) | null = null;
  for (const [index, adjuster] of state.adjusters.entries()) {
    // What was turned is felt before it is turned again.
    if (turnedSinceFelt(state, adjuster.id)) continue;
    const { mean, sd } = gapAt(state, adjuster.id);
    const own = ownShare(state, index);
    const wanted = Math.max(-AT_ONCE, Math.min(AT_ONCE, mean / own));
    const turns = roundMove(wanted / riseOf(adjuster, 1), adjuster.motor === true);
    const rise = riseOf(adjuster, turns);
    // Felt alike again and again nothing more is learned there without a turn.
    const alike = alikeNow(state, adjuster.id) >= ALIKE;
    if (turns === 0 || Math.abs(rise) < LEAST || (Math.abs(mean) < WORTH * sd && !alike)) continue;
    const gain = outAt(state, adjuster.id, within) - outAfter(state, index, rise, within);
    const worth = alike ? Math.max(gain, Number.EPSILON) : gain;
    if (worth > (best?.worth ?? 0)) best = { turns, index, worth };
  }
  return best && { index: best.index, turns: best.turns };
}

/** How often this place was felt last, one feel after the other, with the same key each time. */
function alikeNow({ history }: FeelState, id: string): number {
  const other = history.findLastIndex(
    (event) => event.do === 'turn' || event.at !== id || event.feel !== (history.at(-1) as { feel?: Feel }).feel,
  );
  return history.length - 1 - other;
}

/** By how much the gap at an adjuster closes for 1 mm of its thread, by what is known; never so little that a turn runs away. */
function ownShare(state: FeelState, index: number): number {
  const gain = gainOf(state, state.adjusters[index]!.id).mean;
  return Math.max(0.5, gain);
}

/**
 * A turn that is made to learn whether the feels follow it: where keys might say nothing, or a place feels alike again and again
 * and no turn is plainly better. It lowers, the safe way, unless it was lowered last.
 */
function trialTurn(state: FeelState, within: number): Turn | null {
  const feels = state.history.filter((event) => event.do === 'feel');
  const worst = worstPlace(state, within);
  if (turnedSinceFelt(state, worst)) return null;
  const there = state.history.filter((event) => event.do === 'feel' && event.at === worst);
  const sinceTurn = state.history.length - 1 - state.history.findLastIndex(({ do: what }) => what === 'turn');
  const allFelt = state.adjusters.every(({ id }) => feels.some((event) => event.do === 'feel' && event.at === id));
  const alike = there.length >= 2 && sinceTurn >= 3;
  if (!allFelt || !(astrayOf(state) > 1 - SURE || alike)) return null;
  const index = adjusterIndex(state, worst);
  const adjuster = state.adjusters[index]!;
  const { mean } = gapAt(state, worst);
  const way = Math.abs(mean) > within ? Math.sign(mean) : travelOf(state, worst) < 0 ? 1 : -1;
  const turns = roundMove((way * TRIAL) / riseOf(adjuster, 1), adjuster.motor === true);
  return turns === 0 ? null : { index, turns };
}

/** Whether an adjuster was turned and its place not felt since. */
const turnedSinceFelt = ({ history }: FeelState, id: string): boolean =>
  history.findLastIndex((event) => event.do === 'turn' && event.adjuster === id) >
  history.findLastIndex((event) => event.do === 'feel' && event.at === id);

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
  const turn = turnOf(state, index, riseOf(state.adjusters[index]!, turns));
  const total = weightOf(state);
  return Math.max(
    ...state.adjusters.map((_, place) =>
      state.worlds.reduce((sum, { belief, weight }) => {
        const { mean, variance } = gapAfterTurn(state.frame, belief, place, turn);
        return (
          sum + (weight / total) * normalBelow((-state.gauge.thickness - mean) / Math.sqrt(Math.max(variance, 1e-12)))
        );
      }, 0),
    ),
  );
}

/** How likely a place is out after its own adjuster's turn. */
function outAfter(state: FeelState, index: number, rise: number, within: number): number {
  const turn = turnOf(state, index, rise);
  const total = weightOf(state);
  return state.worlds.reduce((sum, { belief, weight }) => {
    const { mean, variance } = gapAfterTurn(state.frame, belief, index, turn);
    return sum + (weight / total) * out(mean, variance, within);
  }, 0);
}

/** What stands out while a bed is felt. */
export type FeelFinding =
  /** One adjuster is far out and the others are not. */
  | { code: 'one-culprit'; adjuster: string }
  /** A turn there moves less, or more, than its thread says: it sticks, slips, or has another thread. */
  | { code: 'moves-less' | 'moves-more'; adjuster: string; share: number }
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
    const far = state.adjusters.filter(({ id }) => Math.abs(gapAt(state, id).mean) > 2 * WITHIN);
    const near = state.adjusters.filter(({ id }) => Math.abs(gapAt(state, id).mean) <= WITHIN);
    if (far.length === 1 && near.length === state.adjusters.length - 1)
      findings.push({ code: 'one-culprit', adjuster: far[0]!.id });
  }
  for (const { id } of state.adjusters) {
    const { mean: share, sd } = gainOf(state, id);
    if (share > 0 && share + 2 * sd < 0.9) findings.push({ code: 'moves-less', adjuster: id, share });
    if (share - 2 * sd > 1.1) findings.push({ code: 'moves-more', adjuster: id, share });
    const net = turned.reduce((sum, event) => sum + (event.adjuster === id ? event.turns : 0), 0);
    if (Math.abs(net) >= SPRING_TURNS) findings.push({ code: 'near-its-end', adjuster: id, turns: net });
  }
  if (contradictions(state) >= 2) findings.push({ code: 'wont-hold-still' });
  return findings;
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

export { FEEL_EDGES, FEELS, normalBelow, USUAL_BED, type Feel, type FeelAdjuster, type FeelPrior } from './feelBelief';
