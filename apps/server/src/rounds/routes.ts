import { ruleOperations } from '@even-bed/contract/rounds/operations';
import * as schemas from '@even-bed/contract/rounds/records';
import { findMachine } from '../fleet/store';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { saveRule } from './store';

export const ruleRoutes = routesOf(ruleOperations, schemas, {
  saveRule: async ({ db, params, body }) => {
    const write = body;
    const machine = await findMachine(db, write.machineId);
    if (!machine) throw notFound('This machine');
    return { body: await saveRule(db, params.id, write) };
  },
});
