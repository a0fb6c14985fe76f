import { levelOperations } from '@even-bed/contract/level/operations';
import * as schemas from '@even-bed/contract/level/records';
import type { LevelCheck } from '@even-bed/contract';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { heavy } from '../kernel/heavy';
import { PLAN_ROUND } from './planTask';
import { LIMITS } from '../kernel/limits';
import { notFound } from '../kernel/problem';
import { routesOf, type Answer, type Call } from '../kernel/route';
import { learnedOf } from './learned';
import {
  endCheck,
  findCheck,
  listChecks,
  machineOfCheck,
  saveRound,
  saveTurns,
  setupOf,
  startCheck,
  type PlannedRound,
} from './store';

async function checkAnswer({ db, params }: Pick<Call<'id'>, 'db' | 'params'>): Promise<Answer<LevelCheck>> {
  const check = await findCheck(db, params.id);
  if (!check) throw notFound('This check');
  return { body: check };
}

export const levelRoutes = routesOf(levelOperations, schemas, {
  checks: async ({ db, query }) => ({ body: await listChecks(db, query) }),
  check: checkAnswer,
  learned: async ({ db, params }) => {
    const learned = await learnedOf(db, params.id);
    if (!learned) throw notFound('This machine');
    return { body: learned };
  },
  startCheck: async (call) => {
    refuseOtherMachine(call, call.body.machineId);
    await startCheck(call.db, call.params.id, call.body);
    return checkAnswer(call);
  },
  saveRound: {
    prepare: async ({ db, params, body, who, signal }) => {
      const { raw, reading } = body;
      if (raw.length <= LIMITS.heightsAtOnce) return null;
      const setup = await setupOf(db, params.id);
      return setup && heavy(PLAN_ROUND, [{ raw, reading }, setup], { who, signal });
    },
    handle: async (call) => {
      if (call.tokenMachineId !== null) refuseOtherMachine(call, (await machineOfCheck(call.db, call.params.id)) ?? '');
      await saveRound(call.db, call.params.id, call.params.roundId, call.body, call.prepared as PlannedRound | null);
      return checkAnswer(call);
    },
  },
  saveTurns: async (call) => {
    await saveTurns(call.db, call.params.id, call.params.roundId, call.body);
    return checkAnswer(call);
  },
  endCheck: async (call) => {
    await endCheck(call.db, call.params.id, call.body);
    return checkAnswer(call);
  },
});
