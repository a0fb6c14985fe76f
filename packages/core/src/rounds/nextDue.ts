const DAY_MS = 86_400_000;

/**
 * When a rule that runs every `everyDays` days is due next.
 * @param lastDone epoch ms of the last time it was done, or null when it never was
 * @param from epoch ms from which a rule that was never done counts, itself due at once
 * @throws RangeError an interval that is not at least one day
 * @example nextDue({ everyDays: 14, lastDone: 0, from: 0 }) // 1209600000
 */
export function nextDue({
  everyDays,
  lastDone,
  from,
}: {
  everyDays: number;
  lastDone: number | null;
  from: number;
}): number {
  if (!(everyDays >= 1)) throw new RangeError(`A rule needs at least 1 day between two times, got ${everyDays}`);
  return lastDone === null ? from : lastDone + everyDays * DAY_MS;
}

/** Share of the interval before its end from which a rule counts as coming up. Common practice: a tenth, at least a day. */
const SOON_SHARE = 0.1;

/** ready: nothing to do yet · soon: within a tenth of the interval (a day at least) · due: now or late. */
export type DueState = 'ready' | 'soon' | 'due';

/** How a due date stands at `now` (epoch ms). */
export function dueState({ dueAt, everyDays, now }: { dueAt: number; everyDays: number; now: number }): DueState {
  if (now >= dueAt) return 'due';
  return dueAt - now <= Math.max(DAY_MS, everyDays * SOON_SHARE * DAY_MS) ? 'soon' : 'ready';
}
