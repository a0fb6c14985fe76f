import type { LapRound } from '../level/lapProgress';
import type { LapSchool } from '../level/shapeRecord';
import { resolved } from './checkProcedure';
import { lapRoundsOf } from './lapRounds';
import {
  DONE,
  STOPPED,
  type Duration,
  type Procedure,
  type ProcedurePhase,
  type ProcedureReading,
  type ProcedureStep,
  type StepEffect,
  type Target,
} from './procedure';

/** What happens in a run. Times are epoch ms. */
export type RunEvent = { at: number } & (
  | {
      kind: 'done';
      stepId: string;
      readings: Record<string, number>;
      /** Numbers of the gate's checks that were ticked. */
      checks: number[];
      answer: string | null;
    }
  | { kind: 'cant'; stepId: string; way: number; note: string }
  | { kind: 'undone'; stepId: string }
  | { kind: 'noted'; stepId: string; note: string }
  | { kind: 'handed-over'; stepId: string; toId: string; toName: string; note: string }
  | { kind: 'stopped'; stepId: string; why: string }
);

/** What was taken when the run began. */
export interface RunSetup {
  procedure: Procedure;
  /** Option by choice. */
  choices: Record<string, string>;
  startedAt: number;
}

export interface RunState {
  /** The step in hand; null when it has ended. */
  at: string | null;
  enteredAt: number;
  ended: 'done' | 'stopped' | null;
  /** By "step.reading", the latest. */
  readings: Record<string, number>;
  answers: Record<string, string>;
  /** Steps that were left, in order. */
  trail: { stepId: string; enteredAt: number; leftAt: number; how: 'done' | 'cant' | 'branch' | 'late' }[];
  notes: { stepId: string; at: number; note: string }[];
  /** Who has it in hand after it was handed over; null: who began it. */
  holderId: string | null;
  /** As it was before the last step was left; for undoing it. */
  before: RunState | null;
}

/** An event that can't be, with words for the person and the faults of single fields. */
export class RunRefusal extends Error {
  override readonly name = 'RunRefusal';
  constructor(
    readonly code: 'ended' | 'elsewhere' | 'too-early' | 'gate' | 'missing' | 'nothing-to-undo' | 'no-reason',
    message: string,
    readonly fields: Record<string, string> = {},
  ) {
    super(message);
  }
}

/** A run as it begins. */
export function beginRun({ procedure, choices, startedAt }: RunSetup): RunState {
  return {
    at: resolved(procedure, procedure.steps[0]!.id, { choices, answers: {} }),
    enteredAt: startedAt,
    ended: null,
    readings: {},
    answers: {},
    trail: [],
    notes: [],
    holderId: null,
    before: null,
  };
}

/** Replays a run. @throws RunRefusal an event that can't follow */
export function replayRun(setup: RunSetup, events: Iterable<RunEvent>): RunState {
  let state = beginRun(setup);
  for (const event of events) state = applyRunEvent(setup, state, event);
  return state;
}

/** The step in hand. @throws Error when the run has ended */
export function stepOf({ procedure }: RunSetup, { at }: RunState): ProcedureStep {
  const step = procedure.steps.find(({ id }) => id === at);
  if (!step) throw new Error('stepOf needs a run that has not ended');
  return step;
}

/**
 * The run after one more event. The one place that says what can follow what: client and server ask the same.
 * @throws RunRefusal
 */
export function applyRunEvent(setup: RunSetup, state: RunState, event: RunEvent): RunState {
  if (event.kind === 'undone') return undo(state, event.stepId);
  if (state.at === null) throw new RunRefusal('ended', 'This job has ended.');
  if (event.stepId !== state.at)
    throw new RunRefusal('elsewhere', 'This job stands at another step by now. Look again.');
  switch (event.kind) {
    case 'done':
      return finishStep(setup, state, event);
    case 'cant': {
      const way = stepOf(setup, state).cant[event.way];
      if (!way) throw new RunRefusal('missing', 'Say what is in the way.');
      const noted = withNote(state, event.at, `${way.label}${event.note.trim() ? `: ${event.note.trim()}` : ''}`);
      return leave(setup, noted, way.to, event.at, 'cant');
    }
    case 'noted':
      if (event.note.trim() === '') throw new RunRefusal('no-reason', 'There is nothing in this note.');
      return withNote(state, event.at, event.note.trim());
    case 'handed-over':
      return {
        ...withNote(
          state,
          event.at,
          `Handed over to ${event.toName}${event.note.trim() ? `: ${event.note.trim()}` : ''}`,
        ),
        holderId: event.toId,
      };
    case 'stopped':
      if (event.why.trim() === '') throw new RunRefusal('no-reason', 'Say why it ends here.');
      return leave(setup, withNote(state, event.at, event.why.trim()), STOPPED, event.at, 'cant');
  }
}

const withNote = (state: RunState, at: number, note: string): RunState => ({
  ...state,
  notes: [...state.notes, { stepId: state.at!, at, note }],
});

function undo(state: RunState, stepId: string): RunState {
  if (state.before === null) throw new RunRefusal('nothing-to-undo', 'There is no step before this one.');
  if (state.at !== null && stepId !== state.at)
    throw new RunRefusal('elsewhere', 'This job stands at another step by now. Look again.');
  return { ...state.before, notes: state.notes, holderId: state.holderId };
}

/** What the hands do, with what the option of a choice adds. */
export function doingOf({ doing, byChoice }: ProcedureStep, choices: Readonly<Record<string, string>>): string {
  const added = byChoice?.says[choices[byChoice.choice] ?? ''];
  return added === undefined ? doing : `${doing} ${added}`;
}

/** Seconds of a duration under the options taken. */
export const secondsOf = (
  { seconds = 0, hoursOf }: Duration,
  { procedure, choices }: Pick<RunSetup, 'procedure' | 'choices'>,
): number => seconds + (hoursOf === undefined ? 0 : hoursIn(procedure, choices, hoursOf) * 3600);

function hoursIn(procedure: Procedure, choices: Record<string, string>, choiceId: string): number {
  const choice = procedure.choices.find(({ id }) => id === choiceId);
  return choice?.options.find(({ id }) => id === choices[choiceId])?.hours ?? 0;
}

/** When the timer of the step in hand lets go, and when it runs out; null without one. */
export function timerOf(
  setup: RunSetup,
  state: RunState,
): { name: string; from: number; until: number | null; late: number | null } | null {
  if (state.at === null) return null;
  const { timer } = stepOf(setup, state);
  if (!timer) return null;
  return {
    name: timer.name,
    from: state.enteredAt,
    until: timer.least ? state.enteredAt + 1000 * secondsOf(timer.least, setup) : null,
    late: timer.most ? state.enteredAt + 1000 * secondsOf(timer.most, setup) : null,
  };
}

type DoneEvent = Extract<RunEvent, { kind: 'done' }>;

function finishStep(setup: RunSetup, state: RunState, event: DoneEvent): RunState {
  const step = stepOf(setup, state);
  const timer = timerOf(setup, state);
  if (timer?.until != null && event.at < timer.until)
    throw new RunRefusal('too-early', `${timer.name}: not before its time is up.`);
  if (timer?.late != null && event.at > timer.late) return leave(setup, state, step.timer!.late!, event.at, 'late');
  const read = readingsIn(step, event.readings);
  refuse('missing', '', missingIn(step, read));
  const known: RunState = {
    ...state,
    readings: {
      ...state.readings,
      ...Object.fromEntries(Object.entries(read).map(([id, value]) => [`${step.id}.${id}`, value])),
    },
  };
  const branch = branchOf(step, read);
  // A branch is no way through a gate: it leads round to where things are put right.
  if (branch) return leave(setup, known, branch.to, event.at, 'branch', state);
  refuse('gate', 'Not yet: ', gateFaults(step, read, event.checks));
  if (!step.ask) return leave(setup, known, step.next, event.at, 'done', state);
  const answer = step.ask.answers.find(({ id }) => id === event.answer);
  if (!answer) throw new RunRefusal('missing', step.ask.question, { answer: step.ask.question });
  const answered = { ...known, answers: { ...known.answers, [step.id]: answer.id } };
  return leave(setup, answered, answer.to, event.at, 'done', state);
}

/** The readings of a step among those given: those that it asks for, as they lie. */
export function readingsIn(step: ProcedureStep, given: Readonly<Record<string, number>>): Record<string, number> {
  return Object.fromEntries(
    (step.readings ?? []).flatMap((reading) => {
      const value = given[reading.id];
      return value === undefined || !isAsked(reading, given) || (reading.optional && Number.isNaN(value))
        ? []
        : [[reading.id, value]];
    }),
  );
}

/** Whether a reading is asked for at all: some only where another one shows something. */
export const isAsked = ({ where }: ProcedureReading, given: Readonly<Record<string, number>>): boolean =>
  where === undefined || (given[where.reading] ?? -Infinity) > where.over;

/** What is missing or can't be among the readings of a step, in words by field. */
export function missingIn(step: ProcedureStep, read: Readonly<Record<string, number>>): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const reading of step.readings ?? []) {
    const { id, label, unit, min, max, optional, options } = reading;
    const value = read[id];
    if (value === undefined ? optional || !isAsked(reading, read) : false) continue;
    if (value === undefined || !Number.isFinite(value)) fields[`readings.${id}`] = `${label} is missing.`;
    else if (options && !options.some((option) => option.value === value))
      fields[`readings.${id}`] = `${label}: choose one of those shown.`;
    else if (value < min || value > max)
      fields[`readings.${id}`] = `${label} must lie between ${min} and ${max} ${unit}`.trim() + '.';
  }
  return fields;
}

/** The branch that readings lead into, or undefined: none. */
export const branchOf = ({ branches }: ProcedureStep, read: Readonly<Record<string, number>>) =>
  branches?.find(({ reading, of, over, under }) => {
    const value = of === undefined ? read[reading]! : read[reading]! / read[of]!;
    return (over !== undefined && value > over) || (under !== undefined && value < under);
  });

/** What stands in the gate: readings that are not good enough, checks that are not ticked, in words by field. */
export function gateFaults(
  step: ProcedureStep,
  read: Readonly<Record<string, number>>,
  ticked: readonly number[],
): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const { id, label, unit, least, most } of step.readings ?? []) {
    const value = read[id];
    if (value === undefined) continue;
    if (least !== undefined && value < least)
      fields[`readings.${id}`] = `${label}: at least ${least} ${unit} are needed to go on.`;
    if (most !== undefined && value > most)
      fields[`readings.${id}`] = `${label}: at most ${most} ${unit} are good enough to go on.`;
  }
  step.gate?.checks.forEach((check, i) => {
    if (!ticked.includes(i)) fields[`checks.${i}`] = check;
  });
  return fields;
}

/** @throws RunRefusal where there is any fault */
function refuse(code: RunRefusal['code'], before: string, fields: Record<string, string>): void {
  const [first] = Object.values(fields);
  if (first !== undefined) throw new RunRefusal(code, `${before}${first}`, fields);
}

function leave(
  setup: RunSetup,
  state: RunState,
  to: Target,
  at: number,
  how: RunState['trail'][number]['how'],
  before: RunState = state,
): RunState {
  const target = resolved(setup.procedure, to, { choices: setup.choices, answers: state.answers });
  const ended = target === DONE ? 'done' : target === STOPPED ? 'stopped' : null;
  return {
    ...state,
    at: ended ? null : target,
    enteredAt: at,
    ended,
    trail: [...state.trail, { stepId: state.at!, enteredAt: state.enteredAt, leftAt: at, how }],
    before,
  };
}

/** What follows for the records from an event that was taken: hours and codes filled in. */
export type ResolvedEffect =
  | Exclude<
      StepEffect,
      { kind: 'hold' | 'inspect' | 'thickness' | 'level' | 'key' | 'offset' | 'lapped' | 'surveyed' | 'retire' }
    >
  | { kind: 'retire'; part: string; why: string }
  | { kind: 'lapped'; part: string; rounds: LapRound[]; school: LapSchool }
  /** Readings of the lines, raw: the plate is the machine's. */
  | { kind: 'surveyed'; part: string; lines: string[]; readings: Record<string, number> }
  | { kind: 'key'; key: number }
  /** mm, as the machine shows it. */
  | { kind: 'offset'; offset: number }
  /** Readings raw, by the name that the effect gives them. */
  | { kind: 'level'; way: string; drag: string; readings: Record<string, number> }
  | { kind: 'thickness'; part: string; thickness: number }
  | { kind: 'hold'; part: string; hold: Extract<StepEffect, { kind: 'hold' }>['hold']; hours: number; reason: string }
  | { kind: 'inspect'; part: string; card: string; code: string; numbers: Record<string, number> };

/** Why something goes, in words: as told, or as a question was answered. */
function whyOf({ steps }: Procedure, { answers }: RunState, why: string | { answerTo: string }): string {
  if (typeof why === 'string') return why;
  const asked = steps.find(({ id }) => id === why.answerTo)?.ask?.answers ?? [];
  return asked.find(({ id }) => id === answers[why.answerTo])?.label.toLowerCase() ?? 'at its end';
}

/** The effects of leaving a step. @param after the state that `applyRunEvent` gave */
export function effectsOf(setup: RunSetup, event: RunEvent, after: RunState): ResolvedEffect[] {
  if (event.kind !== 'done' && event.kind !== 'cant') return [];
  const answer = event.kind === 'done' ? event.answer : null;
  const step = setup.procedure.steps.find(({ id }) => id === event.stepId);
  const how = after.trail.at(-1)?.how;
  if (!step || how === 'late') return [];
  return (step.effects ?? []).flatMap((effect): ResolvedEffect[] => {
    if (how !== 'done' && effect.on !== 'always') return [];
    if (effect.answers && !effect.answers.includes(answer ?? '')) return [];
    if (effect.kind === 'hold') {
      const hours =
        typeof effect.hours === 'number' ? effect.hours : hoursIn(setup.procedure, setup.choices, effect.hours.hoursOf);
      return hours > 0 ? [{ kind: 'hold', part: effect.part, hold: effect.hold, hours, reason: effect.reason }] : [];
    }
    if (effect.kind === 'retire')
      return [{ kind: 'retire', part: effect.part, why: whyOf(setup.procedure, after, effect.why) }];
    if (effect.kind === 'inspect') {
      const seen = effect.by === undefined ? (answer ?? '') : String(after.readings[`${step.id}.${effect.by}`]);
      const code = effect.codes[seen] ?? effect.codes['*'];
      if (code === undefined) return [];
      const numbers = Object.fromEntries(
        Object.entries(effect.numbers).flatMap(([name, reading]) => {
          // The line of a picture that the step means.
          const value = reading === '#mark' ? step.mark : after.readings[`${step.id}.${reading}`];
          return value === undefined ? [] : [[name, value]];
        }),
      );
      return [{ kind: 'inspect', part: effect.part, card: effect.card, code, numbers }];
    }
    if (effect.kind === 'key') {
      const key = after.readings[`${step.id}.${effect.reading}`];
      return key === undefined ? [] : [{ kind: 'key', key }];
    }
    if (effect.kind === 'offset') {
      const offset = after.readings[`${step.id}.${effect.reading}`];
      return offset === undefined ? [] : [{ kind: 'offset', offset }];
    }
    if (effect.kind === 'level') {
      const readings = Object.fromEntries(
        Object.entries(effect.takes).flatMap(([name, reading]) => {
          const value = after.readings[reading];
          return value === undefined ? [] : [[name, value]];
        }),
      );
      const [way, drag] = [effect.way, effect.drag].map(({ choice }) => setup.choices[choice] ?? '');
      return [{ kind: 'level', way: way!, drag: drag!, readings }];
    }
    if (effect.kind === 'lapped') {
      const rounds = lapRoundsOf(after, effect.step);
      const school = setup.choices[effect.how.choice] === 'wet' ? 'wet' : 'dry';
      return rounds.length === 0 ? [] : [{ kind: 'lapped', part: effect.part, rounds, school }];
    }
    if (effect.kind === 'surveyed')
      return [{ kind: 'surveyed', part: effect.part, lines: Object.keys(effect.takes), readings: after.readings }];
    if (effect.kind === 'thickness') {
      const thickness = after.readings[`${step.id}.${effect.reading}`] ?? after.readings[effect.reading];
      return thickness === undefined ? [] : [{ kind: 'thickness', part: effect.part, thickness }];
    }
    return [effect];
  });
}

/** Steps of the straight way from a step to the end: no branch, the first answer of each question. */
export function straightWay(
  { procedure, choices }: Pick<RunSetup, 'procedure' | 'choices'>,
  from?: string,
  given: Readonly<Record<string, string>> = {},
): ProcedureStep[] {
  const way: ProcedureStep[] = [];
  const answers: Record<string, string> = { ...given };
  let at = resolved(procedure, from ?? procedure.steps[0]!.id, { choices, answers });
  while (way.length <= procedure.steps.length) {
    const step = procedure.steps.find(({ id }) => id === at);
    if (!step || way.includes(step)) break;
    way.push(step);
    const answer = step.ask?.answers.find(({ id }) => id === answers[step.id]) ?? step.ask?.answers[0];
    if (answer) answers[step.id] = answer.id;
    at = resolved(procedure, answer?.to ?? step.next, { choices, answers });
  }
  return way;
}

/** When a run would be done that goes straight: hands' work and every wait, from `now`. */
export function readyAt(setup: Pick<RunSetup, 'procedure' | 'choices'>, now: number, from?: string): number {
  const whole = straightWay(setup).length;
  const way = straightWay(setup, from);
  const waits = way.reduce((sum, { timer }) => sum + (timer?.least ? secondsOf(timer.least, setup) : 0), 0);
  const hands = whole === 0 ? 0 : (setup.procedure.minutes * 60 * way.length) / whole;
  return now + 1000 * (waits + hands);
}

/** Phases gone through and phases in all, for "phase 3 of 6"; steps where a document has no phases. */
export function progressOf(setup: RunSetup, state: RunState): { at: number; of: number } {
  const { phases } = setup.procedure;
  if (!phases) {
    const way = straightWay(setup);
    const index = way.findIndex(({ id }) => id === state.at);
    return { at: state.at === null ? way.length : index >= 0 ? index + 1 : 0, of: way.length };
  }
  const worked = phasesOf(setup, state);
  const own = setup.procedure.steps.find(({ id }) => id === state.at)?.phase;
  return {
    at: state.at === null ? worked.length : worked.findIndex(({ id }) => id === own) + 1,
    of: worked.length,
  };
}

/** The phases that a run goes through under its choices: those of the straight way, and the one it stands in. */
export function phasesOf(setup: RunSetup, state: Pick<RunState, 'at' | 'answers'>): ProcedurePhase[] {
  const { procedure } = setup;
  const worked = new Set(straightWay(setup, undefined, state.answers).map(({ phase }) => phase));
  worked.add(procedure.steps.find(({ id }) => id === state.at)?.phase);
  return (procedure.phases ?? []).filter(({ id }) => worked.has(id));
}
