import { CORNERS, readTugs, TUG_EDGES, tugAnswer, tugsFrom, type Corner } from '../level/tugs';
import type { ResinWay } from '../level/gapBudget';
import { levelResin } from './procedures/levelResin';
import { doneWell } from './workWell.fixture';
import { applyRunEvent, beginRun, stepOf, type RunEvent, type RunSetup, type RunState } from './runProcedure';

/** A resin machine as it is, which nobody at it knows. mm; heights over the screen. */
export interface TrueResin {
  /** Thickness of a sheet and of the film, and what they give under a hand. */
  sheet: number;
  film: number;
  sheetGives: number;
  filmGives: number;
  /** Arm's height at which home trips, for a platform that hangs unrisen with its face at the arm's height. */
  trip: number;
  /** How far the loosened platform can rise in its screws. */
  give: number;
  /** Tilt that firm screws pull in at a corner, for a platform tightened crosswise; `sticky`: a corner that is pulled up more. */
  pull: number;
  sticky: { corner: Corner; by: number; rounds: number } | null;
  /** Middle over corners of the platform's face: + hollow. */
  bow: number;
}

export interface ResinEnd {
  ended: 'done' | 'stopped' | 'never';
  way: ResinWay;
  /** First gap at the corners and in the middle, for a first layer, mm; null where it was stopped. */
  gaps: number[] | null;
  /** How far it was driven beyond what its screws give: a crash; 0: never. */
  beyond: number;
  /** Corners that were named as differing, in their rounds. */
  named: Corner[];
  steps: number;
  /** Whether zero was set after the last screw was tightened. */
  zeroLast: boolean;
}

type DoneEvent = Extract<RunEvent, { kind: 'done' }>;

/** A first layer, mm. */
export const FIRST_LAYER = 0.05;
/** What arm and film give where a tight platform is pressed a hair. Common practice for a light arm. */
const ARM_GIVES = 0.06;

/** Follows the job to the letter, with nothing but what hands and eyes find out. @param random 0 to 1, seeded */
export function followLevelResin(
  truth: TrueResin,
  way: ResinWay,
  random: () => number,
  drag: 'firm' | 'still' = 'firm',
): ResinEnd {
  const setup: RunSetup = {
    procedure: levelResin,
    choices: { gauge: way, drag, raise: 'none' },
    startedAt: 0,
  };
  const onSheets = way === 'quarters' || way === 'sheet';
  const under = onSheets ? truth.sheet : truth.film;
  const gives = onSheets ? truth.sheetGives : truth.filmGives;
  let trip = truth.trip;
  let arm = 20;
  let give = 0;
  let beyond = 0;
  let stickyRounds = truth.sticky?.rounds ?? 0;
  let corners: number[] = [0, 0, 0, 0];
  let tight = false;
  let zero: number | null = null;
  let zeroLast = false;
  let tightArm = 0;
  const named: Corner[] = [];
  const noise = (sd: number) => sd * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  /** Lowers the arm; a platform that lies on rises in its screws, and what goes beyond is a crash. */
  const lowerTo = (height: number) => {
    arm = height;
    const rise = tight ? under - gives - (tightFace() - tightArm + arm) : under - arm;
    const free = tight ? ARM_GIVES : give;
    beyond = Math.max(beyond, rise - free);
  };
  const tightFace = () => Math.min(...corners);
  const tug = (corner: number): number => {
    const off = corners[corner]! - under + gives + noise(0.004);
    // Pressed paper holds a hair tighter than it lies.
    const felt = off - 0.002;
    const level = TUG_EDGES.findIndex((edge) => felt > edge);
    return level < 0 ? 3 : level;
  };

  let state: RunState = beginRun(setup);
  let at = 0;
  const happened: string[] = [];
  const act = (): RunEvent => {
    const step = stepOf(setup, state);
    const done = (answer: string | null = null, readings: Record<string, number> = {}): DoneEvent => {
      const good = doneWell(setup, state, answer);
      return { ...good, at, readings: { ...good.readings, ...readings } };
    };
    const cant = (label: string): RunEvent => {
      const index = step.cant.findIndex((one) => one.label.startsWith(label));
      if (index < 0) throw new Error(`There is no “${label}” at ${step.id}`);
      return { kind: 'cant', stepId: step.id, at, way: index, note: '' };
    };
    switch (step.id) {
      case 'loosen':
        tight = false;
        arm = 20;
        give = happened.includes('stiff') ? truth.give * 1.5 : truth.give;
        return give >= 1.5 ? done() : cant('It does not rise');
      case 'stiff':
        return happened.filter((id) => id === 'stiff').length > 1 ? cant('It still') : done();
      case 'lower': {
        // A tenth at a time; from the first touch on, ten more at most.
        let touched = 0;
        for (let height = 10; height > -20; height -= 0.1) {
          lowerTo(height);
          if (height < under) touched++;
          if (height <= trip) return done(touched > 0 ? 'touching' : 'above');
          if (touched >= 10) return done('late');
        }
        return done('late');
      }
      case 'high':
        // It hangs unrisen: nothing lets it come lower than its arm.
        return done(arm - under < 0.02 ? 'reaches' : 'not');
      case 'move-lower':
        trip -= Math.max(0, arm - under + noise(0.05)) + 0.3;
        zero = null;
        return done();
      case 'late':
        trip = arm + 0.5;
        zero = null;
        return done();
      case 'dummy':
        // The machine homes by itself here, the platform still loose, and stands one layer up.
        lowerTo(trip);
        lowerTo(trip + FIRST_LAYER);
        return done();
      case 'press': {
        zeroLast = false;
        const reached = arm <= under;
        corners = CORNERS.map((corner) => {
          const lies = reached ? under - gives : arm;
          const stuck = truth.sticky?.corner === corner && stickyRounds > 0 ? truth.sticky.by : 0;
          return lies + Math.abs(noise(truth.pull)) + stuck;
        });
        stickyRounds--;
        tight = true;
        tightArm = arm;
        return done();
      }
      case 'tug':
        return done(null, Object.fromEntries(CORNERS.map((corner, i) => [corner, tug(i)])));
      case 'tug-one':
        return done(null, { all: tug(Math.floor(random() * 4)) });
      case 'edges': {
        // Light shows through a gap that is wide enough.
        const open = corners.filter((corner) => corner - under + gives > 0.02).length;
        return done(open === 0 ? 'even' : open === 4 ? 'above' : 'uneven');
      }
      case 'uneven':
        return named.length >= 3 && named.slice(-3).every((corner) => corner === named.at(-1))
          ? cant('The same corner')
          : loosened(done());
      case 'not-down':
        return arm > under ? cant('It does not reach') : loosened(done());
      case 'pressed':
        return loosened(done());
      case 'hollow':
        return happened.filter((id) => id === 'hollow').length > 1 ? cant('It is not flat') : done();
      case 'zero':
        zero = arm;
        zeroLast = true;
        return done();
      case 'zero-lock':
        lowerTo(trip);
        zero = trip + FIRST_LAYER;
        zeroLast = true;
        return done();
      case 'up':
        arm = 50;
        return done();
      case 'asked':
        return done(zeroLast ? 'set' : 'not');
      case 'zero-now':
        lowerTo(way === 'lock' ? trip + FIRST_LAYER : trip);
        zero = arm;
        zeroLast = true;
        return done();
      default:
        return done();
    }
  };
  const loosened = (event: DoneEvent): DoneEvent => {
    tight = false;
    return event;
  };

  for (; state.at !== null && happened.length < 200; at += 60_000) {
    const step = stepOf(setup, state);
    happened.push(step.id);
    let event = act();
    if (step.id === 'tug' && event.kind === 'done') {
      const answer = answerOf(event.readings, drag);
      event = { ...event, answer: answer.answer };
      if (answer.corner) named.push(answer.corner);
    }
    if (step.id === 'tug-one' && event.kind === 'done') event = { ...event, answer: answerOne(event.readings, drag) };
    state = applyRunEvent(setup, state, event);
  }
  const done = state.ended === 'done';
  return {
    ended: state.ended ?? 'never',
    way,
    gaps: done ? gapsAt(corners, truth, zero!, tightArm) : null,
    beyond,
    named,
    steps: happened.length,
    zeroLast,
  };
}

/** Platform to film when a first layer is printed: its tight face goes with the arm. */
function gapsAt(corners: readonly number[], truth: TrueResin, zero: number, tightArm: number): number[] {
  const shift = zero + FIRST_LAYER - tightArm;
  const mean = corners.reduce((sum, corner) => sum + corner, 0) / corners.length;
  return [...corners, mean + truth.bow].map((face) => face + shift - truth.film);
}

function answerOf(readings: Record<string, number>, drag: 'firm' | 'still'): { answer: string; corner: Corner | null } {
  const values = CORNERS.map((corner) => readings[corner]!);
  const read = readTugs(tugsFrom(values), drag);
  return { answer: tugAnswer(values, drag)!, corner: read.verdict === 'corner' ? read.at[0]! : null };
}
function answerOne(readings: Record<string, number>, drag: 'firm' | 'still'): string {
  return tugAnswer([readings.all], drag)!;
}
