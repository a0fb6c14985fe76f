import type { Job } from '@even-bed/contract';
import {
  replayRun,
  applyRunEvent,
  type RunEvent,
  type RunSetup,
  type RunState,
} from '@even-bed/core/care/runProcedure';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** An event made here that the server's copy of the job doesn't hold yet. */
export interface LocalEvent {
  id: string;
  event: RunEvent;
}

/** A job as this device knows it: the server's copy, or the one begun here, and what was done here since. */
export interface KnownJob {
  job: Job;
  local: LocalEvent[];
}

export interface JobsState {
  jobs: Record<string, KnownJob>;
}

const initialState: JobsState = { jobs: {} };

export const jobsSlice = createSlice({
  name: 'jobs',
  initialState,
  reducers: {
    /** What has ended, and was sent, is the server's alone. */
    jobsRemembered: (_, { payload }: PayloadAction<JobsState>) => ({
      jobs: Object.fromEntries(
        Object.entries(payload.jobs).filter(([, { job, local }]) => job.ended === null || local.length > 0),
      ),
    }),
    /** What another tab has done comes beside what was done here. */
    jobsMerged(state, { payload }: PayloadAction<JobsState>) {
      for (const [id, known] of Object.entries(payload.jobs)) {
        const here = state.jobs[id];
        if (!here) {
          state.jobs[id] = known;
          continue;
        }
        for (const local of known.local) {
          const has =
            here.local.some((one) => one.id === local.id) || here.job.events.some((one) => one.id === local.id);
          if (!has) here.local.push(local);
        }
      }
    },
    jobBegun(state, { payload: job }: PayloadAction<Job>) {
      state.jobs[job.id] ??= { job, local: [] };
    },
    /** The server's copy came: what it holds by now is no longer kept apart. */
    jobSeen(state, { payload: job }: PayloadAction<Job>) {
      const local = state.jobs[job.id]?.local ?? [];
      state.jobs[job.id] = { job, local: local.filter(({ id }) => !job.events.some((event) => event.id === id)) };
    },
    jobTakenOn(state, { payload: { jobId, id, event } }: PayloadAction<LocalEvent & { jobId: string }>) {
      state.jobs[jobId]?.local.push({ id, event });
    },
    /** The server refused it: it did not happen, nor what was built on it. */
    jobEventRefused(state, { payload: { jobId, id } }: PayloadAction<{ jobId: string; id: string }>) {
      const known = state.jobs[jobId];
      if (!known) return;
      const at = known.local.findIndex((local) => local.id === id);
      if (at >= 0) known.local = known.local.slice(0, at);
    },
  },
});

export const { jobsMerged, jobsRemembered, jobBegun, jobSeen, jobTakenOn, jobEventRefused } = jobsSlice.actions;

export const setupOf = ({ procedure, choices, startedAt }: Job): RunSetup => ({ procedure, choices, startedAt });

/** How a job stands here and now: the server's events, then what was done here. */
export function stateOf({ job, local }: KnownJob): RunState {
  const setup = setupOf(job);
  return local.reduce(
    (state, { event }) => {
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
