import type { CautionId } from './cautions';
import type { RunSetup, RunState } from './runProcedure';

/** After so long a caution is read as if for the first time: a night's cure lies between, ms. Our own choice. */
const FRESH_MS = 4 * 3_600_000;

/**
 * Cautions that whoever has the job in hand has read in it lately: they may be said in a line. None after the job was
 * handed over, and none of steps that were left long ago.
 * @param now epoch ms
 */
export function cautionsSeen(
  { procedure }: Pick<RunSetup, 'procedure'>,
  { trail, holderId }: Pick<RunState, 'trail' | 'holderId'>,
  now: number,
): Set<CautionId> {
  if (holderId !== null) return new Set();
  const passed = new Set(trail.flatMap(({ stepId, leftAt }) => (now - leftAt <= FRESH_MS ? [stepId] : [])));
  return new Set(procedure.steps.flatMap(({ id, cautions = [] }) => (passed.has(id) ? cautions : [])));
}
