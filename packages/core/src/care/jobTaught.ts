import type { Procedure, ProcedureReading } from './procedure';
import type { RunState } from './runProcedure';

/** What a job on one machine says of others of its model. */
export interface JobTaught {
  /** Home was moved in it, if only for a while; false: its sum said that nothing has to move; null: neither is known. */
  homeMoved: boolean | null;
  /** What was measured of the machine itself, not of the parts that were fitted. `said`: the choice, where it is one. */
  readings: { label: string; value: number; unit: ProcedureReading['unit']; said: string | null }[];
}

/**
 * What a finished job taught of its machine's model: whether home had to move, and the readings that its document marks as
 * teaching.
 * @param state the run as it ended
 */
export function jobTaught({ steps }: Procedure, { trail, answers, readings: read }: RunState): JobTaught {
  const moving = steps.filter(({ effects = [] }) => effects.some(({ kind }) => kind === 'home-moved'));
  // The safe side: moved again after a knock, or back after a rehearsal, it had to be moved all the same.
  const moved = trail.some(({ stepId, how }) => how === 'done' && moving.some(({ id }) => id === stepId));
  const nothing = steps.some(
    ({ id, sum, ask }) =>
      sum === 'stack' && ask?.answers.some((answer) => answer.id === answers[id] && answer.when === 'none'),
  );
  return {
    homeMoved: moved ? true : nothing ? false : null,
    readings: steps.flatMap(({ id: step, readings = [] }) =>
      readings.flatMap(({ id, label, unit, options = [], teaches }) => {
        const value = read[`${step}.${id}`];
        if (!teaches || value === undefined) return [];
        return [{ label, value, unit, said: options.find((one) => one.value === value)?.label ?? null }];
      }),
    ),
  };
}
