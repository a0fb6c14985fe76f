import { jStat } from 'jstat';
import { compareMethods, heldEqual, LOOK_LEVELS, permutationP, permuted, welch, type StopRule } from './compareMethods';
import { seededRandom } from './seededMap.fixture';

/** Student's sleep data: extra hours with each of two drugs. "Student", Biometrika 6 (1908). */
const FIRST = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2];
const SECOND = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];

const normalFrom = (random: () => number) => () =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

describe('welch', () => {
  test('Student’s sleep data as reference programs print it: t 1.8608, 17.776 degrees, p 0.07939 (from memory)', () => {
    const { difference, se, freedom, p, interval } = welch(FIRST, SECOND)!;
    expect(difference).toBeCloseTo(1.58, 12);
    expect(difference / se).toBeCloseTo(1.8608, 4);
    expect(freedom).toBeCloseTo(17.776, 3);
    expect(p).toBeCloseTo(0.07939, 5);
    expect(interval.low).toBeCloseTo(-0.2054832, 6);
    expect(interval.high).toBeCloseTo(3.3654832, 6);
  });

  test('interval and p by jStat’s t to 1e-6 on 300 seeded pairs', () => {
    const random = seededRandom(3);
    const normal = normalFrom(random);
    for (let i = 0; i < 300; i++) {
      const a = Array.from({ length: 2 + Math.floor(random() * 14) }, () => 0.2 + 0.02 * normal());
      const b = Array.from({ length: 2 + Math.floor(random() * 14) }, () => 0.21 + 0.05 * normal());
      const [va, vb] = [jStat.variance(a, true) / a.length, jStat.variance(b, true) / b.length];
      const se = Math.sqrt(va + vb);
      const freedom = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
      const difference = jStat.mean(b) - jStat.mean(a);
      const reach = jStat.studentt.inv(0.975, freedom) * se;
      const own = welch(a, b)!;
      expect(Math.abs(own.interval.low - (difference - reach))).toBeLessThan(1e-6);
      expect(Math.abs(own.interval.high - (difference + reach))).toBeLessThan(1e-6);
      expect(Math.abs(own.p - 2 * jStat.studentt.cdf(-Math.abs(difference) / se, freedom))).toBeLessThan(1e-6);
    }
  });

  test('no scatter at all says nothing of the scatter; one reading, NaN and a million are refused or answered', () => {
    expect(welch([1, 1], [2, 2])).toBeNull();
    expect(() => welch([1], [2, 3])).toThrow('at least 2 readings');
    expect(() => welch([1, NaN], [2, 3])).toThrow('needs numbers');
    const many = Array.from({ length: 1e5 }, (_, i) => i % 7);
    expect(welch(many, many)!.difference).toBe(0);
  });
});

describe('permuted', () => {
  test('three against three fully apart: 2 of the 20 deals, p 0.1 (Fisher’s counting)', () => {
    const { p, difference, interval } = permuted([1, 2, 3], [11, 12, 13], () => 0);
    expect(p).toBeCloseTo(0.1, 12);
    expect(difference).toBe(10);
    // With three of each chance alone does as much in one of ten: no difference can be refused at one in twenty.
    expect(interval).toEqual({ low: -Infinity, high: Infinity });
  });

  test('the whole list of deals of Student’s data counted by another way gives the same p', () => {
    // Six and six of them, dealt by the bits of a number.
    const [a, b] = [FIRST.slice(0, 6), SECOND.slice(0, 6)];
    const all = [...a, ...b];
    const apart = (of: number) => {
      const second = all.filter((_, i) => (of >> i) & 1);
      const first = all.filter((_, i) => !((of >> i) & 1));
      return Math.abs(jStat.mean(second) - jStat.mean(first));
    };
    const seen = apart(0b111111000000);
    let [as, ways] = [0, 0];
    for (let of = 0; of < 1 << 12; of++) {
      if ([...of.toString(2)].filter((bit) => bit === '1').length !== 6) continue;
      ways++;
      if (apart(of) >= seen - 1e-9) as++;
    }
    expect(ways).toBe(924);
    expect(permuted(a, b, () => 0).p).toBeCloseTo(as / ways, 12);
  });

  test('its interval is where its own test stops refusing, and lies about Welch’s', () => {
    const { interval } = permuted(FIRST, SECOND, seededRandom(1));
    const own = welch(FIRST, SECOND)!;
    expect(interval.low).toBeCloseTo(own.interval.low, 0);
    expect(interval.high).toBeCloseTo(own.interval.high, 0);
    const moved = (shift: number) =>
      permuted(
        FIRST,
        SECOND.map((v) => v - shift),
        seededRandom(1),
      ).p;
    expect(moved(interval.low - 0.05)).toBeLessThanOrEqual(0.06);
    expect(moved(interval.low + 0.05)).toBeGreaterThan(0.04);
  });
});

test('coverage of both intervals within 2 points of 95 on 2,000 seeded trials, scatter unlike', () => {
  const random = seededRandom(2026);
  const normal = normalFrom(random);
  const trials = 2000;
  let [byWelch, byDeals] = [0, 0];
  for (let i = 0; i < trials; i++) {
    const a = Array.from({ length: 7 }, () => 0.2 + 0.015 * normal());
    const b = Array.from({ length: 7 }, () => 0.23 + 0.02 * normal());
    const one = welch(a, b)!.interval;
    if (one.low <= 0.03 && one.high >= 0.03) byWelch++;
    // The interval holds a difference just where the test of it does not refuse.
    const moved = b.map((value) => value - 0.03);
    if (permutationP(a, moved, () => 0) > 0.05) byDeals++;
  }
  expect(Math.abs(byWelch / trials - 0.95)).toBeLessThan(0.02);
  expect(Math.abs(byDeals / trials - 0.95)).toBeLessThan(0.02);
});

test.each([1, 3, 5] as const)('a rule of %i looks ends by chance in one of twenty, as it says', (looks) => {
  const random = seededRandom(40 + looks);
  const normal = normalFrom(random);
  const trials = 2000;
  let ended = 0;
  for (let i = 0; i < trials; i++) {
    const a = Array.from({ length: 6 * looks }, () => 0.02 * normal());
    const b = Array.from({ length: 6 * looks }, () => 0.02 * normal());
    for (let look = 1; look <= looks; look++)
      if (welch(a.slice(0, 6 * look), b.slice(0, 6 * look))!.p < LOOK_LEVELS[looks]) {
        ended++;
        break;
      }
  }
  expect(Math.abs(ended / trials - 0.05)).toBeLessThan(0.02);
});

describe('compareMethods', () => {
  const rule: StopRule = { each: 4, looks: 2 };
  const ask = (a: number[], b: number[]) => compareMethods({ a, b, rule, matters: 0.02 }, () => 0);
  test('says nothing before its look, however far apart', () => {
    expect(ask([1, 1.01, 1.02], [2, 2.01]).verdict).toEqual({ says: 'not-yet', more: 2 });
    expect(ask([], []).verdict).toEqual({ says: 'not-yet', more: 4 });
  });
  test('different at its first look; otherwise on to the second, and there it ends', () => {
    const a = [0.2, 0.21, 0.19, 0.2];
    expect(ask(a, [0.3, 0.31, 0.29, 0.3]).verdict).toEqual({ says: 'different' });
    expect(ask(a, [0.21, 0.2, 0.19, 0.205]).verdict).toEqual({ says: 'go-on', more: 4 });
    const [more, alike] = [
      [...a, 0.2, 0.205, 0.195, 0.2],
      [0.201, 0.205, 0.195, 0.2, 0.2, 0.21, 0.19, 0.2],
    ];
    expect(ask(more, alike).verdict).toEqual({ says: 'too-small-to-matter' });
    expect(
      ask(
        more,
        alike.map((v, i) => v + (i % 2 ? 0.05 : -0.05)),
      ).verdict,
    ).toEqual({ says: 'not-shown' });
  });
  test('one more of one than of the other changes nothing', () => {
    const a = [0.2, 0.21, 0.19, 0.2];
    const b = [0.21, 0.2, 0.19, 0.205];
    expect(ask([...a, 99], b)).toMatchObject({
      verdict: { says: 'go-on', more: 4 },
      welch: welch(a, b, 1 - LOOK_LEVELS[2]),
    });
  });
  test('so many of each would show what matters: 17 for one deviation, as the tables have it (from memory)', () => {
    // Two groups, 5 % two-sided, 80 %: a difference of one standard deviation takes 17 of each (Cohen, 1988, table 2.4.1).
    const half = Math.sqrt(7 / 8);
    const spread = [-1, 1, -1, 1, -1, 1, -1, 1].map((v) => v * half);
    const { wouldShow } = compareMethods({ a: spread, b: spread, rule: { each: 8, looks: 1 }, matters: 1 }, () => 0);
    expect(Math.abs(wouldShow! - 17)).toBeLessThanOrEqual(1);
  });
  test('refuses rules and numbers that can’t be', () => {
    expect(() => compareMethods({ a: [1], b: [1], rule: { each: 1, looks: 1 }, matters: 1 }, () => 0)).toThrow(
      'at least 2',
    );
    expect(() => compareMethods({ a: [1], b: [1], rule: { each: 4, looks: 9 as 1 }, matters: 1 }, () => 0)).toThrow(
      '1 to 5',
    );
    expect(() => compareMethods({ a: [1], b: [1], rule, matters: 0 }, () => 0)).toThrow('matters');
    expect(() => compareMethods({ a: [NaN], b: [1], rule, matters: 1 }, () => 0)).toThrow('needs numbers');
  });
});

test('what differs beside what is asked is compared too', () => {
  expect(heldEqual(['machine'], 'gauge')).toEqual({
    equal: ['surface', 'hands', 'heat', 'material'],
    also: ['machine'],
  });
  expect(heldEqual(['gauge'], 'gauge').also).toEqual([]);
  expect(heldEqual([], null).equal).toHaveLength(6);
});

test('more readings than a byte counts are dealt as they are: 129 and 129 alike show no difference', () => {
  const random = seededRandom(4);
  const series = () => Array.from({ length: 129 }, () => random());
  const [a, b] = [series(), series()];
  const { permuted, welch } = compareMethods({ a, b, rule: { each: 129, looks: 1 }, matters: 0.1 }, random);
  expect(Math.abs(permuted!.p - welch!.p)).toBeLessThan(0.05);
  expect(permuted!.p).toBeGreaterThan(0.001);
});
