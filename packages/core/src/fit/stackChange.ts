import { needNumbers } from '../needNumbers';
import { tidyLength } from './tidyLength';
import { METALS, throughTheTop, type Metal } from './inductiveProbe';
import { stackCautions, type StackCaution } from './stackCautions';
import type { Home, Moves, StackStep, StackUnknown } from './stackStep';
import { jogsSafely, turnsSafely } from './turnsSafely';
import { wholeLayers, type WholeLayers } from './wholeLayers';

/** One layer of a stack. Lengths in mm, mass in g, temperature in °C. */
export interface FitLayer {
  name: string;
  thickness: number;
  /** Taken with calipers, not from a label. Not said: taken as measured. */
  measured?: boolean;
  /** °C it stands for hours; null or left out when not known. */
  limit?: number | null;
  /** What an inductive probe senses of it; null or left out: nothing. */
  metal?: Metal | null;
  /** g; null or left out when not known. */
  mass?: number | null;
}

/** How a machine finds Z, with what can be moved when the stack changes. */
export type ZFinding =
  /** A switch at the end of travel that a printed spacer can be put on. `now`: the spacer that lies there, mm. */
  | { by: 'spacer'; now?: number | null }
  /** A stop screw; `clockwise` says what a clockwise turn, looking at its head, does to the trip point. */
  | { by: 'stop-screw'; pitch: number; clockwise: 'sooner' | 'later' }
  /** A flag or sensor that can be moved; it rides on what moves or sits on the frame. */
  | { by: 'flag'; part: 'flag' | 'sensor'; rides: 'moving' | 'frame' }
  /** A trip point that cannot be moved. */
  | { by: 'fixed' }
  /** A probe that touches the surface itself. */
  | { by: 'contact-probe' }
  /**
   * A probe that senses metal. `range`: its rated sensing distance on steel · `above`: its face above the nozzle tip; mm,
   * null where not known.
   */
  | { by: 'inductive-probe'; range?: number | null; above?: number | null };

/** What the adjusters can still do, mm each way in space, and how they are turned. */
export interface AdjusterRange {
  up: number;
  down: number;
  pitch?: number;
  /** What a clockwise turn does to the bed or platform. */
  clockwise?: 'raises' | 'lowers';
}

export interface StackChangeInput {
  /** Bottom first. */
  before: readonly FitLayer[];
  after: readonly FitLayer[];
  finding: ZFinding;
  family?: 'filament' | 'resin';
  /** What moves along Z; null: not known. A resin printer moves its platform. */
  moves?: Moves | null;
  /** Where home lies; null: not known. A probe finds it at the surface. */
  home?: Home | null;
  adjusters?: AdjusterRange | null;
  /** Layer height that a spacer is printed at, mm. */
  spacerLayer?: number | null;
  /** Build height today, mm. */
  buildHeight?: number | null;
  /** Free gap between nozzle (or platform) and surface (or screen) when home trips today, mm. Not known: none. */
  slack?: number | null;
}

export interface Spacer extends WholeLayers {
  /** What the change alone asks for. */
  ideal: number;
}

export interface AdjustersTake {
  /** How far they move the bed or platform: + raises. */
  take: number;
  /** What they have that way. */
  have: number;
  enough: boolean;
  left: { up: number; down: number };
  /** Turns, + clockwise; null when pitch or direction is not known. */
  turns: number | null;
}

/** What a change of stack asks, in facts: the sentences are made from them. Lengths in mm. */
export interface StackChange {
  before: number;
  after: number;
  /** after − before: + the surface comes nearer the nozzle or the screen. */
  change: number;
  /** none: nothing to move · do: the steps, in order · ask: `missing` first · stop: no order of steps is safe. */
  verdict: 'none' | 'do' | 'ask' | 'stop';
  steps: StackStep[];
  missing: StackUnknown[];
  /** Why no order of steps is safe; null unless the verdict is stop. */
  why: 'no-metal' | 'probe-reach' | 'trip-fixed' | null;
  /** By how much home would drive into the surface if nothing were done, mm. */
  collides: number;
  /** What is left between tool and surface at zero when the steps are done, at the most, mm. */
  gap: number;
  spacer: Spacer | null;
  /** Turns of the stop screw as said, + clockwise. */
  screwTurns: number | null;
  adjusters: AdjustersTake | null;
  /** What the software zero moves by, + further from the surface, mm; null when it stays. */
  zero: number | null;
  buildHeight: number | null;
  /** g; null when the mass of a changed layer is not known. */
  addedMass: number | null;
  limit: { temperature: number; layer: string } | null;
  cautions: StackCaution[];
}

/** A change smaller than this is left alone: the smallest jog of common machines. Common practice. */
const NOTHING = 0.01;
/** No thread is as fine as this, mm: miniature screws (ISO 1501, from memory) begin at 0.08. */
const FINEST_PITCH = 0.01;
/** No stack, gap or adjuster is longer than this, mm. */
const LONGEST = 100_000;

/**
 * What a change of stack asks of a machine before it homes and before it goes to zero, as steps in the order in which a
 * person does them. Every rounding lets home trip sooner or leaves a gap, which `gap` says; none ends in the surface.
 * The free gap at home (`slack`) counts only where nothing else moves: it is no place to hide a missing spacer in.
 * @throws RangeError a length that is not a number or below 0, a pitch or layer that is not above 0, an unknown word
 * Source: arithmetic of the stack, followed by a simulated person in the tests; the ways are common practice.
 * @example stackChange({ before: [], after: [{ name: 'glass', thickness: 3.175 }], finding: { by: 'spacer' },
 *   moves: 'head', home: 'surface', spacerLayer: 0.2 }).spacer
 *   // { ideal: 3.175, printed: 3.2, layers: 16, leftover: 0.025 }
 */
export function stackChange(input: StackChangeInput): StackChange {
  needNumbers('stackChange', { ...input });
  const before = heightOf(input.before);
  const after = heightOf(input.after);
  guard(input);
  const change = tidyLength(after - before);
  const answer = answerTo(input, change);
  const { steps } = answer;
  const spacer = steps.find((step) => step.do === 'spacer');
  const screw = steps.find((step) => step.do === 'screw');
  const zero = steps.find((step) => step.do === 'zero');
  const adjust = steps.find((step) => step.do === 'adjust');
  const take = adjust ? tidyLength((adjust.way === 'raise' ? 1 : -1) * adjust.by) : (answer.short ?? 0);
  const result: Omit<StackChange, 'cautions'> = {
    before,
    after,
    change,
    verdict: answer.verdict,
    steps,
    missing: answer.missing ?? [],
    why: answer.why ?? null,
    collides: answer.collides,
    gap: tidyLength(Math.max(0, answer.gap)),
    spacer: spacer ? { ...wantedOf(spacer, change), layers: spacer.layers, printed: spacer.printed } : null,
    screwTurns: screw ? screw.turns : null,
    adjusters: take === 0 || !input.adjusters ? null : takenBy(input.adjusters, take, adjust?.turns ?? null),
    zero: zero ? (zero.way === 'further' ? zero.by : -zero.by) : null,
    buildHeight: input.buildHeight == null ? null : tidyLength(input.buildHeight - change),
    addedMass: addedMass(input.before, input.after),
    limit: weakest(input.after),
  };
  return { ...result, cautions: stackCautions(result, input) };
}

interface Answer {
  verdict: StackChange['verdict'];
  steps: StackStep[];
  missing?: StackUnknown[];
  why?: NonNullable<StackChange['why']>;
  /** By how much home would drive into the surface if nothing were done. */
  collides: number;
  gap: number;
  /** What the adjusters would have to do and can't: + raise. */
  short?: number;
}

function answerTo(input: StackChangeInput, change: number): Answer {
  const { finding, slack } = input;
  const home: StackStep = { do: 'home' };
  if (finding.by === 'inductive-probe') return overMetal(input, finding);
  if (Math.abs(change) < NOTHING || finding.by === 'contact-probe')
    return { verdict: 'none', steps: [home], collides: 0, gap: finding.by === 'contact-probe' ? 0 : -change };
  const moves = movesOf(input);
  const missing: StackUnknown[] = [
    ...(moves === null ? (['moves'] as const) : []),
    ...(input.home == null ? (['home'] as const) : []),
  ];
  const collides = input.home === 'away' ? 0 : Math.max(0, tidyLength(change - (slack ?? 0)));
  if (moves === null || input.home == null) return { verdict: 'ask', steps: [], missing, collides, gap: 0 };
  // Home lies away from the surface: it stays safe, and the way from there to zero changes.
  if (input.home === 'away') {
    const zero = zeroBy(change);
    return { verdict: 'do', steps: homeBetween([], zero.steps), collides: 0, gap: zero.over };
  }
  if (finding.by === 'fixed' && change > 0) return fixedThicker(input, change, collides);
  const tripped = tripMoved(input, finding, moves, change);
  // What the trip point moved more than it had to is taken up: by the adjusters, then by zero.
  const rest = takeUp(input, tidyLength(tripped.shift - change));
  return {
    verdict: 'do',
    steps: homeBetween([...tripped.steps, ...rest.before], rest.after),
    collides,
    gap: rest.gap,
  };
}

/** How the trip point is moved, and by how much: + away from the surface, so that home trips sooner. */
function tripMoved(
  { spacerLayer = null }: StackChangeInput,
  finding: Exclude<ZFinding, { by: 'contact-probe' | 'inductive-probe' }>,
  moves: Moves,
  change: number,
): { steps: StackStep[]; shift: number } {
  switch (finding.by) {
    case 'fixed':
      return { steps: [], shift: 0 };
    case 'spacer': {
      const now = finding.now ?? 0;
      const wanted = tidyLength(now + change);
      if (wanted <= 0)
        return now > 0 ? { steps: [{ do: 'spacer-off', thickness: now }], shift: -now } : { steps: [], shift: 0 };
      const { printed, layers } = wholeLayers(wanted, spacerLayer);
      if (change < 0 && printed >= now) return { steps: [], shift: 0 };
      return { steps: [{ do: 'spacer', printed, layers, replaces: now }], shift: tidyLength(printed - now) };
    }
    case 'stop-screw': {
      const turns = change / finding.pitch;
      const said = turnsSafely(turns, change > 0 ? 'more' : 'less');
      if (said === 0) return { steps: [], shift: 0 };
      const seen = said * (finding.clockwise === 'sooner' ? 1 : -1);
      return {
        steps: [{ do: 'screw', turns: seen, trips: change > 0 ? 'sooner' : 'later' }],
        shift: tidyLength(said * finding.pitch),
      };
    }
    case 'flag': {
      const by = jogsSafely(Math.abs(change), change > 0 ? 'more' : 'less');
      if (by === 0) return { steps: [], shift: 0 };
      // The trip point moves the way that opens the gap: up under a head or platform, down under a bed that comes up.
      // What sits on the frame goes along with it, what rides goes against it.
      const opens = moves === 'bed' ? -1 : 1;
      const up = opens * Math.sign(change) * (finding.rides === 'frame' ? 1 : -1) > 0;
      return {
        steps: [
          { do: 'flag', part: finding.part, way: up ? 'higher' : 'lower', by, trips: change > 0 ? 'sooner' : 'later' },
        ],
        shift: Math.sign(change) * by,
      };
    }
  }
}

/** A gap at zero is closed: by the adjusters as far as they go, the rest by zero; never by more than there is. */
function takeUp(input: StackChangeInput, gap: number): { before: StackStep[]; after: StackStep[]; gap: number } {
  if (gap < NOTHING) return { before: [], after: [], gap };
  const adjust = adjusted(input, gap, 'closes');
  const left = tidyLength(gap - (adjust?.by ?? 0));
  const zero = left < NOTHING ? { steps: [], over: left } : zeroBy(-left);
  return { before: adjust ? [adjust] : [], after: zero.steps, gap: zero.over };
}

/** Thicker, and the trip point can't move: the adjusters open what home needs, zero the rest. */
function fixedThicker(input: StackChangeInput, change: number, collides: number): Answer {
  if (collides < NOTHING) {
    const zero = zeroBy(change);
    return { verdict: 'do', steps: homeBetween([], zero.steps), collides: 0, gap: zero.over };
  }
  const opens = waysOf(input).opens;
  const have = opens === 'raise' ? (input.adjusters?.up ?? 0) : (input.adjusters?.down ?? 0);
  if (have < collides)
    return {
      verdict: 'stop',
      why: 'trip-fixed',
      steps: [],
      collides,
      gap: 0,
      short: input.adjusters ? (opens === 'raise' ? collides : -collides) : 0,
    };
  const adjust = adjusted(input, collides, 'opens')!;
  const rest = tidyLength(change - adjust.by);
  const zero = rest > 0 ? zeroBy(rest) : { steps: [], over: -rest };
  return { verdict: 'do', steps: homeBetween([adjust], zero.steps), collides, gap: zero.over };
}

/** Zero by so much further from the surface (− nearer), in hundredths, to the safe side. `over`: the gap it leaves. */
function zeroBy(further: number): { steps: StackStep[]; over: number } {
  const by = jogsSafely(Math.abs(further), further > 0 ? 'more' : 'less');
  const steps: StackStep[] = by === 0 ? [] : [{ do: 'zero', way: further > 0 ? 'further' : 'nearer', by }];
  return { steps, over: tidyLength(Math.sign(further) * by - further) };
}

/** Which way the bed or platform goes to open the gap and to close it: a platform hangs, a bed lies. */
const waysOf = ({ family = 'filament' }: StackChangeInput) =>
  family === 'resin'
    ? ({ what: 'platform', opens: 'raise', closes: 'lower' } as const)
    : ({ what: 'bed', opens: 'lower', closes: 'raise' } as const);

/** A step of the adjusters: at least as much where it opens, at most as much where it closes, within what they have. */
function adjusted(
  input: StackChangeInput,
  wanted: number,
  to: 'opens' | 'closes',
): Extract<StackStep, { do: 'adjust' }> | null {
  if (!input.adjusters) return null;
  const ways = waysOf(input);
  const way = ways[to];
  const { up, down, pitch, clockwise } = input.adjusters;
  const have = way === 'raise' ? up : down;
  const most = Math.min(wanted, have);
  const toward = to === 'opens' ? 'more' : 'less';
  const plain = to === 'opens' ? Math.min(jogsSafely(most, toward), have) : jogsSafely(most, toward);
  const step = { do: 'adjust', what: ways.what, way } as const;
  if (pitch !== undefined && clockwise !== undefined) {
    const size = turnsSafely(most / pitch, toward);
    const by = tidyLength(size * pitch);
    const sign = (way === 'raise') === (clockwise === 'raises') ? 1 : -1;
    if (size > 0 && by <= have) return { ...step, by, turns: sign * size };
    if (size === 0) return null;
  }
  return plain > 0 ? { ...step, by: plain, turns: null } : null;
}

function overMetal(input: StackChangeInput, finding: Extract<ZFinding, { by: 'inductive-probe' }>): Answer {
  const before = topMetal(input.before);
  const after = topMetal(input.after);
  const home: StackStep = { do: 'home' };
  if (after === null) return { verdict: 'stop', why: 'no-metal', steps: [], collides: heightOf(input.after), gap: 0 };
  const answer = throughTheTop({
    before,
    after,
    samePiece:
      before?.metal === after.metal &&
      before.layer.name === after.layer.name &&
      before.layer.thickness === after.layer.thickness,
    range: finding.range ?? null,
    above: finding.above ?? null,
    clear: input.slack ?? null,
  });
  switch (answer.kind) {
    case 'none':
      return { verdict: 'none', steps: [home], collides: 0, gap: Math.max(0, before!.over - after.over) };
    case 'unknown':
      return { verdict: 'ask', steps: [], missing: answer.missing, collides: 0, gap: 0 };
    case 'refused':
      return { verdict: 'stop', why: 'probe-reach', steps: [], collides: answer.hits, gap: 0 };
    case 'do': {
      const probe: StackStep[] = answer.lower > 0 ? [{ do: 'probe', way: 'lower', by: answer.lower }] : [];
      const known = { verdict: 'do', collides: tidyLength(answer.hits) } as const;
      if (answer.zero !== null) {
        const zero = zeroBy(answer.zero);
        return { ...known, steps: homeBetween(probe, zero.steps), gap: zero.over };
      }
      // The old zero might lie in the surface: it goes out of the way first, and is set anew at the end.
      const away = zeroBy(answer.away).steps;
      return { ...known, steps: [...homeBetween(probe, away), { do: 'zero-anew' }], gap: 0 };
    }
  }
}

/** What opens the gap stands before homing, what closes it after: nothing that goes to zero in between is too near. */
function homeBetween(before: readonly StackStep[], zero: readonly StackStep[]): StackStep[] {
  const opens = zero.filter((step) => step.do === 'zero' && step.way === 'further');
  return [...before, ...opens, { do: 'home' }, ...zero.filter((step) => !opens.includes(step))];
}

/** The topmost metal and what lies over it, mm; null when no layer is metal. */
function topMetal(layers: readonly FitLayer[]): { layer: FitLayer; metal: Metal; over: number } | null {
  const at = layers.findLastIndex(({ metal }) => metal != null);
  return at < 0 ? null : { layer: layers[at]!, metal: layers[at]!.metal!, over: heightOf(layers.slice(at + 1)) };
}

const movesOf = ({ family, moves = null }: StackChangeInput): Moves | null => (family === 'resin' ? 'platform' : moves);

function wantedOf({ printed, replaces }: Extract<StackStep, { do: 'spacer' }>, change: number) {
  const ideal = tidyLength(replaces + change);
  return { ideal, leftover: tidyLength(printed - ideal) };
}

function takenBy({ up, down }: AdjusterRange, take: number, turns: number | null): AdjustersTake {
  const have = take > 0 ? up : down;
  return {
    take,
    have,
    enough: Math.abs(take) <= have,
    left: { up: tidyLength(up - take), down: tidyLength(down + take) },
    turns,
  };
}

function heightOf(layers: readonly FitLayer[]): number {
  for (const { name, thickness } of layers)
    if (!(thickness >= 0 && thickness < LONGEST))
      throw new RangeError(`stackChange needs thicknesses of 0 or more, ${name} has ${thickness}`);
  return tidyLength(layers.reduce((sum, { thickness }) => sum + thickness, 0));
}

/** What was asked is a number where it has to be one, and a word that is known. */
function guard({
  before,
  after,
  finding,
  adjusters,
  slack,
  spacerLayer,
  buildHeight,
  moves,
  home,
  family,
}: StackChangeInput) {
  const length = (name: string, value: number | null | undefined, least = 0) => {
    if (value != null && !(value >= least && value < LONGEST))
      throw new RangeError(`stackChange needs ${name} of ${least} mm or more, got ${value}`);
  };
  const above = (name: string, value: number | null | undefined) => {
    if (value != null && !(value > 0 && value < LONGEST))
      throw new RangeError(`stackChange needs ${name} above 0 mm, got ${value}`);
  };
  const word = (name: string, value: string | null | undefined, known: readonly string[]) => {
    if (value != null && !known.includes(value))
      throw new RangeError(`stackChange knows ${name} ${known.join(', ')}, got ${value}`);
  };
  length('a gap at home', slack);
  length('a build height', buildHeight);
  above('a spacer layer', spacerLayer);
  length('a range up', adjusters?.up);
  length('a range down', adjusters?.down);
  if (adjusters && (adjusters.up == null || adjusters.down == null))
    throw new RangeError('stackChange needs adjusters with what they can raise and lower');
  length('adjusters with a pitch', adjusters?.pitch, FINEST_PITCH);
  word('adjusters that clockwise', adjusters?.clockwise, ['raises', 'lowers']);
  word('what moves:', moves, ['head', 'bed', 'platform']);
  word('where home lies:', home, ['surface', 'away']);
  word('the families', family, ['filament', 'resin']);
  word('ways of finding Z:', finding.by, ['spacer', 'stop-screw', 'flag', 'fixed', 'contact-probe', 'inductive-probe']);
  for (const { metal } of [...before, ...after]) word('metals', metal, METALS);
  if (family !== 'resin' && moves === 'platform')
    throw new RangeError('stackChange knows a moving head or bed on a filament printer, got platform');
  switch (finding.by) {
    case 'spacer':
      return length('a spacer there today', finding.now);
    case 'stop-screw':
      if (finding.pitch == null) throw new RangeError('stackChange needs a stop screw with a pitch, got none');
      length('a stop screw with a pitch', finding.pitch, FINEST_PITCH);
      return word('a stop screw that clockwise trips', finding.clockwise, ['sooner', 'later']);
    case 'flag':
      word('parts', finding.part, ['flag', 'sensor']);
      return word('where a flag sits:', finding.rides, ['moving', 'frame']);
    case 'inductive-probe':
      length('a sensing distance', finding.range);
      return length('a probe face above the nozzle', finding.above);
  }
}

/** Layers that stay cancel out, so that nobody has to weigh the plate. */
function addedMass(before: readonly FitLayer[], after: readonly FitLayer[]): number | null {
  const gone = [...before];
  const come = after.filter((layer) => {
    const at = gone.findIndex(({ name, thickness }) => name === layer.name && thickness === layer.thickness);
    if (at >= 0) gone.splice(at, 1);
    return at < 0;
  });
  if ([...gone, ...come].some(({ mass }) => mass == null)) return null;
  const total = (layers: readonly FitLayer[]) => layers.reduce((sum, { mass }) => sum + mass!, 0);
  return tidyLength(total(come) - total(gone));
}

function weakest(layers: readonly FitLayer[]): StackChange['limit'] {
  let limit: StackChange['limit'] = null;
  for (const layer of layers)
    if (layer.limit != null && (limit === null || layer.limit < limit.temperature))
      limit = { temperature: layer.limit, layer: layer.name };
  return limit;
}
