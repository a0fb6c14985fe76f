import type { ProcedurePhase, ProcedureStep } from './procedure';
import { resolved } from './checkProcedure';
import {
  applyRunEvent,
  branchOf,
  gateFaults,
  missingIn,
  readingsIn,
  RunRefusal,
  stepOf,
  type RunEvent,
  type RunSetup,
  type RunState,
} from './runProcedure';

/** How a person works a job: one doing after the other with its reason, or a phase of the hands at a time. */
export const RUN_MANNERS = ['step-by-step', 'practised'] as const;
export type RunManner = (typeof RUN_MANNERS)[number];

/** What is in hand at once: the steps of one phase that follow each other without a question, a wait or another way. */
export interface RunCard {
  phase: ProcedurePhase | null;
  /** In the order in which hands do them; at least one. */
  steps: ProcedureStep[];
  /** Hands are full until all of it is done. */
  bound: boolean;
}

/** Answer by step, where a sum or the records give it: then nobody is asked. */
export type KnownAnswers = Readonly<Record<string, string>>;

/**
 * The card in hand. Step by step it is one step, practised the whole phase; while hands are full it is all that they do,
 * in either manner. It ends with a question, and a wait is a card of its own, since its time counts from its beginning.
 * @throws Error when the run has ended
 */
export function cardOf(setup: RunSetup, state: RunState, manner: RunManner, known: KnownAnswers = {}): RunCard {
  const { procedure, choices } = setup;
  const first = stepOf(setup, state);
  const steps = [first];
  const answers = { ...state.answers };
  for (;;) {
    const last = steps.at(-1)!;
    if (last.timer) break;
    const answer = last.ask && knownAnswer(last, known);
    if (last.ask && !answer) break;
    if (answer) answers[last.id] = answer.id;
    const at = resolved(procedure, answer?.to ?? last.next, { choices, answers });
    const next = procedure.steps.find(({ id }) => id === at);
    if (!next || next.timer || next.phase === undefined || next.phase !== first.phase || steps.includes(next)) break;
    if (Boolean(next.bound) !== Boolean(last.bound)) break;
    if (manner === 'step-by-step' && !next.bound) break;
    steps.push(next);
  }
  return {
    phase: procedure.phases?.find(({ id }) => id === first.phase) ?? null,
    steps,
    bound: first.bound === true,
  };
}

const knownAnswer = ({ id, ask }: ProcedureStep, known: KnownAnswers) =>
  ask?.answers.find((answer) => answer.id === known[id]);

/** The question that a card ends with, if nobody knows its answer. */
export function askOf({ steps }: RunCard, known: KnownAnswers = {}): ProcedureStep['ask'] {
  const last = steps.at(-1)!;
  return knownAnswer(last, known) ? undefined : last.ask;
}

/** Something on it has to be seen, typed or answered by the person: no knock and no stray tap takes it on. */
export function needsEyes(card: RunCard, known: KnownAnswers = {}): boolean {
  return (
    card.steps.some(
      ({ gate, readings }) => gate !== undefined || (readings ?? []).some(({ optional }) => optional !== true),
    ) ||
    (askOf(card, known)?.answers.some(({ proves }) => proves) ?? false) ||
    (!card.bound && askOf(card, known) !== undefined)
  );
}

/** What is typed and ticked on a card, by step. */
export interface CardFill {
  readings: Readonly<Record<string, Readonly<Record<string, number>>>>;
  checks: Readonly<Record<string, readonly number[]>>;
  /** To the question at its end. */
  answer: string | null;
  known?: KnownAnswers;
}

/** A way off a card that is not the straight one: another answer, or that something can't be done. */
export type CardExit =
  | { kind: 'answer'; stepId: string; answer: string; label: string }
  | { kind: 'cant'; stepId: string; way: number; label: string };

/** Every way off a card beside the first answer, in the order of its steps; the same words are said once. */
export function exitsOf(card: RunCard, known: KnownAnswers = {}): CardExit[] {
  const exits = card.steps.flatMap((step): CardExit[] => [
    ...(step === card.steps.at(-1)
      ? (askOf(card, known)?.answers.slice(1) ?? []).map(({ id, label }): CardExit => ({
          kind: 'answer',
          stepId: step.id,
          answer: id,
          label,
        }))
      : []),
    ...step.cant.map(({ label }, way): CardExit => ({ kind: 'cant', stepId: step.id, way, label })),
  ]);
  const said = new Set<string>();
  return exits.filter(({ label }) => !said.has(label.toLowerCase()) && said.add(label.toLowerCase()));
}

/**
 * The events that do a card as it is filled in, in order; one batch, so that it is taken whole or not at all. Where a
 * reading leads elsewhere, the batch ends there: what follows was not done.
 * @throws RunRefusal with every fault on the card, each by "step.field"
 */
export function cardEvents(setup: RunSetup, state: RunState, card: RunCard, fill: CardFill, at: number): RunEvent[] {
  return eventsTo(setup, state, card, fill, at, card.steps.length);
}

/**
 * The events that leave a card by another way: what comes before it on the card is done, then it is said.
 * @throws RunRefusal what comes before it is not done yet
 */
export function exitEvents(
  setup: RunSetup,
  state: RunState,
  card: RunCard,
  fill: CardFill,
  { exit, note, at }: { exit: CardExit; note: string; at: number },
): RunEvent[] {
  if (exit.kind === 'answer') return cardEvents(setup, state, card, { ...fill, answer: exit.answer }, at);
  const index = card.steps.findIndex(({ id }) => id === exit.stepId);
  const before = eventsTo(setup, state, card, fill, at, index);
  if (before.length < index) return before;
  return [...before, { kind: 'cant', stepId: exit.stepId, at, way: exit.way, note }];
}

function eventsTo(
  setup: RunSetup,
  state: RunState,
  card: RunCard,
  fill: CardFill,
  at: number,
  count: number,
): RunEvent[] {
  const { known = {} } = fill;
  const steps = card.steps.slice(0, count);
  const faults: Record<string, string> = {};
  for (const step of steps) {
    const read = readingsIn(step, fill.readings[step.id] ?? {});
    const missing = missingIn(step, read);
    const branches = branchOf(step, read) !== undefined;
    const gate = branches ? {} : gateFaults(step, read, fill.checks[step.id] ?? []);
    for (const [field, words] of Object.entries({ ...gate, ...missing })) faults[`${step.id}.${field}`] = words;
    if (branches) break;
  }
  const [first] = Object.values(faults);
  if (first !== undefined) throw new RunRefusal('gate', `Not yet: ${first}`, faults);
  const events: RunEvent[] = [];
  let now = state;
  for (const step of steps) {
    if (now.at !== step.id) break;
    const event: RunEvent = {
      kind: 'done',
      stepId: step.id,
      at,
      readings: readingsIn(step, fill.readings[step.id] ?? {}),
      checks: [...(fill.checks[step.id] ?? [])].sort((a, b) => a - b),
      answer: knownAnswer(step, known)?.id ?? (step === card.steps.at(-1) ? fill.answer : null),
    };
    now = applyRunEvent(setup, now, event);
    events.push(event);
  }
  return events;
}

/** The events that take the card back that was done last: all that was done at the same moment. */
export function undoEvents(state: RunState, at: number): RunEvent[] {
  const last = state.trail.at(-1);
  const events: RunEvent[] = [];
  for (let now: RunState | null = state; now?.before && now.trail.at(-1)!.leftAt === last!.leftAt; now = now.before)
    events.push({ kind: 'undone', at, stepId: now.at ?? now.trail.at(-1)!.stepId });
  return events;
}
