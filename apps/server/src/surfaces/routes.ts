import {
  bringBackSchema,
  kindWriteSchema,
  labelsSchema,
  mountCheckSchema,
  mountSchema,
  moveManySchema,
  offsetListSchema,
  offsetQuestionSchema,
  offsetWriteSchema,
  retireSchema,
  stackWriteSchema,
  surfaceEventSchema,
  surfaceListSchema,
  surfaceWriteSchema,
  type KindWrite,
  type LabelsQuery,
  type MountWrite,
  type MoveMany,
  type OffsetWrite,
  type StackWrite,
  type SurfaceWrite,
} from '@even-bed/contract';
import type { QuarterTurn, Side, SurfaceEvent } from '@even-bed/core';
import Joi from 'joi';
import { notFound } from '../kernel/problem';
import type { Answer, Call, Route } from '../kernel/route';
import { shopSettings } from '../manner/store';
import { holderOf } from '../tags/store';
import { labelsPdf } from './labels';
import { keepOffset, listOffsets, predictPair, withdrawOffset } from './offsetStore';
import { askToMount, mount, refuseCrossedPoles } from './mount';
import { readStack, saveStack } from './stackStore';
import {
  listKinds,
  listPlaces,
  listSurfaces,
  needSurface,
  recordEvent,
  saveKind,
  saveSurface,
  type SurfaceFilter,
} from './store';

/** Writes an event down and answers with the surface as it then is. */
async function happened({ db, params, body, now }: Call): Promise<Answer> {
  const id = params['id']!;
  const event = body as SurfaceEvent;
  if (event.kind === 'turned') await refuseCrossedPoles(db, await needSurface(db, id), event.turned, now);
  await recordEvent(db, id, event, now);
  return { body: await needSurface(db, id) };
}

export const surfaceRoutes: Route[] = [
  {
    method: 'get',
    path: '/labels',
    area: 'surfaces',
    access: 'looker',
    summary: 'Labels with codes, to print',
    answers: 'A PDF file.',
    query: labelsSchema,
    handle: async ({ db, query, origin }) => {
      const { address } = await shopSettings(db);
      return {
        body: await labelsPdf(db, query as unknown as LabelsQuery, address || origin),
        file: { type: 'application/pdf' },
      };
    },
  },
  {
    method: 'get',
    path: '/offsets',
    area: 'surfaces',
    access: 'looker',
    summary: 'Z offsets that worked, of a machine or a surface or all',
    answers: 'items: the offsets, the latest first.',
    query: offsetListSchema,
    handle: async ({ db, query }) => ({ body: { items: await listOffsets(db, query) } }),
  },
  {
    method: 'put',
    path: '/offsets/:id',
    area: 'surfaces',
    access: 'technician',
    summary: 'Keep a Z offset that worked',
    answers: 'kept.',
    body: offsetWriteSchema,
    handle: async ({ db, params, body }) => {
      await keepOffset(db, params['id']!, body as OffsetWrite);
      return { body: { kept: true } };
    },
  },
  {
    method: 'post',
    path: '/offsets/:id/withdraw',
    area: 'surfaces',
    access: 'technician',
    summary: 'Take an offset out of the reckoning',
    answers: 'withdrawn.',
    body: Joi.object({}),
    handle: async ({ db, params, now }) => {
      await withdrawOffset(db, params['id']!, now);
      return { body: { withdrawn: true } };
    },
  },
  {
    method: 'get',
    path: '/offset-prediction',
    area: 'surfaces',
    access: 'looker',
    summary: 'The Z offset to expect of a machine with a surface, from all that worked',
    answers: 'prediction: offset, deviation and support; null when nothing known links the two.',
    query: offsetQuestionSchema,
    handle: async ({ db, query }) => ({
      body: await predictPair(db, query['machineId'] as string, query['surfaceId'] as string),
    }),
  },
  {
    method: 'get',
    path: '/surface-kinds',
    area: 'surfaces',
    access: 'looker',
    summary: 'Kinds of surfaces with their defaults',
    answers: 'items: the kinds, by name.',
    handle: async ({ db }) => ({ body: { items: await listKinds(db) } }),
  },
  {
    method: 'put',
    path: '/surface-kinds/:id',
    area: 'surfaces',
    access: 'lead',
    summary: 'Add a kind (version 0) or change one',
    answers: 'The kind.',
    body: kindWriteSchema,
    handle: async ({ db, params, body }) => ({ body: await saveKind(db, params['id']!, body as KindWrite) }),
  },
  {
    method: 'get',
    path: '/surfaces',
    area: 'surfaces',
    access: 'looker',
    summary: 'Surfaces by tag, searched by kind, place, state and words',
    answers: 'A page of surfaces; next is the "after" of the page that follows.',
    query: surfaceListSchema,
    handle: async ({ db, query, now }) => ({ body: await listSurfaces(db, query as unknown as SurfaceFilter, now) }),
  },
  {
    method: 'get',
    path: '/places',
    area: 'surfaces',
    access: 'looker',
    summary: 'Places of the rack',
    answers: 'items: names, the fullest first.',
    handle: async ({ db }) => ({ body: { items: await listPlaces(db) } }),
  },
  {
    method: 'get',
    path: '/tags/:tag',
    area: 'surfaces',
    access: 'looker',
    summary: 'Whose a tag is',
    answers: 'kind (surface or machine) and id.',
    handle: async ({ db, params }) => {
      const holder = await holderOf(db, params['tag']!);
      if (!holder) throw notFound(`The tag ${params['tag']!.slice(0, 20)}`);
      return { body: holder };
    },
  },
  {
    method: 'get',
    path: '/surfaces/:id',
    area: 'surfaces',
    access: 'looker',
    summary: 'One surface',
    answers: 'The surface with its kind, its state and what it has been used for.',
    handle: async ({ db, params }) => ({ body: await needSurface(db, params['id']!) }),
  },
  {
    method: 'put',
    path: '/surfaces/:id',
    area: 'surfaces',
    access: 'technician',
    summary: 'Add a surface (version 0) or change its facts',
    answers: 'The surface.',
    body: surfaceWriteSchema,
    handle: async ({ db, params, body, now }) => ({
      body: await saveSurface(db, params['id']!, body as SurfaceWrite, now),
    }),
  },
  {
    method: 'post',
    path: '/surfaces/:id/events',
    area: 'surfaces',
    access: 'technician',
    summary: 'Write down what happened to a surface: taken off, moved, turned, held, work asked for or done',
    answers: 'The surface. 409 with the reason when its state does not allow it.',
    body: surfaceEventSchema,
    handle: happened,
  },
  {
    method: 'post',
    path: '/surfaces/:id/retire',
    area: 'surfaces',
    access: 'lead',
    summary: 'Take a surface out of use, and off its machine',
    answers: 'The surface.',
    body: retireSchema,
    handle: happened,
  },
  {
    method: 'post',
    path: '/surfaces/:id/bring-back',
    area: 'surfaces',
    access: 'lead',
    summary: 'Bring a retired surface back into the rack',
    answers: 'The surface.',
    body: bringBackSchema,
    handle: happened,
  },
  {
    method: 'post',
    path: '/surfaces/move',
    area: 'surfaces',
    access: 'technician',
    summary: 'Move several surfaces to one place, all or none',
    answers: 'moved: how many.',
    body: moveManySchema,
    handle: async ({ db, body, now }) => {
      const { ids, place, at } = body as MoveMany;
      for (const id of ids) await recordEvent(db, id, { kind: 'moved', at, place }, now);
      return { body: { moved: ids.length } };
    },
  },
  {
    method: 'get',
    path: '/machines/:id/mount-check',
    area: 'surfaces',
    access: 'looker',
    summary: 'What stands against putting a surface on a machine, and what is asked first',
    answers: 'refusals, asks, cautions; the machine it comes from; what it takes the place of.',
    query: mountCheckSchema,
    handle: async ({ db, params, query, now }) => ({
      body: await askToMount(db, params['id']!, query as { surfaceId: string; sideUp: Side; turned: QuarterTurn }, now),
    }),
  },
  {
    method: 'post',
    path: '/machines/:id/mount',
    area: 'surfaces',
    access: 'technician',
    summary: 'Put a surface on a machine; what gives way is taken off in the same go',
    answers: 'The machine’s stack. 409 with the reason when it is refused or things have changed.',
    body: mountSchema,
    handle: async ({ db, params, body, now }) => {
      await mount(db, params['id']!, body as MountWrite, now);
      return { body: await readStack(db, params['id']!) };
    },
  },
  {
    method: 'get',
    path: '/machines/:id/stack',
    area: 'surfaces',
    access: 'looker',
    summary: 'A machine’s stack, bottom first',
    answers: 'The layers with thickness, limit, when fitted and by whom.',
    handle: async ({ db, params }) => ({ body: await readStack(db, params['id']!) }),
  },
  {
    method: 'put',
    path: '/machines/:id/stack',
    area: 'surfaces',
    access: 'technician',
    summary: 'Change the plain layers of a stack: plate, adhesive, pads',
    answers: 'The stack.',
    body: stackWriteSchema,
    handle: async ({ db, params, body }) => ({ body: await saveStack(db, params['id']!, body as StackWrite) }),
  },
];
