import type { ProcedureStep } from './procedure';
import { stepOf, timerOf, type RunEvent, type RunSetup, type RunState } from './runProcedure';

/** Readings that pass every limit and no branch. */
export function goodReadings({ readings = [], branches = [] }: ProcedureStep): Record<string, number> {
  return Object.fromEntries(
    readings.map(({ id, min, max, least, most }) => {
      const own = branches.filter(({ reading }) => reading === id);
      const low = Math.max(min, least ?? min, ...own.flatMap(({ under }) => under ?? []));
      const high = Math.min(max, most ?? max, ...own.flatMap(({ over }) => over ?? []));
      return [id, (low + high) / 2];
    }),
  );
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
    checks: step.gate?.checks.map((_, i) => i) ?? [],
    answer: answer ?? step.ask?.answers[0]?.id ?? null,
  };
}
