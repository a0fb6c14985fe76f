import { describeTurn, roundTurn } from '../level/describeTurn';
import { inMillimetres, type LengthWords } from './lengthWords';
import { stackCautions, type StackCaution } from './stackCautions';
import { tidyLength } from './tidyLength';

/** One layer of a stack. Lengths in mm, mass in g, temperature in °C. */
export interface FitLayer {
  name: string;
  thickness: number;
  /** Taken with calipers, not from a label. Not said: taken as measured. */
  measured?: boolean;
  /** °C it stands for hours; null or left out when not known. */
  limit?: number | null;
  /** An inductive probe sees it. */
  metal?: boolean;
  /** g; null or left out when not known. */
  mass?: number | null;
}

/** How a machine finds Z, with what can be moved when the stack changes. */
export type ZFinding =
  /** A switch at the end of travel that a printed spacer can be put on. */
  | { by: 'spacer' }
  /** A stop screw; `clockwise` says what a clockwise turn, looking at its head, does to the trip point. */
  | { by: 'stop-screw'; pitch: number; clockwise: 'sooner' | 'later' }
  /** A flag or sensor that can be moved; it rides on what moves or sits on the frame. `homing`: the way it travels. */
  | { by: 'flag'; part: 'flag' | 'sensor'; rides: 'moving' | 'frame'; homing: 'down' | 'up' }
  /** A trip point that cannot be moved. */
  | { by: 'fixed' }
  /** A probe that touches the surface itself. */
  | { by: 'contact-probe' }
  /** A probe that senses metal. */
  | { by: 'inductive-probe' };

/** What the adjusters can still do, mm each way, and how they are turned. */
export interface AdjusterRange {
  up: number;
  down: number;
  pitch?: number;
  /** What a clockwise turn does to the surface. */
  clockwise?: 'raises' | 'lowers';
}

export interface StackChangeInput {
  /** Bottom first. */
  before: readonly FitLayer[];
  after: readonly FitLayer[];
  finding: ZFinding;
  family?: 'filament' | 'resin';
  adjusters?: AdjusterRange | null;
  /** Layer height that a spacer is printed at, mm. */
  spacerLayer?: number | null;
  /** Build height today, mm. */
  buildHeight?: number | null;
  /** Free gap between nozzle (or platform) and surface when home trips today, mm. Not known: none. */
  slack?: number | null;
  say?: LengthWords;
}

export interface Spacer {
  ideal: number;
  printed: number;
  layers: number;
  /** printed − ideal: + too thick, − too thin. */
  leftover: number;
}

export interface AdjustersTake {
  /** How far they must move the surface: + raises, − lowers. */
  take: number;
  /** What they have that way. */
  have: number;
  enough: boolean;
  left: { up: number; down: number };
  /** Turns, + clockwise; null when pitch or direction is not known. */
  turns: number | null;
}

export interface StackChange {
  before: number;
  after: number;
  /** after − before: + the surface comes nearer the nozzle or the screen. */
  change: number;
  /** none: nothing to move · do: do it before homing · stop: it would collide, or find no Z. */
  verdict: 'none' | 'do' | 'stop';
  sentence: string;
  spacer: Spacer | null;
  /** Turns of the stop screw, + clockwise. */
  screwTurns: number | null;
  adjusters: AdjustersTake | null;
  /** What the software zero must be raised by afterwards, mm; null when it stays. */
  zero: number | null;
  buildHeight: number | null;
  /** g; null when the mass of a changed layer is not known. */
  addedMass: number | null;
  limit: { temperature: number; layer: string } | null;
  cautions: StackCaution[];
}

/** A change smaller than this is left alone: the smallest jog of common machines. Common practice. */
const NOTHING = 0.01;

/**
 * What a change of stack asks of a machine before it homes: by how much and which way the trip point has to move.
 * The free gap at home (`slack`) counts only where nothing else moves: it is no place to hide a missing spacer in.
 * @throws RangeError thicknesses below 0, a pitch or layer that is not above 0
 * Source: arithmetic of the stack; the ways to answer it are common practice.
 * @example stackChange({ before: [], after: [{ name: 'glass', thickness: 3.175 }], finding: { by: 'spacer' },
 *   spacerLayer: 0.2 }).spacer // { ideal: 3.175, printed: 3.2, layers: 16, leftover: 0.025 }
 */
export function stackChange(input: StackChangeInput): StackChange {
  const say = input.say ?? inMillimetres;
  const { finding, family = 'filament' } = input;
  const before = heightOf(input.before);
  const after = heightOf(input.after);
  const change = tidyLength(after - before);
  const answer = answerTo(input, change, say);
  const adjusters = answer.take === 0 || !input.adjusters ? null : takenBy(input.adjusters, answer.take);
  const result: Omit<StackChange, 'cautions'> = {
    before,
    after,
    change,
    verdict: answer.verdict,
    sentence: answer.sentence,
    spacer: answer.spacer ?? null,
    screwTurns: answer.screwTurns ?? null,
    adjusters,
    zero: answer.zero ?? null,
    buildHeight: input.buildHeight == null ? null : tidyLength(input.buildHeight - change),
    addedMass: addedMass(input.before, input.after),
    limit: weakest(input.after),
  };
  return { ...result, cautions: stackCautions({ result, finding, family, layers: input.after, answer, say }) };
}

/** What follows for one way of finding Z. `take` is left to the adjusters: + raise the surface. */
export interface StackAnswer {
  verdict: StackChange['verdict'];
  sentence: string;
  take: number;
  spacer?: Spacer;
  screwTurns?: number;
  zero?: number;
  /** By how much home would drive into the surface if nothing were done. */
  collides: number;
}

function answerTo(input: StackChangeInput, change: number, say: LengthWords): StackAnswer {
  const { finding } = input;
  if (finding.by === 'inductive-probe') return throughTheTop(input, say);
  if (Math.abs(change) < NOTHING)
    return { verdict: 'none', sentence: 'The height stays: nothing has to move. Home again.', take: 0, collides: 0 };
  if (finding.by === 'contact-probe')
    return {
      verdict: 'none',
      sentence: 'Nothing has to move: home follows the surface. Check the nozzle-to-probe offset.',
      take: 0,
      collides: 0,
    };
  const collides = Math.max(0, change - (input.slack ?? 0));
  const sooner = change > 0;
  const much = say(Math.abs(change));
  switch (finding.by) {
    case 'spacer': {
      if (!sooner)
        return {
          verdict: 'do',
          sentence: `Take ${much} off the spacer, or lower the switch by as much: home now stops ${much} short of the surface.`,
          take: 0,
          collides,
        };
      const spacer = spacerFor(change, input.spacerLayer ?? null, input.adjusters ?? null);
      const sentence =
        spacer.layers > 0
          ? `Put a spacer of ${say(spacer.printed)} (${spacer.layers} layers) on the switch before homing.`
          : `Put a spacer of ${much} on the switch before homing.`;
      return { verdict: 'do', sentence, take: spacer.leftover, spacer, collides };
    }
    case 'stop-screw': {
      if (!(finding.pitch > 0))
        throw new RangeError(`stackChange needs a stop screw with a pitch above 0 mm, got ${finding.pitch}`);
      const turns = (change / finding.pitch) * (finding.clockwise === 'sooner' ? 1 : -1);
      const said = roundTurn(turns);
      // What rounding leaves: + the trip point moved too far up, so that the surface has to follow.
      const take = tidyLength((Math.abs(said) - Math.abs(turns)) * finding.pitch * Math.sign(change));
      const sentence =
        said === 0
          ? `Leave the stop screw: ${much} is less than can be turned by hand.`
          : `Turn the stop screw ${describeTurn(turns)} before homing, so that home trips ${much} ${sooner ? 'sooner' : 'later'}.`;
      return { verdict: 'do', sentence, take, screwTurns: turns, collides };
    }
    case 'flag': {
      const along = (finding.rides === 'moving') === sooner;
      const way = along === (finding.homing === 'down') ? 'lower' : 'higher';
      return {
        verdict: 'do',
        sentence: `Set the ${finding.part} ${much} ${way} before homing, so that it trips ${sooner ? 'sooner' : 'later'}.`,
        take: 0,
        collides,
      };
    }
    case 'fixed':
      return fixedTrip(input, change, collides, say);
  }
}

function fixedTrip(input: StackChangeInput, change: number, collides: number, say: LengthWords): StackAnswer {
  const { adjusters = null, slack } = input;
  if (change < 0) {
    const raise = Math.min(-change, adjusters?.up ?? 0);
    const rest = tidyLength(-change - raise);
    const parts = [
      raise > 0 ? `Raise the surface by ${say(raise)} with its adjusters` : '',
      rest >= NOTHING ? `${raise > 0 ? 'and set' : 'Set'} zero ${say(rest)} lower` : '',
    ].filter(Boolean);
    const sentence = `${parts.join(' ')}: home now stops ${say(-change)} short of it.`;
    return { verdict: 'do', sentence, take: raise, collides: 0, ...(rest >= NOTHING ? { zero: -rest } : {}) };
  }
  if (collides < NOTHING)
    return {
      verdict: 'do',
      sentence: `Set zero ${say(change)} higher before printing: home still stops ${say((slack ?? 0) - change)} above the new surface.`,
      take: 0,
      zero: change,
      collides: 0,
    };
  const rest = tidyLength(change - collides);
  if (adjusters && adjusters.down >= collides)
    return {
      verdict: 'do',
      sentence: `Lower the surface by ${say(collides)} with its adjusters before homing.`,
      take: -collides,
      collides,
      ...(rest >= NOTHING ? { zero: rest } : {}),
    };
  const short = adjusters
    ? `The adjusters can lower the surface by ${say(adjusters.down)} and ${say(collides)} are needed`
    : `The trip point can't move and the surface stands ${say(collides)} too high`;
  return {
    verdict: 'stop',
    sentence: `Don't home: ${lowerFirst(short)}. Find a way to trip sooner, or a thinner stack.`,
    take: adjusters ? -collides : 0,
    collides,
  };
}

/** An inductive probe trips over the topmost metal, whatever lies on it. */
function throughTheTop({ before, after, slack }: StackChangeInput, say: LengthWords): StackAnswer {
  const now = overMetal(after);
  if (now === null)
    return {
      verdict: 'stop',
      sentence: "Don't home: no layer of the new stack is metal, and the probe would find nothing.",
      take: 0,
      collides: heightOf(after),
    };
  const more = tidyLength(now - (overMetal(before) ?? 0));
  if (Math.abs(more) < NOTHING)
    return {
      verdict: 'none',
      sentence: 'Nothing has to move: home follows the metal, and as much lies on it as before. Check the offset.',
      take: 0,
      collides: 0,
    };
  if (more < 0)
    return {
      verdict: 'do',
      sentence: `Set the Z offset ${say(-more)} lower after homing: less lies on the metal that the probe sees.`,
      take: 0,
      zero: more,
      collides: 0,
    };
  if (slack != null && slack - more >= NOTHING)
    return {
      verdict: 'do',
      sentence: `Set the Z offset ${say(more)} higher before printing: when the probe trips, the nozzle still stands ${say(slack - more)} above the new top.`,
      take: 0,
      zero: more,
      collides: 0,
    };
  return {
    verdict: 'do',
    sentence: `Set the probe ${say(more)} lower in its holder before homing, so that it trips as far above the new top as before.`,
    take: 0,
    collides: tidyLength(more - (slack ?? 0)),
  };
}

/** mm of layers above the topmost metal one; null when none is metal. */
function overMetal(layers: readonly FitLayer[]): number | null {
  const at = layers.findLastIndex(({ metal }) => metal === true);
  return at < 0 ? null : heightOf(layers.slice(at + 1));
}

/** Whole layers, the nearest; one more where nothing could take what is missing, so that home stays safe. */
function spacerFor(ideal: number, layer: number | null, adjusters: AdjusterRange | null): Spacer {
  if (layer === null) return { ideal, printed: ideal, layers: 0, leftover: 0 };
  if (!(layer > 0)) throw new RangeError(`stackChange needs a spacer layer above 0 mm, got ${layer}`);
  const nearest = Math.round(ideal / layer);
  const short = tidyLength(ideal - nearest * layer);
  const layers = short > (adjusters?.down ?? 0) ? nearest + 1 : nearest;
  const printed = tidyLength(layers * layer);
  return { ideal, printed, layers, leftover: tidyLength(printed - ideal) };
}

function takenBy({ up, down, pitch, clockwise }: AdjusterRange, take: number): AdjustersTake {
  const have = take > 0 ? up : down;
  return {
    take,
    have,
    enough: Math.abs(take) <= have,
    left: { up: tidyLength(up - take), down: tidyLength(down + take) },
    turns: pitch && clockwise ? (take / pitch) * (clockwise === 'raises' ? 1 : -1) : null,
  };
}

function heightOf(layers: readonly FitLayer[]): number {
  for (const { name, thickness } of layers)
    if (!(thickness >= 0)) throw new RangeError(`stackChange needs thicknesses of 0 or more, ${name} has ${thickness}`);
  return tidyLength(layers.reduce((sum, { thickness }) => sum + thickness, 0));
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

const lowerFirst = (text: string) => text[0]!.toLowerCase() + text.slice(1);
