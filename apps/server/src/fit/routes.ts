import {
  blanksPdfSchema,
  planListSchema,
  planWriteSchema,
  withdrawPlanSchema,
  type BlanksPdfAsk,
  type PlanWrite,
} from '@even-bed/contract';
import { heavy } from '../kernel/heavy';
import { BLANKS_PDF, SENTENCE } from './longTasks';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { keepPlan, listPlans, sentenceOf, withdrawPlan } from './store';

export const fitRoutes: Route[] = [
  {
    method: 'get',
    path: '/plans',
    area: 'fit',
    access: 'looker',
    summary: 'Plans that stand, of a machine or of all, the latest first',
    answers: 'items: the plans.',
    query: planListSchema,
    handle: async ({ db, query }) => ({
      body: { items: await listPlans(db, query as { machineId?: string; limit: number }) },
    }),
  },
  {
    method: 'get',
    path: '/plans/:id',
    area: 'fit',
    access: 'looker',
    summary: 'One plan',
    answers: 'The plan.',
    handle: async ({ db, params }) => {
      const [plan] = await listPlans(db, { id: params['id']!, limit: 1 });
      if (!plan) throw notFound('This plan');
      return { body: plan };
    },
  },
  {
    method: 'put',
    path: '/plans/:id',
    area: 'fit',
    access: 'technician',
    summary: 'Keep what a tool was asked as a plan for a machine',
    answers: 'kept.',
    body: planWriteSchema,
    prepare: async ({ body, signal }) => {
      const { tool, input } = body as PlanWrite;
      return tool === 'blanks' || tool === 'soak' ? sentenceOf(heavy(SENTENCE, [tool, input as never], signal)) : null;
    },
    handle: async ({ db, params, body, prepared }) => {
      await keepPlan(db, params['id']!, body as PlanWrite, prepared as string | null);
      return { body: { kept: true } };
    },
  },
  {
    method: 'post',
    path: '/plans/:id/withdraw',
    area: 'fit',
    access: 'technician',
    summary: 'Let go of a plan',
    answers: 'withdrawn.',
    body: withdrawPlanSchema,
    handle: async ({ db, params, body }) => {
      await withdrawPlan(db, params['id']!, (body as { at: number }).at);
      return { body: { withdrawn: true } };
    },
  },
  {
    method: 'post',
    path: '/blanks/pdf',
    area: 'fit',
    access: 'looker',
    alone: true,
    summary: 'Layouts of blanks as a PDF to print at 1:1',
    answers: 'A PDF file.',
    body: blanksPdfSchema,
    handle: async ({ body, signal }) => ({
      body: Buffer.from(await heavy(BLANKS_PDF, body as BlanksPdfAsk, signal)),
      file: { type: 'application/pdf', name: 'blanks.pdf' },
    }),
  },
];
