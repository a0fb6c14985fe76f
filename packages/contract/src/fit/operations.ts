import type { Page } from '../kit/fields';
import type { Plan } from './records';
import { operations, type FileAnswer } from '../kit/operation';

export interface FitAnswers {
  plans: Page<Plan>;
  plan: Plan;
  keepPlan: { kept: boolean };
  withdrawPlan: { withdrawn: boolean };
  blanksPdf: FileAnswer;
}

export const fitOperations = operations<typeof import('./records'), FitAnswers>()('fit', {
  plans: {
    method: 'get',
    path: '/plans',
    access: 'looker',
    summary: 'Plans that stand, of a machine or of all, the latest first',
    answers: 'items: the plans.',
    query: 'planListSchema',
    list: { usual: 50, most: 200 },
    shows: ['Plan'],
  },
  plan: {
    method: 'get',
    path: '/plans/:id',
    access: 'looker',
    summary: 'One plan',
    answers: 'The plan.',
    shows: ['Plan'],
  },
  keepPlan: {
    method: 'put',
    path: '/plans/:id',
    access: 'technician',
    summary: 'Keep what a tool was asked as a plan for a machine',
    answers: 'kept.',
    body: 'planWriteSchema',
    touches: ['Plan', 'Book'],
    waits: { of: 'id' },
  },
  withdrawPlan: {
    method: 'post',
    path: '/plans/:id/withdraw',
    access: 'technician',
    summary: 'Let go of a plan',
    answers: 'withdrawn.',
    body: 'withdrawPlanSchema',
    touches: ['Plan', 'Book'],
  },
  blanksPdf: {
    method: 'post',
    path: '/blanks/pdf',
    access: 'looker',
    summary: 'Layouts of blanks as a PDF to print at 1:1',
    answers: 'A PDF file.',
    body: 'blanksPdfSchema',
    alone: true,
    gives: 'application/pdf',
  },
});
