import {
  checkEndSchema,
  checkListSchema,
  checkStartSchema,
  roundWriteSchema,
  turnsWriteSchema,
  type CheckEnd,
  type CheckStart,
  type RoundWrite,
  type TurnsWrite,
} from '@even-bed/contract';
import { LONGEST_TEXT } from '@even-bed/core/level/longestText';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { heavy } from '../kernel/heavy';
import { PLAN_ROUND } from './planTask';
import { LIMITS } from '../kernel/limits';
import { notFound } from '../kernel/problem';
import type { Answer, Call, Route } from '../kernel/route';
import {
  endCheck,
  findCheck,
  listChecks,
  saveRound,
  saveTurns,
  setupOf,
  startCheck,
  type CheckFilter,
  type PlannedRound,
} from './store';

async function checkAnswer({ db, params }: Call): Promise<Answer> {
  const check = await findCheck(db, params['id']!);
  if (!check) throw notFound('This check');
  return { body: check };
}

export const levelRoutes: Route[] = [
  {
    method: 'get',
    path: '/level-checks',
    area: 'level',
    access: 'looker',
    summary: 'Level checks, the latest first',
    answers: 'A page of checks; next is the "before" of the page that follows.',
    query: checkListSchema,
    handle: async ({ db, query }) => ({ body: await listChecks(db, query as unknown as CheckFilter) }),
  },
  {
    method: 'get',
    path: '/level-checks/:id',
    area: 'level',
    access: 'looker',
    summary: 'One level check with its raw readings, plans and turns made',
    answers: 'The check.',
    handle: checkAnswer,
  },
  {
    method: 'put',
    path: '/level-checks/:id',
    area: 'level',
    access: 'technician',
    token: true,
    summary: 'Begin a level check',
    answers: 'The check.',
    body: checkStartSchema,
    handle: async (call) => {
      refuseOtherMachine(call, (call.body as CheckStart).machineId);
      await startCheck(call.db, call.params['id']!, call.body as CheckStart);
      return checkAnswer(call);
    },
  },
  {
    method: 'put',
    path: '/level-checks/:id/rounds/:roundId',
    area: 'level',
    access: 'technician',
    token: true,
    summary: 'Add a reading, raw; the server plans the turns from it',
    answers: 'The check.',
    body: roundWriteSchema,
    // A text of heights as long as any that is read, with every character escaped.
    bodyLimit: 2 * LONGEST_TEXT + 64 * 1024,
    prepare: async ({ db, params, body, signal }) => {
      const { raw, reading } = body as RoundWrite;
      if (raw.length <= LIMITS.heightsAtOnce) return null;
      const setup = await setupOf(db, params['id']!);
      return setup && heavy(PLAN_ROUND, [{ raw, reading }, setup], signal);
    },
    handle: async (call) => {
      if (call.tokenMachineId !== null)
        refuseOtherMachine(call, (await findCheck(call.db, call.params['id']!))?.machineId ?? '');
      await saveRound(
        call.db,
        call.params['id']!,
        call.params['roundId']!,
        call.body as RoundWrite,
        call.prepared as PlannedRound | null,
      );
      return checkAnswer(call);
    },
  },
  {
    method: 'put',
    path: '/level-checks/:id/rounds/:roundId/turns',
    area: 'level',
    access: 'technician',
    summary: 'Note the turns that were made after a reading, + clockwise looking down',
    answers: 'The check.',
    body: turnsWriteSchema,
    handle: async (call) => {
      await saveTurns(call.db, call.params['id']!, call.params['roundId']!, call.body as TurnsWrite);
      return checkAnswer(call);
    },
  },
  {
    method: 'put',
    path: '/level-checks/:id/end',
    area: 'level',
    access: 'technician',
    summary: 'Finish or drop a check; a finished one moves the next date',
    answers: 'The check.',
    body: checkEndSchema,
    handle: async (call) => {
      await endCheck(call.db, call.params['id']!, call.body as CheckEnd);
      return checkAnswer(call);
    },
  },
];
