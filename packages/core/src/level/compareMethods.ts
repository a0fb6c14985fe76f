import { needNumbers } from '../needNumbers';
import { tBelow, tQuantile } from '../surfaces/studentT';

/** A difference of two means, second less first, with where it lies. */
export interface Compared {
  difference: number;
  /** Between which it lies, so often. */
  interval: { low: number; high: number };
  /** How often as much would be seen if there were none. */
  p: number;
}

export interface Welch extends Compared {
  se: number;
  freedom: number;
}

const meanOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
function varianceOf(values: readonly number[]): number {
  const mean = meanOf(values);
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1);
}
function need(who: string, a: readonly number[], b: readonly number[]) {
  needNumbers(who, { a, b });
  if (a.length < 2 || b.length < 2)
    throw new RangeError(`${who} needs at least 2 readings of each, got ${a.length} and ${b.length}`);
}

/**
 * Difference of two means whose scatter need not be alike.
 * @param a, b two or more readings each
 * @param level how often the interval holds the true difference, 0.5 to 1
 * @returns null: no reading differs from its like, so that nothing is known of the scatter
 * @throws RangeError fewer than two of either, numbers that can't be
 * Source: B. L. Welch, Biometrika 34 (1947) 28–35; degrees of freedom after Satterthwaite (1946).
 */
export function welch(a: readonly number[], b: readonly number[], level = 0.95): Welch | null {
  need('welch', a, b);
  const [va, vb] = [varianceOf(a) / a.length, varianceOf(b) / b.length];
  const se = Math.sqrt(va + vb);
  if (!(se > 0)) return null;
  const freedom = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
  const difference = meanOf(b) - meanOf(a);
  const reach = tQuantile((1 + level) / 2, freedom) * se;
  return {
    difference,
    se,
    freedom,
    interval: { low: difference - reach, high: difference + reach },
    p: 2 * tBelow(-Math.abs(difference) / se, freedom),
  };
}

/** So many ways to deal the readings out are gone through one by one; beyond, so many are drawn. */
const ALL_WAYS = 13_000;
const DRAWN = 4_000;

/**
 * The same by dealing the readings out anew: how often chance alone parts them so far, and the differences that it would not
 * refuse. It asks for no bell curve. Up to 8 and 8 readings every way is gone through; with more, ways are drawn.
 * @param random 0 to 1, seeded; only asked where there are too many ways
 * @throws RangeError fewer than two of either, numbers that can't be
 * Source: R. A. Fisher, The Design of Experiments (1935), §21; the interval by inverting the test, e.g. P. Good, Permutation,
 * Parametric and Bootstrap Tests, Springer 2005, §3.2 (from memory).
 */
export function permuted(a: readonly number[], b: readonly number[], random: () => number, level = 0.95): Compared {
  need('permuted', a, b);
  const deals = dealsOf(a.length, b.length, random);
  const difference = meanOf(b) - meanOf(a);
  const scale = scaleOf(a, b);
  const pAt = (shift: number) =>
    pOf(
      a,
      b.map((value) => value - shift),
      deals,
      scale,
    );
  const alpha = 1 - level;
  // The test refuses ever less as the shift comes nearer to the difference: halve the way from where it surely refuses.
  const edge = (sign: 1 | -1): number => {
    let far = difference + sign * 4 * scale;
    if (pAt(far) > alpha) return sign * Infinity;
    let near = difference;
    for (let i = 0; i < 60 && Math.abs(far - near) > 1e-7 * scale; i++) {
      const middle = (far + near) / 2;
      if (pAt(middle) > alpha) near = middle;
      else far = middle;
    }
    return far;
  };
  return { difference, interval: { low: edge(-1), high: edge(1) }, p: pAt(0) };
}

/**
 * How often chance alone parts the readings at least so far, by dealing them out anew.
 * @throws RangeError fewer than two of either, numbers that can't be
 */
export function permutationP(a: readonly number[], b: readonly number[], random: () => number): number {
  need('permutationP', a, b);
  return pOf(a, b, dealsOf(a.length, b.length, random), scaleOf(a, b));
}

/** How large the readings are apart from each other: for what counts as alike. */
const scaleOf = (a: readonly number[], b: readonly number[]) =>
  Math.max(1e-12, Math.abs(meanOf(b) - meanOf(a)), ...[...a, ...b].map((value) => Math.abs(value - meanOf(a))));

/** Share of the deals that part the readings at least so far. */
function pOf(a: readonly number[], b: readonly number[], deals: readonly Uint32Array[], scale: number): number {
  const all = [...a, ...b];
  const total = all.reduce((sum, value) => sum + value, 0);
  const apart = (sumB: number) => Math.abs(sumB / b.length - (total - sumB) / a.length);
  const seen = apart(b.reduce((sum, value) => sum + value, 0));
  let as = 0;
  for (const deal of deals) {
    let sum = 0;
    for (const i of deal) sum += all[i]!;
    if (apart(sum) >= seen - 1e-9 * scale) as++;
  }
  return as / deals.length;
}

/** Which of all readings go to the second: every way, or ways drawn, the true one among them. */
function dealsOf(first: number, second: number, random: () => number): Uint32Array[] {
  const n = first + second;
  let ways = 1;
  for (let i = 1; i <= second; i++) ways = (ways * (n - second + i)) / i;
  const own = Uint32Array.from({ length: second }, (_, i) => first + i);
  if (ways <= ALL_WAYS) {
    const deals: Uint32Array[] = [];
    const deal: number[] = [];
    const choose = (from: number) => {
      if (deal.length === second) return void deals.push(Uint32Array.from(deal));
      for (let i = from; i <= n - (second - deal.length); i++) {
        deal.push(i);
        choose(i + 1);
        deal.pop();
      }
    };
    choose(0);
    return deals;
  }
  const deals = [own];
  const order = Array.from({ length: n }, (_, i) => i);
  while (deals.length < DRAWN) {
    for (let i = n - 1; i > n - 1 - second; i--) {
      const j = Math.floor(random() * (i + 1));
      [order[i], order[j]] = [order[j]!, order[i]!];
    }
    deals.push(Uint32Array.from(order.slice(n - second)));
  }
  return deals;
}

/** What a comparison reads of each way. */
export const COMPARE_READS = ['length', 'time', 'held'] as const;
export type CompareReads = (typeof COMPARE_READS)[number];

/** When is looked, fixed before it begins: after every so many of each, so often at most. */
export interface StopRule {
  each: number;
  looks: 1 | 2 | 3 | 4 | 5;
}

/**
 * At which p each look may end it, so that over all looks chance alone ends it in one of twenty.
 * Source: S. J. Pocock, Biometrika 64 (1977) 191–199, table 1, α = 0.05 (from memory).
 */
export const LOOK_LEVELS: Record<StopRule['looks'], number> = { 1: 0.05, 2: 0.0294, 3: 0.0221, 4: 0.0182, 5: 0.0158 };

/** What a comparison says by its rule. */
export type CompareVerdict =
  /** Not yet a look: so many more of each. */
  | { says: 'not-yet'; more: number }
  | { says: 'different' }
  /** Not settled at this look; so many more of each until the next. */
  | { says: 'go-on'; more: number }
  /** Its last look: no difference was shown. Smaller than what matters, or not known. */
  | { says: 'too-small-to-matter' | 'not-shown' };

export interface CompareAsk {
  a: readonly number[];
  b: readonly number[];
  rule: StopRule;
  /** A difference that would matter. */
  matters: number;
}

export interface CompareAnswer {
  welch: Welch | null;
  permuted: Compared | null;
  verdict: CompareVerdict;
  /** How many of each in all would show a difference that matters, by the scatter so far; null: nothing is known of it yet. */
  wouldShow: number | null;
}

/** A difference that matters is shown so often. */
const POWER = 0.8;

/**
 * Two methods compared by a rule that was fixed before: whether this is a look, and what it says. Only readings up to the
 * look count: more of one than of the other wait.
 * @param random 0 to 1, seeded
 * @throws RangeError a rule or numbers that can't be
 */
export function compareMethods({ a, b, rule, matters }: CompareAsk, random: () => number): CompareAnswer {
  needNumbers('compareMethods', { a, b, rule, matters });
  if (!(Number.isInteger(rule.each) && rule.each >= 2))
    throw new RangeError(`compareMethods needs at least 2 whole readings of each for a look, got ${rule.each}`);
  if (!(rule.looks in LOOK_LEVELS)) throw new RangeError(`compareMethods needs 1 to 5 looks, got ${rule.looks}`);
  if (!(matters > 0)) throw new RangeError(`compareMethods needs a difference above 0 that matters, got ${matters}`);
  const have = Math.min(a.length, b.length);
  const look = Math.min(rule.looks, Math.floor(have / rule.each));
  const most = rule.each * rule.looks;
  const known = have >= 2 ? welch(a.slice(0, most), b.slice(0, most)) : null;
  const wouldShow = known ? readingsFor(known, Math.min(have, most), matters) : null;
  if (look === 0)
    return { welch: known, permuted: null, verdict: { says: 'not-yet', more: rule.each - have }, wouldShow };
  const [ca, cb] = [a.slice(0, look * rule.each), b.slice(0, look * rule.each)];
  const level = 1 - LOOK_LEVELS[rule.looks];
  const seen = welch(ca, cb, level);
  const dealt = permuted(ca, cb, random, level);
  const says = (verdict: CompareVerdict): CompareAnswer => ({ welch: seen, permuted: dealt, verdict, wouldShow });
  // Without any scatter the calipers can't tell the readings apart: the deals still can.
  const p = seen?.p ?? dealt.p;
  if (p < LOOK_LEVELS[rule.looks]) return says({ says: 'different' });
  if (look < rule.looks) return says({ says: 'go-on', more: (look + 1) * rule.each - have });
  const small = seen !== null && seen.interval.low > -matters && seen.interval.high < matters;
  return says({ says: small ? 'too-small-to-matter' : 'not-shown' });
}

/** Readings of each that show a difference that matters four times in five, by the scatter seen. */
function readingsFor({ se }: Welch, each: number, matters: number): number {
  // Mean variance of one reading of either.
  const variance = (se * se * each) / 2;
  const wanted = (freedom: number) =>
    (2 * variance * (tQuantile(0.975, freedom) + tQuantile(POWER, freedom)) ** 2) / matters ** 2;
  // With the bell curve's own quantiles it is too few by one or two: from there upward.
  let n = Math.max(2, Math.ceil(Math.min(MOST, wanted(1e9))));
  while (n < MOST && wanted(2 * (n - 1)) > n) n++;
  return n;
}
/** More is not told apart from never. */
const MOST = 1e6;

/** What may differ between two series beside the method. */
export const HELD = ['machine', 'surface', 'gauge', 'hands', 'heat', 'material'] as const;
export type Held = (typeof HELD)[number];

/**
 * What was held equal and what was not: whatever differs beside what is asked is compared too.
 * @param differs what was not the same in both
 * @param meant what the comparison is about, where it is one of these
 */
export const heldEqual = (differs: readonly Held[], meant: Held | null): { equal: Held[]; also: Held[] } => ({
  equal: HELD.filter((one) => !differs.includes(one) && one !== meant),
  also: HELD.filter((one) => differs.includes(one) && one !== meant),
});
