import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';
import { LOOK_LEVELS, type Compared, type CompareVerdict, type StopRule } from './compareMethods';

/** How many of so many tries came well: prints that held, sheets that came off. */
export interface Count {
  held: number;
  of: number;
}

/** With so many degrees of freedom Student's t is the bell curve. */
const BELL = 1e9;
/** Beyond, a sum of odds says nothing that a person could have counted. */
const MOST_TRIES = 1e6;

function needCount(who: string, { held, of }: Count): void {
  if (!(Number.isInteger(of) && of >= 1 && of <= MOST_TRIES))
    throw new RangeError(`${who} needs 1 to ${MOST_TRIES} whole tries, got ${of}`);
  if (!(Number.isInteger(held) && held >= 0 && held <= of))
    throw new RangeError(`${who} needs whole counts from 0 to all ${of} tries, got ${held}`);
}

const rate = ({ held, of }: Count) => held / of;

/**
 * How often chance alone parts two counts at least so far, both totals given.
 * @throws RangeError counts that are not whole, or more than their tries
 * Source: R. A. Fisher, J. R. Stat. Soc. 98 (1935) 39–82; two-sided by adding up what is at most as likely.
 */
export function fisherP(a: Count, b: Count): number {
  needNumbers('fisherP', { a, b });
  needCount('fisherP', a);
  needCount('fisherP', b);
  const held = a.held + b.held;
  const low = Math.max(0, held - b.of);
  const high = Math.min(a.of, held);
  // Log of how likely each is, against the lowest: each next by the ratio to the one before.
  const logs = new Float64Array(high - low + 1);
  let top = 0;
  for (let x = low + 1; x <= high; x++) {
    const ratio = ((a.of - x + 1) * (held - x + 1)) / (x * (b.of - held + x));
    logs[x - low] = logs[x - low - 1]! + Math.log(ratio);
    top = Math.max(top, logs[x - low]!);
  }
  const seen = logs[a.held - low]!;
  let [all, as] = [0, 0];
  for (const log of logs) {
    const weight = Math.exp(log - top);
    all += weight;
    // As likely up to what adding logs loses.
    if (log <= seen + 1e-9) as += weight;
  }
  return as / all;
}

/**
 * Between which the share of one lies.
 * Source: E. B. Wilson, J. Am. Stat. Assoc. 22 (1927) 209–212.
 */
function wilson({ held, of }: Count, z: number): { low: number; high: number } {
  const p = held / of;
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const reach = (z / (1 + (z * z) / of)) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of));
  return { low: Math.max(0, middle - reach), high: Math.min(1, middle + reach) };
}

/**
 * Difference of two shares, second less first, with where it lies.
 * @param level how often the interval holds the true difference, 0.5 to 1
 * @throws RangeError counts that are not whole, or more than their tries
 * Source: R. G. Newcombe, Statistics in Medicine 17 (1998) 873–890, method 10.
 */
export function sharesApart(a: Count, b: Count, level = 0.95): Compared {
  const z = tQuantile((1 + level) / 2, BELL);
  const p = fisherP(a, b);
  const [one, other] = [wilson(a, z), wilson(b, z)];
  const difference = rate(b) - rate(a);
  return {
    difference,
    interval: {
      low: difference - Math.hypot(rate(b) - other.low, one.high - rate(a)),
      high: difference + Math.hypot(other.high - rate(b), rate(a) - one.low),
    },
    p,
  };
}

/** Of the bell curve: at one in twenty, both sides; and what four times in five asks for. */
const [Z_TEST, Z_POWER] = [1.959964, 0.841621];

/**
 * Tries of each that would show a difference four times in five, about a share.
 * @param share of both together, 0 to 1 · @param matters the difference, 0 to 1
 * Source: J. L. Fleiss, Statistical Methods for Rates and Proportions, 2nd ed., Wiley 1981, eq. 3.18 and 3.19 (from memory).
 */
export function triesFor(share: number, matters: number): number {
  // Half of it on either side, and never past none or all.
  const first = Math.min(Math.max(share - matters / 2, 0), 1 - matters);
  const second = first + matters;
  const middle = (first + second) / 2;
  const spread = Math.sqrt(first * (1 - first) + second * (1 - second));
  const n = (Z_TEST * Math.sqrt(2 * middle * (1 - middle)) + Z_POWER * spread) ** 2 / matters ** 2;
  return Math.ceil((n / 4) * (1 + Math.sqrt(1 + 4 / (n * matters))) ** 2);
}

export interface CompareCountsAsk {
  /** Counts as they came in: a day's, a batch's. */
  a: readonly Count[];
  b: readonly Count[];
  /** A look after every so many tries of each. */
  rule: StopRule;
  /** A difference of shares that would matter, above 0 and below 1. */
  matters: number;
}

export interface CompareCountsAnswer {
  /** Shares of the first and the second, 0 to 1, and what parts them; null: nothing of one of them yet. */
  shares: { first: number; second: number } | null;
  apart: Compared | null;
  verdict: CompareVerdict;
  wouldShow: number | null;
}

/**
 * Two ways compared by how often each came well, by a rule that was fixed before. Only counts up to the look count: the batch
 * in which it is reached still does, those after it wait for the next.
 * @throws RangeError a rule or counts that can't be
 */
export function compareCounts({ a, b, rule, matters }: CompareCountsAsk): CompareCountsAnswer {
  needNumbers('compareCounts', { a, b, rule, matters });
  for (const count of [...a, ...b]) needCount('compareCounts', count);
  if (!(Number.isInteger(rule.each) && rule.each >= 2))
    throw new RangeError(`compareCounts needs at least 2 whole tries of each for a look, got ${rule.each}`);
  if (!(rule.looks in LOOK_LEVELS)) throw new RangeError(`compareCounts needs 1 to 5 looks, got ${rule.looks}`);
  if (!(matters > 0 && matters < 1))
    throw new RangeError(`compareCounts needs a difference above 0 and below 1 that matters, got ${matters}`);
  const have = Math.min(sum(a).of, sum(b).of);
  const look = Math.min(rule.looks, Math.floor(have / rule.each));
  const told = look === 0 ? [sum(a), sum(b)] : [upTo(a, look * rule.each), upTo(b, look * rule.each)];
  const [first, second] = told as [Count, Count];
  if (first.of === 0 || second.of === 0)
    return { shares: null, apart: null, verdict: { says: 'not-yet', more: rule.each - have }, wouldShow: null };
  const level = LOOK_LEVELS[rule.looks];
  const apart = sharesApart(first, second, look === 0 ? 0.95 : 1 - level);
  const wouldShow = triesFor((first.held + second.held) / (first.of + second.of), matters);
  const says = (verdict: CompareVerdict): CompareCountsAnswer => ({
    shares: { first: rate(first), second: rate(second) },
    apart,
    verdict,
    wouldShow,
  });
  if (look === 0) return says({ says: 'not-yet', more: rule.each - have });
  if (apart.p < level) return says({ says: 'different' });
  if (look < rule.looks) return says({ says: 'go-on', more: (look + 1) * rule.each - have });
  const small = apart.interval.low > -matters && apart.interval.high < matters;
  return says({ says: small ? 'too-small-to-matter' : 'not-shown' });
}

const sum = (counts: readonly Count[]): Count =>
  counts.reduce((all, { held, of }) => ({ held: all.held + held, of: all.of + of }), { held: 0, of: 0 });

/** Batches until so many tries are there, the one that gets there among them. */
function upTo(counts: readonly Count[], tries: number): Count {
  const all = { held: 0, of: 0 };
  for (const { held, of } of counts) {
    if (all.of >= tries) break;
    all.held += held;
    all.of += of;
  }
  return all;
}
