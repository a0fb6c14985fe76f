import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import * as schemas from '@even-bed/contract/level/shapes';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { mapsOf } from './mapsOf';
import { keepShape, listShapes, resultApart, withdrawShape } from './shapeStore';

export const shapeRoutes = routesOf(shapeOperations, schemas, {
  shapes: async ({ db, query }) => ({ body: await listShapes(db, query) }),
  keepShape: {
    prepare: ({ body, who, signal }) => resultApart(body.raw, { who, signal }),
    handle: async ({ db, params, body, prepared }) => {
      await keepShape(db, params.id, body, { reckoned: prepared as Awaited<ReturnType<typeof resultApart>> });
      return { body: { kept: true } };
    },
  },
  withdrawShape: async ({ db, params, body }) => {
    await withdrawShape(db, params.id, body.at);
    return { body: { withdrawn: true } };
  },
  maps: async ({ db, params }) => {
    const maps = await mapsOf(db, params.id);
    if (!maps) throw notFound('This machine');
    return { body: maps };
  },
});
