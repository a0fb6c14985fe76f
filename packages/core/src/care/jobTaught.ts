import type { Procedure, ProcedureReading } from './procedure';
import type { RunState } from './runProcedure';

/** What a job on one machine says of others of its model. */
export interface JobTaught {
  /** Whether where home trips had to be moved; null: the job didn't ask. */
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
  const moving = steps
    .filter(({ effects = [] }) => effects.some(({ kind }) => kind === 'home-moved'))
    .map(({ id }) => id);
  // Moved there and back again, in a rehearsal or where the part was lost, is not moved.
  const moves = trail.filter(({ stepId, how }) => how === 'done' && moving.includes(stepId)).length;
  const summed = steps.some(({ id, sum, ask }) => sum === 'stack' && ask && answers[id] !== undefined);
  return {
    homeMoved: moves % 2 === 1 ? true : summed ? false : null,
    readings: steps.flatMap(({ id: step, readings = [] }) =>
      readings.flatMap(({ id, label, unit, options = [], teaches }) => {
        const value = read[`${step}.${id}`];
        if (!teaches || value === undefined) return [];
        return [{ label, value, unit, said: options.find((one) => one.value === value)?.label ?? null }];
      }),
    ),
  };
}
