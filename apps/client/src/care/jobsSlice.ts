import type { Job, JobEventWrite } from '@even-bed/contract';
import {
  applyRunEvent,
  replayRun,
  type RunEvent,
  type RunSetup,
  type RunState,
} from '@even-bed/core/care/runProcedure';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { recordOf, type Waiting } from '../offline/waiting';
import { goesOn } from '../offline/waitingSlice';

export interface JobsState {
  /** Jobs as this device knows them: the server's copy, or the one begun here. */
  jobs: Record<string, Job>;
}

const initialState: JobsState = { jobs: {} };

export const jobsSlice = createSlice({
  name: 'jobs',
  initialState,
  reducers: {
    jobsRemembered(state, { payload }: PayloadAction<Job[]>) {
      for (const job of payload) state.jobs[job.id] ??= job;
    },
    jobBegun(state, { payload: job }: PayloadAction<Job>) {
      state.jobs[job.id] ??= job;
    },
    /** The server's copy came. One on its way from before an event that was sent since is older than what is here. */
    jobSeen(state, { payload: job }: PayloadAction<Job>) {
      const here = state.jobs[job.id];
      const known = new Set(job.events.map(({ id }) => id));
      const lacks = here?.events.some(({ id }) => !known.has(id)) ?? false;
      if (!lacks || job.events.length >= here!.events.length) state.jobs[job.id] = job;
    },
    /** The server has an event that was made here. */
    jobEventSent(
      state,
      { payload: { jobId, id, event } }: PayloadAction<{ jobId: string; id: string; event: RunEvent }>,
    ) {
      const job = state.jobs[jobId];
      if (job && !job.events.some((one) => one.id === id)) job.events.push({ ...event, id, personName: null });
    },
    /** What has ended, and was sent, is the server's alone; or another tab let it go. */
    jobForgotten(state, { payload: id }: PayloadAction<string>) {
      delete state.jobs[id];
    },
  },
});

export const { jobsRemembered, jobBegun, jobSeen, jobEventSent, jobForgotten } = jobsSlice.actions;

export const setupOf = ({ procedure, choices, startedAt }: Job): RunSetup => ({ procedure, choices, startedAt });

/** The record that everything of a job is sent as. */
export const jobRecord = (id: string): string => recordOf('care', id);

/** What was done here of a job and the server's copy doesn't hold yet, in its order. */
export const localEvents = (job: Job, waiting: readonly Waiting[]): RunEvent[] =>
  goesOn(waiting, jobRecord(job.id))
    .filter(({ operation }) => operation === 'takeJobOn')
    .flatMap(({ params, body }) => eventsIn(params['eventId']!, body as JobEventWrite))
    .filter(({ id }) => !job.events.some((event) => event.id === id))
    .map(({ event }) => event);

/** What an operation says that happened, each with its id, in order. */
export const eventsIn = (eventId: string, { event, rest = [] }: JobEventWrite): { id: string; event: RunEvent }[] => [
  { id: eventId, event },
  ...rest,
];

/** How a job stands here and now: the server's events, then what was done here. */
export function stateOf(job: Job, local: readonly RunEvent[]): RunState {
  const setup = setupOf(job);
  return local.reduce(
    (state, event) => {
      try {
        return applyRunEvent(setup, state, event);
      } catch {
        // Another device was there first: the server will say so.
        return state;
      }
    },
    replayRun(setup, job.events),
  );
}
