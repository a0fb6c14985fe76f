import { OFF_LABEL, SENSED } from './inductiveProbe';
import type { FitLayer, StackChangeInput } from './stackChange';
import type { StackStep } from './stackStep';

/**
 * A simulated machine along Z, in the space of the room (+ is up), and a person who does what is said to the letter.
 * Nothing of the sums is used: trips happen where a riding piece meets a piece on the frame, or where a probe senses.
 */
export interface StackMachine {
  input: StackChangeInput;
  /** True free gap when home trips today; told to the sum or not. */
  slack: number;
  /** True share of the probe's labelled range at which it senses a layer: its metal's, that piece's, and the label's own error. */
  senses: (layer: FitLayer) => number;
}

interface State {
  /** Height of the riding piece on what moves, of the piece on the frame, of the spacer, and of the screw's nose. */
  riding: number;
  frame: number;
  spacer: number;
  nose: number;
  /** What the adjusters moved the bed or platform by, + up. */
  adjusted: number;
  /** The probe's face above the nozzle tip. */
  face: number;
  /** From the trip to zero, in the place of what moves, + up. */
  toZero: number;
  /** Zero is set by paper at the end. */
  anew: boolean;
}

const sum = (layers: StackChangeInput['before']) => layers.reduce((total, { thickness }) => total + thickness, 0);
/** Where the head's tip, the screen or the frame is: any place. */
const FRAME = 40;
const FAR = 200;

export interface Outcome {
  /** The smallest gap on the way: at the trip, and at zero as it is set after every step from homing on. − is in the surface. */
  worst: number;
  /** Gap at zero. */
  atZero: number;
  tripped: boolean;
}

/** Sets up the machine as it is today, lets the person do the steps with the new stack on, and says what happens. */
export function follow({ input, slack, senses }: StackMachine, steps: readonly StackStep[]): Outcome {
  const moves = input.family === 'resin' ? 'platform' : input.moves!;
  /** Up opens the gap for a head and a platform; a bed opens it downward. */
  const opens = moves === 'bed' ? -1 : 1;
  const atSurface = input.finding.by.endsWith('probe') || input.home === 'surface';
  const travel = atSurface ? -opens : opens;
  const height = (layers: StackChangeInput['before']) => sum(layers);
  /** Gap for a place of what moves. */
  const gapAt = (place: number, layers: StackChangeInput['before'], adjusted: number) =>
    moves === 'head'
      ? place - (height(layers) + adjusted)
      : moves === 'bed'
        ? FRAME - (place + height(layers) + adjusted)
        : place - height(layers) + adjusted;
  const placeOfGap = (gap: number, layers: StackChangeInput['before'], adjusted: number) =>
    moves === 'head'
      ? gap + height(layers) + adjusted
      : moves === 'bed'
        ? FRAME - height(layers) - adjusted - gap
        : gap + height(layers) - adjusted;

  const { finding } = input;
  const state: State = {
    riding: 7,
    frame: 0,
    spacer: finding.by === 'spacer' ? (finding.now ?? 0) : 0,
    nose: 0,
    adjusted: 0,
    face: finding.by === 'inductive-probe' ? (finding.above ?? 2) : 0,
    toZero: 0,
    anew: false,
  };
  /** The place where home trips; null: never before FAR. */
  const trip = (layers: StackChangeInput['before']): number | null => {
    if (finding.by === 'contact-probe') return placeOfGap(slack, layers, state.adjusted);
    if (finding.by === 'inductive-probe') {
      const at = layers.findLastIndex(({ metal }) => metal != null);
      if (at < 0) return null;
      const reach = (finding.range ?? 4) * senses(layers[at]!);
      return placeOfGap(reach - sum(layers.slice(at + 1)) - state.face, layers, state.adjusted);
    }
    // The riding piece reaches the frame's piece; a spacer and a screw's nose stand out against the way of travel.
    return state.frame - state.riding - travel * (state.spacer + state.nose);
  };

  // Today: the frame's piece sits where home trips with the true gap, and zero where the gap is none.
  if (finding.by !== 'contact-probe' && finding.by !== 'inductive-probe') {
    const gap = atSurface ? slack : FAR;
    const there = placeOfGap(gap, input.before, 0);
    state.frame = there + state.riding + travel * (state.spacer + state.nose);
  }
  const tripToday = trip(input.before);
  state.toZero = tripToday === null ? 0 : placeOfGap(0, input.before, 0) - tripToday;

  const new_ = input.after;
  let worst = Infinity;
  let atZero = NaN;
  const home = () => {
    const there = trip(new_);
    if (there === null) return false;
    // Homing to the surface ends at the trip; homing away only opens the gap.
    worst = Math.min(worst, gapAt(there, new_, state.adjusted));
    return true;
  };
  let tripped = true;
  let homed = false;
  const goToZero = () => {
    const there = trip(new_);
    if (there !== null && !state.anew) worst = Math.min(worst, gapAt(there + state.toZero, new_, state.adjusted));
  };
  for (const step of steps) {
    switch (step.do) {
      case 'spacer':
        state.spacer = step.printed;
        break;
      case 'spacer-off':
        state.spacer = 0;
        break;
      case 'screw': {
        if (finding.by !== 'stop-screw') throw new Error('no stop screw here');
        state.nose += step.turns * finding.pitch * (finding.clockwise === 'sooner' ? 1 : -1);
        break;
      }
      case 'flag': {
        if (finding.by !== 'flag') throw new Error('no flag here');
        const up = step.way === 'higher' ? step.by : -step.by;
        if (finding.rides === 'moving') state.riding += up;
        else state.frame += up;
        break;
      }
      case 'adjust': {
        const { up, down, pitch, clockwise } = input.adjusters!;
        const by =
          step.turns === null
            ? step.way === 'raise'
              ? step.by
              : -step.by
            : step.turns * pitch! * (clockwise === 'raises' ? 1 : -1);
        if (by > up + 1e-9 || -by > down + 1e-9) throw new Error(`adjusters can't move ${by}`);
        state.adjusted += by;
        break;
      }
      case 'probe':
        state.face -= step.by;
        if (state.face < 0.5 - 1e-9) throw new Error('the probe hangs below what its face needs');
        break;
      case 'home':
        tripped = home();
        homed = true;
        break;
      case 'zero':
        state.toZero += (step.way === 'further' ? opens : -opens) * step.by;
        break;
      case 'zero-anew':
        state.anew = true;
        break;
    }
    // Somebody sends it to zero right now.
    if (homed) goToZero();
  }
  const there = trip(new_);
  if (there === null) tripped = false;
  else {
    atZero = state.anew ? 0 : gapAt(there + state.toZero, new_, state.adjusted);
    worst = Math.min(worst, atZero);
  }
  return { worst, atZero, tripped };
}

/** A machine's probe and its pieces of metal: each senses as some piece of its kind does, under a label that is off by up to a fifth. */
export function sensesOf(random: () => number, label = true): StackMachine['senses'] {
  const off = label ? OFF_LABEL[0] + random() * (OFF_LABEL[1] - OFF_LABEL[0]) : 1;
  const pieces = new Map<string, number>();
  return ({ name, thickness, metal }) => {
    if (!metal) throw new Error(`${name} is no metal`);
    const key = `${name} ${thickness} ${metal}`;
    const [least, most] = SENSED[metal];
    if (!pieces.has(key)) pieces.set(key, least + random() * (most - least));
    return off * pieces.get(key)!;
  };
}
