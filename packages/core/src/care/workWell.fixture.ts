import type { Procedure, ProcedureStep } from './procedure';
import { cardEvents, cardOf, type CardFill, type KnownAnswers, type RunCard, type RunManner } from './runCard';
import { applyRunEvent, isAsked, stepOf, timerOf, type RunEvent, type RunSetup, type RunState } from './runProcedure';

/** Readings that pass every limit and no branch; of those shown, the first. */
export function goodReadings({ readings = [], branches = [] }: ProcedureStep): Record<string, number> {
  const good: Record<string, number> = {};
  for (const reading of readings) {
    const { id, min, max, least, most, options } = reading;
    if (!isAsked(reading, good)) continue;
    const own = branches.filter((branch) => branch.reading === id && branch.of === undefined);
    const low = Math.max(min, least ?? min, ...own.flatMap(({ under }) => under ?? []));
    const high = Math.min(max, most ?? max, ...own.flatMap(({ over }) => over ?? []));
    const shared = branches.find((branch) => branch.reading === id && branch.of !== undefined);
    const whole = shared && good[shared.of!];
    good[id] = options ? options[0]!.value : whole !== undefined ? whole : shared ? low : (low + high) / 2;
  }
  return good;
}

/** A moment at which a step may be left: after its least time, before its most. */
export const inTime = (setup: RunSetup, state: RunState) => timerOf(setup, state)?.until ?? state.enteredAt + 1000;

/** The step in hand done as it should be, with one of its answers, the first when none is named. */
export function doneWell(
  setup: RunSetup,
  state: RunState,
  answer: string | null = null,
): Extract<RunEvent, { kind: 'done' }> {
  const step = stepOf(setup, state);
  return {
    kind: 'done',
    stepId: step.id,
    at: inTime(setup, state),
    readings: goodReadings(step),
    checks: allChecks(step),
    answer: answer ?? step.ask?.answers[0]?.id ?? null,
  };
}

const allChecks = ({ gate }: ProcedureStep) => gate?.checks.map((_, i) => i) ?? [];

/** A card filled in as it should be. */
export const filledWell = ({ steps }: RunCard, answer: string | null = null, known: KnownAnswers = {}): CardFill => ({
  readings: Object.fromEntries(steps.map((step) => [step.id, goodReadings(step)])),
  checks: Object.fromEntries(steps.map((step) => [step.id, allChecks(step)])),
  answer: answer ?? steps.at(-1)!.ask?.answers[0]?.id ?? null,
  known,
});

/** The options that are usual. */
export const usualChoices = ({ choices }: Procedure) => Object.fromEntries(choices.map(({ id, usual }) => [id, usual]));

/** The answers that a sum gives where all goes straight: for a machine that the shop knows. */
export const straightAnswers = ({ steps }: Procedure): KnownAnswers =>
  Object.fromEntries(
    steps.flatMap(({ id, ask }) => (ask?.answers[0]?.when === undefined ? [] : [[id, ask.answers[0].id]])),
  );

/** The cards of the straight way, each with the run as it stood before it. */
export function cardsStraight(
  setup: RunSetup,
  begun: RunState,
  manner: RunManner,
  known: KnownAnswers = {},
): { card: RunCard; before: RunState; events: RunEvent[] }[] {
  const cards: ReturnType<typeof cardsStraight> = [];
  for (let state = begun; state.at !== null;) {
    const card = cardOf(setup, state, manner, known);
    const events = cardEvents(setup, state, card, filledWell(card, null, known), inTime(setup, state));
    cards.push({ card, before: state, events });
    state = events.reduce((now, event) => applyRunEvent(setup, now, event), state);
  }
  return cards;
}
