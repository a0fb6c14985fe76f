import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';

const DAY_MS = 86_400_000;

/** From the end of one level to the first reading of the next: range then and now, mm; days between. */
export interface DriftSpan {
  left: number;
  found: number;
  days: number;
}

export interface LevelDrift {
  /** How fast its range grows, mm a day, with one standard deviation. */
  rate: number;
  sd: number;
  /** What the rate differs by from one span to the next, mm a day: a tilt seldom grows along one line. */
  spread: number;
  /** Degrees of freedom behind it. */
  freedom: number;
}

/** No range is read nearer than this, mm, one standard deviation: equal spans are not exact. Common practice. */
const SCATTER = 0.01;

/** Spans that a drift needs at least: with fewer there is no telling it from the readings' own scatter. */
export const DRIFT_SPANS = 3;

/**
 * How fast a machine leaves its level: least squares through the origin of what its range grew by against the days, since
 * right after a level it has not drifted yet. Readings scatter alike whatever the days.
 * @param spans one for each pair of levels that follow each other; days ≥ 0
 * @returns null: fewer than three spans, or no days between them
 * @throws RangeError numbers that can't be
 * Source: regression through the origin, e.g. D. C. Montgomery, E. A. Peck, G. G. Vining, Introduction to Linear Regression
 * Analysis, 5th ed., Wiley 2012, §2.10 (from memory).
 */
export function levelDrift(spans: readonly DriftSpan[]): LevelDrift | null {
  needNumbers('levelDrift', { spans });
  for (const { days } of spans)
    if (!(days >= 0)) throw new RangeError(`levelDrift needs days of 0 or more, got ${days}`);
  const squares = spans.reduce((sum, { days }) => sum + days * days, 0);
  if (spans.length < DRIFT_SPANS || !(squares > 0)) return null;
  const grown = spans.map(({ left, found }) => found - left);
  const rate = spans.reduce((sum, { days }, i) => sum + days * grown[i]!, 0) / squares;
  const rest = spans.reduce((sum, { days }, i) => sum + (grown[i]! - rate * days) ** 2, 0);
  const freedom = spans.length - 1;
  const own = spans.flatMap(({ days }, i) => (days > 0 ? [grown[i]! / days - rate] : []));
  const spread = Math.sqrt(own.reduce((sum, off) => sum + off * off, 0) / Math.max(1, own.length - 1));
  return { rate, sd: Math.sqrt(Math.max(rest / freedom, SCATTER ** 2) / squares), spread, freedom };
}

/** The next span grows less fast than this, said so often. */
const SAFE = 0.9;
/** No interval is longer, however still a machine stands: days. Our own choice. */
const LONGEST = 180;

/**
 * In how many days a machine leaves its aim, at the fastest that it may drift the next time, nine times in ten: at least one,
 * rounded down. @param left its range when it was levelled last, mm
 */
export function daysWithin({ rate, sd, spread, freedom }: LevelDrift, left: number, aim: number): number {
  const fastest = rate + tQuantile(SAFE, freedom) * Math.hypot(sd, spread);
  if (!(fastest > 0)) return LONGEST;
  return Math.min(LONGEST, Math.max(1, Math.floor((aim - left) / fastest)));
}

/** Why a level is looked at again. */
export type LookReason =
  | { why: 'forced-off' | 'film' | 'refit' | 'stack' | 'failures'; at: number }
  /** It has drifted so long that it may be out. */
  | { why: 'drift'; at: number };

export interface LookAgain {
  /** The first of each; empty: nothing asks for it now. */
  reasons: LookReason[];
  /** When its own drift asks for it, and how long that is from level to level; null: its drift isn't known. */
  next: { at: number; days: number; rate: number; sd: number } | null;
  /** How many more levels would tell its drift. */
  more: number;
}

/** What has happened on a machine since it was levelled, as far as it bears on its level. */
export type LevelEvent =
  | { at: number; kind: 'forced-off' | 'film' | 'refit' | 'stack' }
  /** A print let go, lifted or stood on a foot. */
  | { at: number; kind: 'failed'; how: string };

/**
 * When to look at a level again: not by the calendar, but after what moves it, and by how fast this machine has drifted.
 * Common practice: after a print was forced off, a new film, a refit, two failures alike.
 * @param levelledAt epoch ms of its last level; null: never
 */
export function lookAgain({
  levelledAt,
  events,
  drift,
  left,
  aim,
  spans,
  now,
}: {
  levelledAt: number | null;
  events: readonly LevelEvent[];
  drift: LevelDrift | null;
  left: number | null;
  aim: number;
  spans: number;
  now: number;
}): LookAgain {
  const more = Math.max(0, DRIFT_SPANS - spans);
  if (levelledAt === null) return { reasons: [], next: null, more };
  const later = events.filter(({ at }) => at > levelledAt).sort((a, b) => a.at - b.at);
  const reasons: LookReason[] = [];
  const failed = new Map<string, number>();
  for (const event of later) {
    if (event.kind === 'failed') {
      const before = failed.get(event.how);
      // One failure has many reasons; a second alike points at the bed.
      if (before !== undefined) add({ why: 'failures', at: event.at });
      else failed.set(event.how, event.at);
    } else add({ why: event.kind, at: event.at });
  }
  const days = drift && left !== null ? daysWithin(drift, left, aim) : null;
  const next = days === null ? null : { at: levelledAt + days * DAY_MS, days, rate: drift!.rate, sd: drift!.sd };
  if (next && now >= next.at) add({ why: 'drift', at: next.at });
  return { reasons, next, more };

  function add(reason: LookReason) {
    if (!reasons.some(({ why }) => why === reason.why)) reasons.push(reason);
  }
}

/** A level of a machine whatever the way, with what is known of it. mm. */
export interface MeasuredLevel {
  /** Of the check or the note. */
  id: string;
  kind: 'check' | 'note';
  at: number;
  way: 'probe' | 'typed' | 'felt' | 'quarters' | 'sheet' | 'film' | 'lock' | 'skirt';
  /** Highest less lowest: at least and at most, where they are not known better; null: this way measures none. */
  least: number | null;
  most: number | null;
  verdict: 'even' | 'uneven' | 'unproven';
  aim: number | null;
}
