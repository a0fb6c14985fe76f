import type { Surface } from '@even-bed/contract';
import { surfaceOperations } from '@even-bed/contract/surfaces/operations';
import * as schemas from '@even-bed/contract/surfaces/records';
import type { SurfaceEvent } from '@even-bed/core';
import { pageOf } from '../kernel/page';
import { notFound } from '../kernel/problem';
import { routesOf, type Answer, type Call } from '../kernel/route';
import { shopSettings } from '../manner/store';
import { holderOf } from '../tags/store';
import { labelsPdf } from './labels';
import { keepOffset, listOffsets, predictPair, withdrawOffset } from './offsetStore';
import { askToMount, mount, refuseCrossedPoles } from './mount';
import { readStack, saveStack } from './stackStore';
import { listKinds, listPlaces, listSurfaces, needSurface, recordEvent, saveKind, saveSurface } from './store';

/** Writes an event down and answers with the surface as it then is. */
async function happened({
  db,
  params: { id },
  body: event,
  now,
}: Call<'id', unknown, SurfaceEvent>): Promise<Answer<Surface>> {
  if (event.kind === 'turned') await refuseCrossedPoles(db, await needSurface(db, id), event.turned, now);
  await recordEvent(db, id, event, now);
  return { body: await needSurface(db, id) };
}

export const surfaceRoutes = routesOf(surfaceOperations, schemas, {
  labels: async ({ db, query, origin, who, signal }) => {
    const { address } = await shopSettings(db);
    return {
      body: await labelsPdf(db, query, address || origin, { who, signal }),
      file: { type: 'application/pdf' },
    };
  },
  offsets: async ({ db, query }) => ({ body: await listOffsets(db, query) }),
  keepOffset: async ({ db, params, body }) => {
    await keepOffset(db, params.id, body);
    return { body: { kept: true } };
  },
  withdrawOffset: async ({ db, params, now }) => {
    await withdrawOffset(db, params.id, now);
    return { body: { withdrawn: true } };
  },
  offsetPrediction: async ({ db, query }) => ({
    body: await predictPair(db, query.machineId, query.surfaceId),
  }),
  kinds: async ({ db, query }) => ({ body: pageOf(await listKinds(db), query, ({ id }) => id) }),
  saveKind: async ({ db, params, body }) => ({ body: await saveKind(db, params.id, body) }),
  surfaces: async ({ db, query, now }) => ({ body: await listSurfaces(db, query, now) }),
  places: async ({ db, query }) => ({ body: pageOf(await listPlaces(db), query, (place) => place) }),
  tag: async ({ db, params }) => {
    const holder = await holderOf(db, params.tag);
    if (!holder) throw notFound(`The tag ${params.tag.slice(0, 20)}`);
    return { body: { kind: holder.kind, id: holder.id } };
  },
  surface: async ({ db, params }) => ({ body: await needSurface(db, params.id) }),
  saveSurface: async ({ db, params, body, now }) => ({
    body: await saveSurface(db, params.id, body, now),
  }),
  surfaceEvent: happened,
  retireSurface: happened,
  bringSurfaceBack: happened,
  moveMany: async ({ db, body, now }) => {
    const { ids, place, at } = body;
    for (const id of ids) await recordEvent(db, id, { kind: 'moved', at, place }, now);
    return { body: { moved: ids.length } };
  },
  mountCheck: async ({ db, params, query, now }) => ({
    body: await askToMount(db, params.id, query, now),
  }),
  mount: async ({ db, params, body, now }) => {
    await mount(db, params.id, body, now);
    return { body: await readStack(db, params.id) };
  },
  stack: async ({ db, params }) => ({ body: await readStack(db, params.id) }),
  saveStack: async ({ db, params, body }) => ({ body: await saveStack(db, params.id, body) }),
});
