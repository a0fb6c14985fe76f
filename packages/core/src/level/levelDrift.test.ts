import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from './seededMap.fixture';
import { daysWithin, levelDrift, lookAgain, type DriftSpan, type LevelEvent } from './levelDrift';

const DAY = 86_400_000;

test('a machine that grows 0.01 a day is found exactly without noise', () => {
  const spans: DriftSpan[] = [7, 14, 21].map((days) => ({ left: 0.03, found: 0.03 + 0.01 * days, days }));
  const drift = levelDrift(spans)!;
  expect(drift.rate).toBeCloseTo(0.01, 12);
  // Equal spans are no proof of an exact rate: ranges are read to 0.01, over √(7² + 14² + 21²) days.
  expect(drift.sd).toBeCloseTo(0.01 / Math.sqrt(686), 12);
  // From 0.03 to an aim of 0.10 in seven days at that rate, and a day less at the fastest that it may be.
  expect(daysWithin(drift, 0.03, 0.1)).toBe(6);
});

test('the textbook’s sums: slope Σxy/Σx², its deviation √(SSE/(n−1)/Σx²)', () => {
  // x 1, 2, 3; y 1, 3, 2: Σxy = 13, Σx² = 14, slope 13/14; SSE = 14 − 13²/14 = 27/14 (worked by hand).
  const drift = levelDrift([1, 2, 3].map((days, i) => ({ left: 0, found: [1, 3, 2][i]!, days })))!;
  expect(drift.rate).toBeCloseTo(13 / 14, 12);
  expect(drift.sd).toBeCloseTo(Math.sqrt(27 / 14 / 2 / 14), 12);
  expect(drift.freedom).toBe(2);
});

test('two spans, or no days, tell nothing', () => {
  expect(levelDrift([])).toBeNull();
  expect(
    levelDrift([
      { left: 0, found: 1, days: 1 },
      { left: 0, found: 1, days: 1 },
    ]),
  ).toBeNull();
  expect(levelDrift(Array<DriftSpan>(4).fill({ left: 0, found: 0.1, days: 0 }))).toBeNull();
  expect(() => levelDrift([{ left: 0, found: NaN, days: 1 }])).toThrow('needs numbers');
  expect(() => levelDrift([{ left: 0, found: 1, days: -1 }])).toThrow('days of 0 or more');
});

test('its rate lies below what the interval goes by nine times in ten, within 3 points', () => {
  const random = seededRandom(11);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const times = 4000;
  let safe = 0;
  for (let t = 0; t < times; t++) {
    const rate = 0.002 + 0.008 * random();
    const spans = Array.from({ length: 3 + (t % 6) }, () => {
      const days = 3 + 20 * random();
      return { left: 0.03, found: 0.03 + rate * days + 0.012 * normal(), days };
    });
    const days = daysWithin(levelDrift(spans)!, 0.03, 0.1);
    // The day that is named is not past the true one, but for the day that is always granted.
    if (days <= Math.max(1, 0.07 / rate)) safe++;
  }
  expect(safe / times).toBeGreaterThan(0.87);
});

test('a tilt that grows another way every time leaves the aim no oftener than it is said to: followed to the next look', () => {
  const random = seededRandom(12);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const machines = trials(2000, 2000);
  let out = 0;
  // Range of a plate of 200 mm whose two slopes have moved by what days of random tilting do.
  const grown = (days: number, pace: number) =>
    0.03 + 200 * (Math.abs(pace * days * normal()) + Math.abs(pace * days * normal())) + 0.008 * normal();
  for (let t = 0; t < machines; t++) {
    const pace = (0.5 + random()) * 2e-5;
    const spans = Array.from({ length: 3 + (t % 6) }, () => {
      const days = 5 + 15 * random();
      return { left: 0.03, found: Math.max(0, grown(days, pace)), days };
    });
    const days = daysWithin(levelDrift(spans)!, 0.03, 0.1);
    if (days > 1 && grown(days, pace) > 0.1 + 0.016) out++;
  }
  proved('drift', 'tilts at random', `out of its aim at the next look in ${out} of ${machines}, 200 of 2,000 are said`);
  expect(out / machines).toBeLessThanOrEqual(0.1);
});

test('a machine that stands still is looked at twice a year at least', () => {
  const still = levelDrift([90, 120, 150].map((days) => ({ left: 0.05, found: 0.04, days })))!;
  expect(daysWithin(still, 0.04, 0.1)).toBe(180);
  expect(daysWithin({ rate: 1, sd: 0, spread: 0, freedom: 3 }, 0.04, 0.1)).toBe(1);
});

describe('lookAgain', () => {
  const ask = (events: LevelEvent[], more: Partial<Parameters<typeof lookAgain>[0]> = {}) =>
    lookAgain({ levelledAt: 10, events, drift: null, left: null, aim: 0.1, spans: 0, now: 20 * DAY, ...more });
  test.each([
    ['nothing', [], []],
    ['a print forced off', [{ at: 11, kind: 'forced-off' }], ['forced-off']],
    ['forced off before the level', [{ at: 9, kind: 'forced-off' }], []],
    ['a new film', [{ at: 11, kind: 'film' }], ['film']],
    ['one failure', [{ at: 11, kind: 'failed', how: 'let-go' }], []],
    [
      'two of different kinds',
      [
        { at: 11, kind: 'failed', how: 'let-go' },
        { at: 12, kind: 'failed', how: 'foot' },
      ],
      [],
    ],
    [
      'two alike',
      [
        { at: 11, kind: 'failed', how: 'let-go' },
        { at: 12, kind: 'failed', how: 'let-go' },
      ],
      ['failures'],
    ],
    [
      'a refit and a film',
      [
        { at: 12, kind: 'film' },
        { at: 11, kind: 'refit' },
      ],
      ['refit', 'film'],
    ],
  ] as [string, LevelEvent[], string[]][])('%s', (_, events, why) => {
    expect(ask(events).reasons.map((one) => one.why)).toEqual(why);
  });
  test('its own drift asks when it may be out, and not before', () => {
    const drift = { rate: 0.01, sd: 0, spread: 0, freedom: 4 };
    const at = (now: number) => ask([], { levelledAt: 0, drift, left: 0.03, spans: 5, now });
    expect(at(6 * DAY)).toMatchObject({ reasons: [], next: { at: 7 * DAY, days: 7, rate: 0.01 }, more: 0 });
    expect(at(7 * DAY).reasons).toEqual([{ why: 'drift', at: 7 * DAY }]);
  });
  test('never levelled: nothing to go by, and how many more would tell', () => {
    expect(ask([{ at: 1, kind: 'film' }], { levelledAt: null, spans: 1 })).toEqual({
      reasons: [],
      next: null,
      more: 2,
    });
  });
});
