import type { Page } from '../kit/fields';
import { operations } from '../kit/operation';
import type { LevelNote, MachineLevels, MachineZero, ShopGauge } from './notes';

export interface NoteAnswers {
  levelNotes: Page<LevelNote>;
  keepLevelNote: { kept: boolean };
  withdrawLevelNote: { withdrawn: boolean };
  zero: MachineZero;
  keepZMark: { kept: boolean };
  withdrawZMark: { withdrawn: boolean };
  levels: MachineLevels;
  keepPractice: { points: number };
  gauges: Page<ShopGauge>;
  keepGauge: { kept: boolean };
  withdrawGauge: { withdrawn: boolean };
}

export const noteOperations = operations<typeof import('./notes'), NoteAnswers>()('level', {
  levelNotes: {
    method: 'get',
    path: '/level-notes',
    access: 'looker',
    summary: 'Levels by hand that stand, the latest first: what was read, raw, and what it came to',
    answers: 'items: the notes.',
    query: 'levelNoteListSchema',
    list: { usual: 30, most: 100 },
    shows: ['Level'],
  },
  keepLevelNote: {
    method: 'put',
    path: '/level-notes/:id',
    access: 'technician',
    summary: 'Keep a level by hand, raw; the server works out what it came to',
    answers: 'kept.',
    body: 'levelNoteSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  withdrawLevelNote: {
    method: 'post',
    path: '/level-notes/:id/withdraw',
    access: 'technician',
    summary: 'Take back a level by hand',
    answers: 'withdrawn.',
    body: 'takenBackSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  zero: {
    method: 'get',
    path: '/machines/:id/zero',
    access: 'looker',
    summary: 'When home was moved and zero set last on a machine, and whether zero still holds',
    answers: 'home, zero, and what has changed since.',
    shows: ['Level', 'Stack', 'Surface', 'Check'],
  },
  keepZMark: {
    method: 'put',
    path: '/z-marks/:id',
    access: 'technician',
    summary: 'Write down that zero was set, or home moved',
    answers: 'kept.',
    body: 'zMarkSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  withdrawZMark: {
    method: 'post',
    path: '/z-marks/:id/withdraw',
    access: 'technician',
    summary: 'Take back that zero was set, or home moved',
    answers: 'withdrawn.',
    body: 'takenBackSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  keepPractice: {
    method: 'put',
    path: '/practice/:id',
    access: 'technician',
    summary: 'Write a round on the practice bed into the book; it is scored anew',
    answers: 'points, 0 to 100.',
    body: 'practiceSchema',
    touches: ['Book'],
    waits: { of: 'id' },
  },
  gauges: {
    method: 'get',
    path: '/gauges',
    access: 'looker',
    summary: 'What the shop feels gaps with, by name',
    answers: 'items: the gauges.',
    list: { usual: 100, most: 200 },
    shows: ['Level'],
  },
  keepGauge: {
    method: 'put',
    path: '/gauges/:id',
    access: 'technician',
    summary: 'Keep a gauge for the shop',
    answers: 'kept.',
    body: 'gaugeSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  withdrawGauge: {
    method: 'post',
    path: '/gauges/:id/withdraw',
    access: 'technician',
    summary: 'Let go of a gauge',
    answers: 'withdrawn.',
    body: 'takenBackSchema',
    touches: ['Level', 'Book'],
    waits: { of: 'id' },
  },
  levels: {
    method: 'get',
    path: '/machines/:id/levels',
    access: 'looker',
    summary: 'A machine’s level over time, whatever the way, each with its uncertainty, and when to look again',
    answers: 'items: the latest first; again: the reasons to look now, or the date by its own drift.',
    shows: ['Level', 'Check', 'Print', 'Stack', 'Surface'],
  },
});
