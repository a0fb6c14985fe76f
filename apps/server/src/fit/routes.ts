import { fitOperations } from '@even-bed/contract/fit/operations';
import * as schemas from '@even-bed/contract/fit/records';
import { heavy } from '../kernel/heavy';
import { BLANKS_PDF, SENTENCE } from './longTasks';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { keepPlan, listPlans, sentenceOf, withdrawPlan } from './store';

export const fitRoutes = routesOf(fitOperations, schemas, {
  plans: async ({ db, query }) => ({ body: await listPlans(db, query) }),
  plan: async ({ db, params }) => {
    const [plan] = (await listPlans(db, { id: params.id, limit: 1 })).items;
    if (!plan) throw notFound('This plan');
    return { body: plan };
  },
  keepPlan: {
    prepare: async ({ body, signal }) => {
      const { tool, input } = body;
      return tool === 'blanks' || tool === 'soak' ? sentenceOf(heavy(SENTENCE, [tool, input as never], signal)) : null;
    },
    handle: async ({ db, params, body, prepared }) => {
      await keepPlan(db, params.id, body, prepared as string | null);
      return { body: { kept: true } };
    },
  },
  withdrawPlan: async ({ db, params, body }) => {
    await withdrawPlan(db, params.id, (body as { at: number }).at);
    return { body: { withdrawn: true } };
  },
  blanksPdf: async ({ body, signal }) => ({
    body: Buffer.from(await heavy(BLANKS_PDF, body, signal)),
    file: { type: 'application/pdf', name: 'blanks.pdf' },
  }),
});
