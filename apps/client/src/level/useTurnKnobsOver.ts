import { useRouter } from 'expo-router';
import { v7 as uuid } from 'uuid';
import { newDraft } from './newDraft';
import { useChangeMachine } from '../fleet/useChangeMachine';
import { useAppDispatch } from '../state/store';
import { checkBegun, checkEnded, heightsTaken, type CheckDraft } from './levelSlice';

/**
 * Writes down that a machine's knobs turn the other way, drops the check that rested on the old sense, and begins a
 * new one with the newest reading. Returns what went wrong, or null.
 */
export function useTurnKnobsOver(draft: CheckDraft): () => Promise<string | null> {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const { machine, change } = useChangeMachine(draft.machineId);
  return async () => {
    if (!machine) return null;
    const adjusters = machine.adjusters.map((adjuster) => ({
      ...adjuster,
      clockwise: adjuster.clockwise === 'raises' ? ('lowers' as const) : ('raises' as const),
    }));
    const problem = await change({ adjusters });
    if (problem) return problem;
    const now = Date.now();
    const { source, raw, range, reading } = draft.rounds.at(-1)!;
    const next = newDraft({ ...machine, adjusters }, uuid(), draft.personId, now);
    dispatch(checkBegun(next));
    dispatch(heightsTaken({ id: next.id, round: { id: uuid(), takenAt: now, source, raw, range, reading } }));
    const note = 'The knobs turn the other way than was written down; begun again.';
    dispatch(checkEnded({ id: draft.id, end: { endedAt: now, outcome: 'dropped', note } }));
    router.replace(`/level/${next.id}`);
    return null;
  };
}
