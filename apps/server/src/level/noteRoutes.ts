import { noteOperations } from '@even-bed/contract/level/noteOperations';
import * as schemas from '@even-bed/contract/level/notes';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { pageOf } from '../kernel/page';
import { keepGauge, listGauges, withdrawGauge } from './gaugeStore';
import { levelsOf, zeroOf } from './levelsOf';
import { keepPractice } from './practice';
import { keepLevelNote, keepZMark, listLevelNotes, withdrawLevelNote, withdrawZMark } from './noteStore';

export const noteRoutes = routesOf(noteOperations, schemas, {
  levelNotes: async ({ db, query }) => ({ body: await listLevelNotes(db, query) }),
  keepLevelNote: async ({ db, params, body }) => {
    await keepLevelNote(db, params.id, body);
    return { body: { kept: true } };
  },
  withdrawLevelNote: async ({ db, params, body }) => {
    await withdrawLevelNote(db, params.id, body.at);
    return { body: { withdrawn: true } };
  },
  zero: async ({ db, params }) => {
    const zero = await zeroOf(db, params.id);
    if (!zero) throw notFound('This machine');
    return { body: zero };
  },
  keepZMark: async ({ db, params, body }) => {
    await keepZMark(db, params.id, body);
    return { body: { kept: true } };
  },
  withdrawZMark: async ({ db, params, body }) => {
    await withdrawZMark(db, params.id, body.at);
    return { body: { withdrawn: true } };
  },
  gauges: async ({ db, query }) => ({ body: pageOf(await listGauges(db), query, ({ id }) => id) }),
  keepGauge: async ({ db, params, body }) => {
    await keepGauge(db, params.id, body);
    return { body: { kept: true } };
  },
  withdrawGauge: async ({ db, params, body }) => {
    await withdrawGauge(db, params.id, body.at);
    return { body: { withdrawn: true } };
  },
  keepPractice: async ({ db, params, body }) => ({ body: { points: await keepPractice(db, params.id, body) } }),
  levels: async ({ db, params, now }) => {
    const levels = await levelsOf(db, params.id, now);
    if (!levels) throw notFound('This machine');
    return { body: levels };
  },
});
