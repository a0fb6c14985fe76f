import type { MachineOverview } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useSaveMachineMutation } from '../fleet/fleetApi';
import { newDraft } from '../fleet/newDraft';
import { useAppDispatch } from '../state/store';
import { checkBegun, checkEnded, heightsTaken, type CheckDraft } from './levelSlice';
import { factsOf } from './ReversedAnswer';

/**
 * Writes down that a machine's knobs turn the other way, drops the check that rested on the old sense, and begins a
 * new one with the newest reading. Returns what went wrong, or null.
 */
export function useTurnKnobsOver(
  draft: CheckDraft,
  machine: MachineOverview | undefined,
): () => Promise<string | null> {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const [saveMachine] = useSaveMachineMutation();
  return async () => {
    if (!machine) return null;
    const adjusters = machine.adjusters.map((adjuster) => ({
      ...adjuster,
      clockwise: adjuster.clockwise === 'raises' ? ('lowers' as const) : ('raises' as const),
    }));
    const result = await saveMachine({
      id: machine.id,
      key: uuid(),
      body: { ...factsOf(machine), adjusters, version: machine.version, at: Date.now() },
    });
    const failure = errorOf(result.error);
    if (failure) return failure.message;
    const now = Date.now();
    const { source, raw, reading } = draft.rounds.at(-1)!;
    const next = newDraft({ ...machine, adjusters }, uuid(), now);
    dispatch(checkBegun(next));
    dispatch(heightsTaken({ id: next.id, round: { id: uuid(), takenAt: now, source, raw, reading } }));
    dispatch(
      checkEnded({
        id: draft.id,
        end: {
          endedAt: now,
          outcome: 'dropped',
          note: 'The knobs turn the other way than was written down; begun again.',
        },
      }),
    );
    router.replace(`/level/${next.id}`);
    return null;
  };
}
