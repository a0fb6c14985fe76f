import { ruleWriteSchema, type RuleWrite } from '@even-bed/contract';
import { findMachine } from '../fleet/store';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { saveRule } from './store';

export const ruleRoutes: Route[] = [
  {
    method: 'put',
    path: '/rules/:id',
    area: 'rounds',
    access: 'lead',
    summary: 'Set how often a machine is checked',
    answers: 'The rule with its next date.',
    body: ruleWriteSchema,
    handle: async ({ db, params, body }) => {
      const write = body as RuleWrite;
      const machine = await findMachine(db, write.machineId);
      if (!machine) throw notFound('This machine');
      return { body: await saveRule(db, params['id']!, write, machine.name) };
    },
  },
];
