import type { Rule } from './records';
import { operations } from '../kit/operation';

export interface RuleAnswers {
  saveRule: Rule;
}

export const ruleOperations = operations<typeof import('./records'), RuleAnswers>()('rounds', {
  saveRule: {
    method: 'put',
    path: '/rules/:id',
    access: 'lead',
    summary: 'Set how often a machine is checked',
    answers: 'The rule with its next date.',
    body: 'ruleWriteSchema',
    touches: ['Machine', 'Book'],
    refuses: [404],
  },
});
