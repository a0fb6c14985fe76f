import type { MachineOverview } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { v7 as uuid } from 'uuid';
import { useLearnedQuery } from './levelApi';
import { checkBegun } from './levelSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import { newDraft, type Known } from './newDraft';

/** Begins a new level check of a machine on this device. @returns the address of the check */
export function useNewCheck(): (machine: MachineOverview, known?: Known) => `/level/${string}` {
  const dispatch = useAppDispatch();
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  return (machine, known) => {
    const draft = newDraft(machine, uuid(), personId, Date.now(), known);
    dispatch(checkBegun(draft));
    return `/level/${draft.id}`;
  };
}

/**
 * Begins a level check of a machine, or goes on with the one under way here or elsewhere; for a job it leads back to the
 * job when it is finished.
 */
export function useBeginCheck(machine: MachineOverview) {
  const router = useRouter();
  const newCheck = useNewCheck();
  const { data: learned } = useLearnedQuery({ id: machine.id }, { skip: machine.adjusters.length < 3 });
  const draftId = useAppSelector(
    ({ level }) =>
      Object.values(level.drafts).find((draft) => draft.machineId === machine.id && !draft.end)?.id ?? null,
  );
  const begin = (jobId?: string) => {
    const known = draftId ?? machine.openCheckId;
    const to = known ? (`/level/${known}` as const) : newCheck(machine, learned);
    router.push(jobId === undefined ? to : `${to}?job=${jobId}`);
  };
  return { begin, draftId };
}
