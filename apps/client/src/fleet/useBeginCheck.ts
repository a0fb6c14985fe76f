import type { MachineOverview } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { v7 as uuid } from 'uuid';
import { checkBegun } from '../level/levelSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import { newDraft } from './newDraft';

/** Begins a level check of a machine, or goes on with the one under way here or elsewhere. */
export function useBeginCheck(machine: MachineOverview) {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  const draftId = useAppSelector(
    ({ level }) =>
      Object.values(level.drafts).find((draft) => draft.machineId === machine.id && !draft.end)?.id ?? null,
  );
  const begin = () => {
    const known = draftId ?? machine.openCheckId;
    if (known) return router.push(`/level/${known}`);
    const draft = newDraft(machine, uuid(), personId, Date.now());
    dispatch(checkBegun(draft));
    router.push(`/level/${draft.id}`);
  };
  return { begin, draftId };
}
