import type { Page } from '../kit/fields';
import type { Job, JobEntry, ProcedureEntry, ProcedureRecord, Taught } from './jobs';
import { operations } from '../kit/operation';

export interface JobAnswers {
  procedures: Page<ProcedureEntry>;
  procedure: ProcedureRecord;
  saveProcedure: ProcedureRecord;
  jobs: Page<JobEntry>;
  job: Job;
  startJob: { begun: boolean };
  takeJobOn: { taken: boolean };
  taught: Taught;
}

export const jobOperations = operations<typeof import('./jobs'), JobAnswers>()('care', {
  procedures: {
    method: 'get',
    path: '/procedures',
    access: 'looker',
    summary: 'Jobs that can be done: those that ship, and the shop’s own',
    answers: 'items: the procedures without their steps.',
    list: { usual: 200, most: 500 },
    shows: ['Procedure'],
  },
  procedure: {
    method: 'get',
    path: '/procedures/:procedure',
    access: 'looker',
    summary: 'One procedure with its steps, in its latest version or the one named',
    answers: 'The procedure.',
    query: 'procedureQuerySchema',
    shows: ['Procedure'],
  },
  saveProcedure: {
    method: 'put',
    path: '/procedures/:procedure',
    access: 'lead',
    summary: 'Save the shop’s own procedure as one version more',
    answers: 'The procedure.',
    body: 'procedureWriteSchema',
    bodyLimit: 512 * 1024,
    nodes: 20_000,
    touches: ['Procedure', 'Book'],
    refuses: [422],
  },
  jobs: {
    method: 'get',
    path: '/jobs',
    access: 'looker',
    summary: 'Jobs, the latest first; of a machine, or only those under way',
    answers: 'items: the jobs.',
    query: 'jobListSchema',
    list: { usual: 50, most: 200 },
    shows: ['Job'],
  },
  job: {
    method: 'get',
    path: '/jobs/:id',
    access: 'looker',
    summary: 'One job with its procedure and all its events',
    answers: 'The job.',
    shows: ['Job'],
  },
  taught: {
    method: 'get',
    path: '/machines/:id/taught',
    access: 'looker',
    summary: 'What other machines of its model taught',
    answers: 'facts, jobs with what they fitted and measured, and plans, each with the machine that it comes from.',
    shows: ['Job', 'Machine', 'Plan'],
  },
  startJob: {
    method: 'put',
    path: '/jobs/:id',
    access: 'technician',
    summary: 'Begin a job on a machine',
    answers: 'begun.',
    body: 'jobStartSchema',
    touches: ['Job', 'Machine', 'Book'],
    waits: { of: 'id' },
  },
  takeJobOn: {
    method: 'put',
    path: '/jobs/:id/events/:eventId',
    access: 'technician',
    summary: 'Take a job on, a step or a whole card at once: done, not possible, undone, noted, handed over or stopped',
    answers: 'taken.',
    body: 'jobEventSchema',
    touches: ['Job', 'Machine', 'Surface', 'Stack', 'Inspection', 'Book'],
    waits: { of: 'id' },
  },
});
