import type { Page } from '../kit/fields';
import { operations } from '../kit/operation';
import type { MachineMaps, ShapeRecord } from './shapes';

export interface ShapeAnswers {
  shapes: Page<ShapeRecord>;
  keepShape: { kept: boolean };
  withdrawShape: { withdrawn: boolean };
  maps: MachineMaps;
}

export const shapeOperations = operations<typeof import('./shapes'), ShapeAnswers>()('level', {
  shapes: {
    method: 'get',
    path: '/shapes',
    access: 'looker',
    summary: 'Surveys by light, strips laid, lapping and first layers, the latest first: raw, and what each came to',
    answers: 'items: the records.',
    query: 'shapeListSchema',
    list: { usual: 20, most: 60 },
    shows: ['Level'],
  },
  keepShape: {
    method: 'put',
    path: '/shapes/:id',
    access: 'technician',
    summary: 'Keep a survey by light, strips, rounds of lapping or a first layer, raw',
    answers: 'kept.',
    body: 'shapeWriteSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  withdrawShape: {
    method: 'post',
    path: '/shapes/:id/withdraw',
    access: 'technician',
    summary: 'Take back a record of a shape',
    answers: 'withdrawn.',
    body: 'shapeTakenBackSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  maps: {
    method: 'get',
    path: '/machines/:id/maps',
    access: 'looker',
    summary: 'The maps that a machine’s bed was read as, each with the sheet that lay on it',
    answers: 'items: the latest first; noise of its probe.',
    shows: ['Check', 'Level', 'Stack'],
  },
});
