import type { Job, JobEventWrite } from '@even-bed/contract';
import { addArea, store } from '../state/store';
import { eventsIn, jobEventSent, jobForgotten, jobsRemembered, jobsSlice, type JobsState } from './jobsSlice';

declare module '../state/store' {
  interface AreaSlices {
    jobs: JobsState;
  }
}

/** Jobs as this device knows them, so that they go on without a signal. One that ended, and was sent, is the server's. */
addArea<Job>({
  slice: jobsSlice,
  kept: {
    kind: 'job',
    of: ({ jobs }) => jobs.jobs,
    loaded: (jobs, waits) => jobsRemembered(jobs.filter(({ id, ended }) => ended === null || waits(id))),
    elsewhere: (id, job) => (job ? jobsRemembered([job]) : jobForgotten(id)),
  },
  onSent: ({ operation, params, body }) => {
    if (operation !== 'takeJobOn') return;
    for (const { id, event } of eventsIn(params['eventId']!, body as JobEventWrite))
      store.dispatch(jobEventSent({ jobId: params['id']!, id, event }));
  },
  onLetGo: ({ operation, params }) => {
    if (operation === 'startJob') store.dispatch(jobForgotten(params['id']!));
  },
});
