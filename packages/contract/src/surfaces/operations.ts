import type { Page } from '../kit/fields';
import type { KeptOffset, MachineStack, MountAnswer, OffsetAnswer, Surface, SurfaceKind, TagHolder } from './records';
import { operations, type FileAnswer } from '../kit/operation';

export interface SurfaceAnswers {
  labels: FileAnswer;
  offsets: Page<KeptOffset>;
  keepOffset: { kept: boolean };
  withdrawOffset: { withdrawn: boolean };
  offsetPrediction: OffsetAnswer;
  kinds: Page<SurfaceKind>;
  saveKind: SurfaceKind;
  surfaces: Page<Surface>;
  places: Page<string>;
  tag: TagHolder;
  surface: Surface;
  saveSurface: Surface;
  surfaceEvent: Surface;
  retireSurface: Surface;
  bringSurfaceBack: Surface;
  moveMany: { moved: number };
  mountCheck: MountAnswer;
  mount: MachineStack;
  stack: MachineStack;
  saveStack: MachineStack;
}

export const surfaceOperations = operations<typeof import('./records'), SurfaceAnswers>()('surfaces', {
  labels: {
    method: 'get',
    path: '/labels',
    access: 'looker',
    fresh: true,
    summary: 'Labels with codes, to print',
    answers: 'A PDF file.',
    query: 'labelsSchema',
    gives: 'application/pdf',
    refuses: [404, 422],
  },
  offsets: {
    method: 'get',
    path: '/offsets',
    access: 'looker',
    summary: 'Z offsets that worked, of a machine or a surface or all',
    answers: 'items: the offsets, the latest first.',
    query: 'offsetListSchema',
    list: { usual: 500, most: 500 },
    shows: ['Offset'],
  },
  keepOffset: {
    method: 'put',
    path: '/offsets/:id',
    access: 'technician',
    summary: 'Keep a Z offset that worked',
    answers: 'kept.',
    body: 'offsetWriteSchema',
    touches: ['Offset', 'Book'],
    waits: { of: 'id' },
    refuses: [404],
  },
  withdrawOffset: {
    method: 'post',
    path: '/offsets/:id/withdraw',
    access: 'technician',
    summary: 'Take an offset out of the reckoning',
    answers: 'withdrawn.',
    touches: ['Offset', 'Book'],
  },
  offsetPrediction: {
    method: 'get',
    path: '/offset-prediction',
    access: 'looker',
    summary: 'The Z offset to expect of a machine with a surface, from all that worked',
    answers: 'prediction: offset, deviation and support; null when nothing known links the two.',
    query: 'offsetQuestionSchema',
    shows: ['Offset'],
    refuses: [404],
  },
  kinds: {
    method: 'get',
    path: '/surface-kinds',
    access: 'looker',
    summary: 'Kinds of surfaces with their defaults',
    answers: 'items: the kinds, by name.',
    list: { usual: 500, most: 500 },
    shows: ['Kind'],
  },
  saveKind: {
    method: 'put',
    path: '/surface-kinds/:id',
    access: 'lead',
    summary: 'Add a kind (version 0) or change one',
    answers: 'The kind.',
    body: 'kindWriteSchema',
    touches: ['Kind', 'Surface', 'Stack', 'Book'],
  },
  surfaces: {
    method: 'get',
    path: '/surfaces',
    access: 'looker',
    summary: 'Surfaces by tag, searched by kind, place, state and words',
    answers: 'A page of surfaces; next is the "after" of the page that follows.',
    query: 'surfaceListSchema',
    list: { usual: 100, most: 500 },
    refuses: [404],
    shows: ['Surface'],
  },
  places: {
    method: 'get',
    path: '/places',
    access: 'looker',
    summary: 'Places of the rack',
    answers: 'items: names, the fullest first.',
    list: { usual: 500, most: 500 },
    shows: ['Surface'],
  },
  tag: {
    method: 'get',
    path: '/tags/:tag',
    access: 'looker',
    summary: 'Whose a tag is',
    answers: 'kind (surface or machine) and id.',
    shows: ['Surface', 'Machine'],
  },
  surface: {
    method: 'get',
    path: '/surfaces/:id',
    access: 'looker',
    summary: 'One surface',
    answers: 'The surface with its kind, its state and what it has been used for.',
    shows: ['Surface'],
  },
  saveSurface: {
    method: 'put',
    path: '/surfaces/:id',
    access: 'technician',
    summary: 'Add a surface (version 0) or change its facts',
    answers: 'The surface.',
    body: 'surfaceWriteSchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
  },
  surfaceEvent: {
    method: 'post',
    path: '/surfaces/:id/events',
    access: 'technician',
    summary: 'Write down what happened to a surface: taken off, moved, turned, held, work asked for or done',
    answers: 'The surface. 409 with the reason when its state does not allow it.',
    body: 'surfaceEventSchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
  },
  retireSurface: {
    method: 'post',
    path: '/surfaces/:id/retire',
    access: 'lead',
    summary: 'Take a surface out of use, and off its machine',
    answers: 'The surface.',
    body: 'retireSchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
  },
  bringSurfaceBack: {
    method: 'post',
    path: '/surfaces/:id/bring-back',
    access: 'lead',
    summary: 'Bring a retired surface back into the rack',
    answers: 'The surface.',
    body: 'bringBackSchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
  },
  moveMany: {
    method: 'post',
    path: '/surfaces/move',
    access: 'technician',
    summary: 'Move several surfaces to one place, all or none',
    answers: 'moved: how many.',
    body: 'moveManySchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
    refuses: [404],
  },
  mountCheck: {
    method: 'get',
    path: '/machines/:id/mount-check',
    access: 'looker',
    fresh: true,
    summary: 'What stands against putting a surface on a machine, and what is asked first',
    answers: 'refusals, asks, cautions; the machine it comes from; what it takes the place of.',
    query: 'mountCheckSchema',
    shows: ['Surface', 'Stack'],
  },
  mount: {
    method: 'post',
    path: '/machines/:id/mount',
    access: 'technician',
    summary: 'Put a surface on a machine; what gives way is taken off in the same go',
    answers: 'The machine’s stack. 409 with the reason when it is refused or things have changed.',
    body: 'mountSchema',
    touches: ['Surface', 'Stack', 'Machine', 'Book'],
  },
  stack: {
    method: 'get',
    path: '/machines/:id/stack',
    access: 'looker',
    summary: 'A machine’s stack, bottom first',
    answers: 'The layers with thickness, limit, when fitted and by whom.',
    shows: ['Stack'],
  },
  saveStack: {
    method: 'put',
    path: '/machines/:id/stack',
    access: 'technician',
    summary: 'Change the plain layers of a stack: plate, adhesive, pads',
    answers: 'The stack.',
    body: 'stackWriteSchema',
    touches: ['Stack', 'Book'],
  },
});
