import { fitOperations } from '@even-bed/contract/fit/operations';
import * as schemas from '@even-bed/contract/fit/records';
import { heavy } from '../kernel/heavy';
import { ANSWER, BLANKS_PDF } from './longTasks';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { answerOf, keepPlan, listPlans, withdrawPlan } from './store';

export const fitRoutes = routesOf(fitOperations, schemas, {
  plans: async ({ db, query }) => ({ body: await listPlans(db, query) }),
  plan: async ({ db, params }) => {
    const [plan] = (await listPlans(db, { id: params.id, limit: 1 })).items;
    if (!plan) throw notFound('This plan');
    return { body: plan };
  },
  keepPlan: {
    prepare: async ({ body, who, signal }) => {
      const { tool, input } = body;
      return tool === 'blanks' || tool === 'soak' || tool === 'compare'
        ? answerOf(heavy(ANSWER, [tool, input], { who, signal }))
        : null;
    },
    handle: async ({ db, params, body, prepared }) => {
      await keepPlan(db, params.id, body, prepared as Awaited<ReturnType<typeof answerOf>> | null);
      return { body: { kept: true } };
    },
  },
  withdrawPlan: async ({ db, params, body }) => {
    await withdrawPlan(db, params.id, (body as { at: number }).at);
    return { body: { withdrawn: true } };
  },
  blanksPdf: async ({ body, who, signal }) => ({
    body: Buffer.from(await heavy(BLANKS_PDF, body, { who, signal })),
    file: { type: 'application/pdf', name: 'blanks.pdf' },
  }),
});
