import type { Job } from '@even-bed/contract';
import { jobOperations } from '@even-bed/contract/care/jobOperations';
import {
  RunRefusal,
  applyRunEvent,
  progressOf,
  timerOf,
  type RunEvent,
  type RunSetup,
  type RunState,
} from '@even-bed/core/care/runProcedure';
import { useEffect, useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import { later, useAppDispatch, useAppSelector } from '../state/store';
import { useJobQuery } from './jobApi';
import { jobSeen, localEvents, setupOf, stateOf } from './jobsSlice';
import { proseOf } from '../ui/prose';

/** Another device may go on with it meanwhile, ms. */
const POLL_MS = 15_000;

export interface JobInHand {
  job: Job;
  setup: RunSetup;
  state: RunState;
  progress: { at: number; of: number };
  timer: ReturnType<typeof timerOf>;
  /**
   * Takes it on by all of these, here at once and on the server when it can, whole or not at all. What the engine refuses
   * comes back, and nothing happens.
   */
  take: (events: readonly RunEvent[]) => RunRefusal | null;
}

/** The step that an event is of, as its card is headed. */
const titleOf = ({ procedure }: Job, { stepId }: RunEvent): string =>
  procedure.steps.find(({ id }) => id === stepId)?.title ?? stepId;

/** A job, from the server and from what was done here; also without a signal. */
export function useJob(id: string): { inHand: JobInHand | null; error: unknown; refetch: () => void } {
  const dispatch = useAppDispatch();
  const { data, error, refetch } = useJobQuery({ id }, { pollingInterval: POLL_MS });
  const known = useAppSelector(({ jobs }) => jobs.jobs[id] ?? null);
  const waiting = useAppSelector((state) => state.waiting.list);
  useEffect(() => {
    if (data) dispatch(jobSeen(data));
  }, [data, dispatch]);
  const inHand = useMemo((): JobInHand | null => {
    if (!known) return null;
    const job = { ...known, procedure: proseOf(known.procedure) };
    const setup = setupOf(job);
    const state = stateOf(job, localEvents(job, waiting));
    return {
      job,
      setup,
      state,
      progress: progressOf(setup, state),
      timer: timerOf(setup, state),
      take: (events) => {
        const [first, ...rest] = events.map((event) => ({ id: uuid(), event }));
        if (!first) return null;
        try {
          events.reduce((now, event) => applyRunEvent(setup, now, event), state);
        } catch (refusal) {
          if (refusal instanceof RunRefusal) return refusal;
          throw refusal;
        }
        later(jobOperations.takeJobOn, {
          params: { id, eventId: first.id },
          body: { event: first.event, ...(rest.length > 0 ? { rest } : {}) },
          key: first.id,
          what: `${job.machineName}: ${job.title}, “${titleOf(job, first.event)}”`,
          at: `/jobs/${id}`,
        });
        return null;
      },
    };
  }, [known, waiting, id]);
  return { inHand, error, refetch };
}
