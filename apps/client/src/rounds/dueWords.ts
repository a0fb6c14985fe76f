import { dueState } from '@even-bed/core/rounds/nextDue';
import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { shopZone } from '../ui/formatTime';
import type { SignalKind } from '../ui/Signal';

interface Rule {
  nextDueAt: number;
  everyDays: number;
}

/** How a rule stands, in words, by the days of the calendar: "due today", "2 days late", "due in 5 days". */
export function dueWords({ nextDueAt }: Pick<Rule, 'nextDueAt'>, now: number): string {
  const ahead = differenceInCalendarDays(nextDueAt, now, { in: shopZone() });
  if (ahead === 0) return 'due today';
  if (ahead === 1) return 'due tomorrow';
  if (ahead > 1) return `due in ${ahead} days`;
  return ahead === -1 ? '1 day late' : `${-ahead} days late`;
}

/** The signal of a rule: due from its date on. A machine without a rule is ready. */
export function dueSignal(rule: Rule | null, now: number): SignalKind {
  return rule && dueState({ dueAt: rule.nextDueAt, everyDays: rule.everyDays, now }) === 'due' ? 'due' : 'ready';
}
