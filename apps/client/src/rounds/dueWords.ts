import { daysLate, dueState } from '@even-bed/core';
import type { SignalKind } from '../ui/Signal';

interface Rule {
  nextDueAt: number;
  everyDays: number;
}

/** How a rule stands, in words: "due today", "2 days late", "in 5 days". */
export function dueWords({ nextDueAt }: Pick<Rule, 'nextDueAt'>, now: number): string {
  const late = daysLate(nextDueAt, now);
  if (late > 0) return late === 1 ? '1 day late' : `${late} days late`;
  if (late === 0) return 'due today';
  const ahead = -late;
  return ahead === 1 ? 'due within a day' : `due in ${ahead} days`;
}

/** The signal of a rule: due from its date on. A machine without a rule is ready. */
export function dueSignal(rule: Rule | null, now: number): SignalKind {
  return rule && dueState({ dueAt: rule.nextDueAt, everyDays: rule.everyDays, now }) === 'due' ? 'due' : 'ready';
}
