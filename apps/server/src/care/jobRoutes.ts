import { jobOperations } from '@even-bed/contract/care/jobOperations';
import * as schemas from '@even-bed/contract/care/jobs';
import { pageOf } from '../kernel/page';
import { atField, notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { addJobEvents, findJob, listJobs, startJob } from './jobStore';
import { taughtFor } from './taughtStore';
import { findProcedure, listProcedures, saveProcedure } from './procedureStore';

export const jobRoutes = routesOf(jobOperations, schemas, {
  procedures: async ({ db, query }) => ({ body: pageOf(await listProcedures(db), query, ({ id }) => id) }),
  procedure: async ({ db, params, query }) => {
    const found = await findProcedure(db, params.procedure, query.version);
    if (!found) throw notFound('This procedure');
    return { body: found };
  },
  saveProcedure: async ({ db, params, body }) => ({
    body: await saveProcedure(db, params.procedure, body),
  }),
  jobs: async ({ db, query }) => ({ body: await listJobs(db, query) }),
  job: async ({ db, params }) => {
    const job = await findJob(db, params.id);
    if (!job) throw notFound('This job');
    return { body: job };
  },
  taught: async ({ db, params }) => ({ body: await taughtFor(db, params.id) }),
  startJob: async ({ db, params, body, now }) => {
    await startJob(db, params.id, body, now);
    return { body: { begun: true } };
  },
  takeJobOn: async ({ db, params, body, now }) => {
    const written = [{ id: params.eventId, event: body.event }, ...(body.rest ?? [])];
    if (new Set(written.map(({ id }) => id)).size < written.length)
      throw atField('rest', 'Each event has an id of its own: two of these are the same.');
    await addJobEvents(db, params.id, written, now);
    return { body: { taken: true } };
  },
});
