import type { ZeroStands } from '../level/zeroStands';
import { dueState } from '../rounds/nextDue';

/** What the shop's records hold of whether a machine can print. Times are epoch ms. */
export interface ReadinessFacts {
  /** Until when what lies on it is on hold, or a job on it waits; null: never was. */
  heldUntil: number | null;
  /** A level check of it is under way. */
  checking: boolean;
  /** Title of a job that is under way on it, the latest; null: none. */
  job: string | null;
  /** Whether its surfaces are written down at all, and something to print on lies there now. */
  followed: boolean;
  top: boolean;
  /** Of a resin machine: whether its zero stands; null: nobody follows it. */
  zero: ZeroStands['state'] | null;
  /** What a surface that lies on it waits for; null: nothing. */
  asked: { tag: string; what: string } | null;
  /** Of its latest prints, at most twenty: how many failed, and how many of the last three. */
  prints: { of: number; failed: number; lastThree: number };
  rule: { everyDays: number; nextDueAt: number } | null;
  /** Range that its last check left, and the aim then, mm; null: never checked. */
  left: { range: number; aim: number } | null;
}

/** One thing that stands against printing. */
export type AgainstPrinting =
  | { code: 'held'; until: number }
  | { code: 'job'; title: string }
  | { code: 'check' }
  | { code: 'bare' }
  | { code: 'zero'; state: 'never' | 'expired' }
  | { code: 'asked'; tag: string; what: string }
  | { code: 'failing'; failed: number; of: number }
  | { code: 'over-aim'; range: number; aim: number }
  | { code: 'level-due'; since: number };

export interface Readiness {
  /** ready: print · look: it prints, and somebody should look first · busy: hands or a cure have it · not: don't print on it */
  state: 'ready' | 'look' | 'busy' | 'not';
  /** The weightiest first. */
  against: AgainstPrinting[];
}

/** So many of the latest prints are looked back upon. */
export const PRINTS_BACK = 20;
/** Failures among them from which somebody should look, and of the last three. Common practice: three in a row are no chance. */
const MANY_FAILED = 5;
const IN_A_ROW = 3;

const BUSY: readonly AgainstPrinting['code'][] = ['held', 'job', 'check'];

/** What a machine is by the weightiest thing against it. A zero that nobody ever wrote down is no proof that it is wrong. */
export function stateBy(first: AgainstPrinting | undefined): Readiness['state'] {
  if (first === undefined) return 'ready';
  if (BUSY.includes(first.code)) return 'busy';
  return first.code === 'bare' || (first.code === 'zero' && first.state === 'expired') ? 'not' : 'look';
}

/**
 * What stands against printing on a machine: the one answer that every list, page, board and program shows.
 * @param now epoch ms
 * @throws RangeError a time that is no number
 */
export function readiness(facts: ReadinessFacts, now: number): Readiness {
  if (!Number.isFinite(now)) throw new RangeError(`readiness needs a time, got ${now}`);
  const { heldUntil, job, checking, followed, top, zero, asked, prints, rule, left } = facts;
  const inRow = prints.lastThree >= IN_A_ROW;
  const many = prints.failed >= MANY_FAILED;
  const failing = many ? prints : inRow ? { failed: IN_A_ROW, of: IN_A_ROW } : null;
  const due = rule !== null && dueState({ ...rule, dueAt: rule.nextDueAt, now }) === 'due';
  const against: AgainstPrinting[] = [
    ...(heldUntil !== null && heldUntil > now ? [{ code: 'held', until: heldUntil } as const] : []),
    ...(job === null ? [] : [{ code: 'job', title: job } as const]),
    ...(checking ? [{ code: 'check' } as const] : []),
    ...(followed && !top ? [{ code: 'bare' } as const] : []),
    ...(zero === 'expired' || zero === 'never' ? [{ code: 'zero', state: zero } as const] : []),
    ...(asked ? [{ code: 'asked', ...asked } as const] : []),
    ...(failing ? [{ code: 'failing', failed: failing.failed, of: failing.of } as const] : []),
    ...(left !== null && left.range > left.aim ? [{ code: 'over-aim', ...left } as const] : []),
    ...(due ? [{ code: 'level-due', since: rule.nextDueAt } as const] : []),
  ];
  return { state: stateBy(against[0]), against };
}
