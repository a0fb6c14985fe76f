import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import * as schemas from '@even-bed/contract/level/shapes';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { mapsOf } from './mapsOf';
import { keepShape, listShapes, withdrawShape } from './shapeStore';

export const shapeRoutes = routesOf(shapeOperations, schemas, {
  shapes: async ({ db, query }) => ({ body: await listShapes(db, query) }),
  keepShape: async ({ db, params, body }) => {
    await keepShape(db, params.id, body);
    return { body: { kept: true } };
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
