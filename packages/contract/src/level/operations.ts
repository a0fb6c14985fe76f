import type { Page } from '../kit/fields';
import type { LevelCheck, LevelCheckSummary, MachineLearned } from './records';
import { LONGEST_TEXT } from '@even-bed/core/level/longestText';
import { operations } from '../kit/operation';

export interface LevelAnswers {
  checks: Page<LevelCheckSummary>;
  check: LevelCheck;
  startCheck: LevelCheck;
  saveRound: LevelCheck;
  saveTurns: LevelCheck;
  endCheck: LevelCheck;
  learned: MachineLearned;
}

export const levelOperations = operations<typeof import('./records'), LevelAnswers>()('level', {
  checks: {
    method: 'get',
    path: '/level-checks',
    access: 'looker',
    summary: 'Level checks, the latest first',
    answers: 'A page of checks; next is the "before" of the page that follows.',
    query: 'checkListSchema',
    list: { usual: 30, most: 100 },
    shows: ['Check'],
  },
  check: {
    method: 'get',
    path: '/level-checks/:id',
    access: 'looker',
    summary: 'One level check with its raw readings, plans and turns made',
    answers: 'The check.',
    shows: ['Check'],
  },
  learned: {
    method: 'get',
    path: '/machines/:id/adjusters',
    access: 'looker',
    summary: 'What a machine’s adjusters really do, learned from its turns and the readings before and after them',
    answers: 'One for each adjuster, and how many rounds it rests on.',
    shows: ['Check', 'Machine', 'Level'],
  },
  startCheck: {
    method: 'put',
    path: '/level-checks/:id',
    access: 'technician',
    token: true,
    summary: 'Begin a level check',
    answers: 'The check.',
    body: 'checkStartSchema',
    touches: ['Check', 'Machine', 'Book'],
    waits: { of: 'id' },
  },
  saveRound: {
    method: 'put',
    path: '/level-checks/:id/rounds/:roundId',
    access: 'technician',
    token: true,
    summary: 'Add a reading, raw; the server plans the turns from it',
    answers: 'The check.',
    body: 'roundWriteSchema',
    bodyLimit: 2 * LONGEST_TEXT + 64 * 1024,
    touches: ['Check', 'Machine', 'Book'],
    waits: { of: 'id' },
  },
  saveTurns: {
    method: 'put',
    path: '/level-checks/:id/rounds/:roundId/turns',
    access: 'technician',
    summary: 'Note the turns that were made after a reading, + clockwise looking down',
    answers: 'The check.',
    body: 'turnsWriteSchema',
    touches: ['Check', 'Book'],
    waits: { of: 'id' },
  },
  endCheck: {
    method: 'put',
    path: '/level-checks/:id/end',
    access: 'technician',
    summary: 'Finish or drop a check; a finished one moves the next date',
    answers: 'The check.',
    body: 'checkEndSchema',
    touches: ['Check', 'Machine', 'Book'],
    waits: { of: 'id' },
  },
});
