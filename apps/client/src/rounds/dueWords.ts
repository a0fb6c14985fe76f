import { daysAhead, dueIn } from '@even-bed/words/span';
import { currentManner } from '../ui/manner';

/** How a rule stands, in words, by the days of the calendar: "due today", "2 days late", "due in 5 days". */
export const dueWords = ({ nextDueAt }: { nextDueAt: number }, now: number): string =>
  dueIn(daysAhead(nextDueAt, now, currentManner().zone));
