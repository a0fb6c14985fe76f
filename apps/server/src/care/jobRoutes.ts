import {
  jobEventSchema,
  jobListSchema,
  jobStartSchema,
  procedureQuerySchema,
  procedureWriteSchema,
  type JobEventWrite,
  type JobStart,
  type ProcedureWrite,
} from '@even-bed/contract';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { addJobEvent, findJob, listJobs, startJob } from './jobStore';
import { findProcedure, listProcedures, saveProcedure } from './procedureStore';

export const jobRoutes: Route[] = [
  {
    method: 'get',
    path: '/procedures',
    area: 'care',
    access: 'looker',
    summary: 'Jobs that can be done: those that ship, and the shop’s own',
    answers: 'items: the procedures without their steps.',
    handle: async ({ db }) => ({ body: { items: await listProcedures(db) } }),
  },
  {
    method: 'get',
    path: '/procedures/:procedure',
    area: 'care',
    access: 'looker',
    summary: 'One procedure with its steps, in its latest version or the one named',
    answers: 'The procedure.',
    query: procedureQuerySchema,
    handle: async ({ db, params, query }) => {
      const found = await findProcedure(db, params['procedure']!, query['version'] as number | undefined);
      if (!found) throw notFound('This procedure');
      return { body: found };
    },
  },
  {
    method: 'put',
    path: '/procedures/:procedure',
    area: 'care',
    access: 'lead',
    summary: 'Save the shop’s own procedure as one version more',
    answers: 'The procedure.',
    body: procedureWriteSchema,
    bodyLimit: 512 * 1024,
    nodes: 20_000,
    handle: async ({ db, params, body }) => ({
      body: await saveProcedure(db, params['procedure']!, body as ProcedureWrite),
    }),
  },
  {
    method: 'get',
    path: '/jobs',
    area: 'care',
    access: 'looker',
    summary: 'Jobs, the latest first; of a machine, or only those under way',
    answers: 'items: the jobs.',
    query: jobListSchema,
    handle: async ({ db, query }) => ({
      body: { items: await listJobs(db, query as { machineId?: string; open: boolean; limit: number }) },
    }),
  },
  {
    method: 'get',
    path: '/jobs/:id',
    area: 'care',
    access: 'looker',
    summary: 'One job with its procedure and all its events',
    answers: 'The job.',
    handle: async ({ db, params }) => {
      const job = await findJob(db, params['id']!);
      if (!job) throw notFound('This job');
      return { body: job };
    },
  },
  {
    method: 'put',
    path: '/jobs/:id',
    area: 'care',
    access: 'technician',
    summary: 'Begin a job on a machine',
    answers: 'begun.',
    body: jobStartSchema,
    handle: async ({ db, params, body, now }) => {
      await startJob(db, params['id']!, body as JobStart, now);
      return { body: { begun: true } };
    },
  },
  {
    method: 'put',
    path: '/jobs/:id/events/:eventId',
    area: 'care',
    access: 'technician',
    summary: 'Take a job on: a step done, not possible, undone, noted, handed over or stopped',
    answers: 'taken.',
    body: jobEventSchema,
    handle: async ({ db, params, body, now }) => {
      await addJobEvent(db, params['id']!, params['eventId']!, (body as JobEventWrite).event, now);
      return { body: { taken: true } };
    },
  },
];
