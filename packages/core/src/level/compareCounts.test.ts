import { jStat } from 'jstat';
import { compareCounts, fisherP, sharesApart, triesFor, type Count } from './compareCounts';
import type { StopRule } from './compareMethods';
import { seededRandom } from './seededMap.fixture';

const count = (held: number, of: number): Count => ({ held, of });

describe('fisherP', () => {
  test('the tea tasted, three of four: 0.4857; the twins of convicts: 0.0005367 (R. A. Fisher; as reference programs print it, from memory)', () => {
    expect(fisherP(count(3, 4), count(1, 4))).toBeCloseTo(34 / 70, 12);
    // 2 of 17 fraternal twins against 10 of 13 identical ones.
    expect(fisherP(count(2, 17), count(10, 13))).toBeCloseTo(0.0005367, 7);
  });
  test('by jStat’s hypergeometric odds on 300 seeded pairs, and the same whichever is first', () => {
    const random = seededRandom(11);
    for (let i = 0; i < 300; i++) {
      const [m, n] = [1 + Math.floor(random() * 40), 1 + Math.floor(random() * 40)];
      const [a, b] = [count(Math.floor(random() * (m + 1)), m), count(Math.floor(random() * (n + 1)), n)];
      const held = a.held + b.held;
      const odds = (x: number) => jStat.hypgeom.pdf(x, m + n, m, held);
      let p = 0;
      for (let x = Math.max(0, held - n); x <= Math.min(m, held); x++)
        if (odds(x) <= odds(a.held) * (1 + 1e-7)) p += odds(x);
      expect(fisherP(a, b)).toBeCloseTo(p, 6);
      expect(fisherP(b, a)).toBeCloseTo(fisherP(a, b), 9);
    }
  });
  test('none, all, one and a million', () => {
    expect(fisherP(count(0, 5), count(0, 9))).toBe(1);
    expect(fisherP(count(1, 1), count(0, 1))).toBe(1);
    expect(fisherP(count(5e5, 1e6), count(5e5, 1e6))).toBeCloseTo(1, 6);
    expect(fisherP(count(5e5, 1e6), count(4e5, 1e6))).toBe(0);
    for (const bad of [count(3, 2), count(-1, 2), count(0, 0), count(1.5, 3), count(NaN, 3)])
      expect(() => fisherP(bad, count(1, 2))).toThrow(RangeError);
  });
});

// R. G. Newcombe, Statistics in Medicine 17 (1998), table II, method 10 (from memory): first less second.
test.each([
  [56, 70, 48, 80, 0.0524, 0.3339],
  [9, 10, 3, 10, 0.1705, 0.809],
  [5, 56, 0, 29, -0.0381, 0.1926],
  [10, 10, 0, 10, 0.6075, 1],
])('Newcombe: %i of %i against %i of %i lies between as he printed it', (x, m, y, n, low, high) => {
  const { interval, difference } = sharesApart(count(y, n), count(x, m));
  expect(difference).toBeCloseTo(x / m - y / n, 12);
  expect(interval.low).toBeCloseTo(low, 4);
  expect(interval.high).toBeCloseTo(high, 4);
});

test('its interval holds the true difference about as often as it says', () => {
  const random = seededRandom(5);
  const draw = (share: number, of: number) =>
    count(
      Array.from({ length: of }, () => Number(random() < share)).reduce((all, one) => all + one, 0),
      of,
    );
  for (const [first, second, of] of [
    [0.9, 0.7, 20],
    [0.5, 0.5, 15],
    [0.95, 0.9, 40],
  ] as const) {
    let holds = 0;
    for (let i = 0; i < 2000; i++) {
      const { low, high } = sharesApart(draw(first, of), draw(second, of)).interval;
      if (low <= second - first && second - first <= high) holds++;
    }
    expect(holds / 2000).toBeGreaterThan(0.93);
  }
});

test('tries of each as a table has them: 219 for 10 against 20 of a hundred (J. L. Fleiss, 1981, table A.3, from memory)', () => {
  expect(triesFor(0.15, 0.1)).toBe(219);
  // Near none or all the two shares stay between.
  expect(triesFor(1, 0.3)).toBe(triesFor(0.85, 0.3));
  expect(triesFor(0, 0.3)).toBe(triesFor(0.15, 0.3));
});

describe('compareCounts', () => {
  const rule: StopRule = { each: 10, looks: 2 };
  const ask = (a: Count[], b: Count[], matters = 0.2) => compareCounts({ a, b, rule, matters });

  test('nothing before its look, however far apart; with nothing of one there are no shares', () => {
    expect(ask([], [])).toEqual({
      shares: null,
      apart: null,
      verdict: { says: 'not-yet', more: 10 },
      wouldShow: null,
    });
    const early = ask([count(9, 9)], [count(0, 9)]);
    expect(early.verdict).toEqual({ says: 'not-yet', more: 1 });
    expect(early.shares).toEqual({ first: 1, second: 0 });
  });

  test('different at its look; what comes in after the look waits for the next', () => {
    const [first, second] = [[count(10, 10)], [count(2, 5), count(1, 6)]];
    const seen = ask(first, second);
    expect(seen.verdict).toEqual({ says: 'different' });
    expect(seen.apart!.difference).toBeCloseTo(3 / 11 - 1, 12);
    // More of it, of one and of both, short of the next look: the same answer to the digit.
    expect(ask([...first, count(0, 9)], [...second, count(8, 8)])).toEqual(seen);
  });

  test('not settled goes on; at its end nothing shown, or too small to matter', () => {
    expect(ask([count(8, 10)], [count(7, 10)]).verdict).toEqual({ says: 'go-on', more: 10 });
    expect(ask([count(16, 20)], [count(14, 20)]).verdict).toEqual({ says: 'not-shown' });
    const many = compareCounts({
      a: [count(380, 400)],
      b: [count(379, 400)],
      rule: { each: 400, looks: 1 },
      matters: 0.1,
    });
    expect(many.verdict).toEqual({ says: 'too-small-to-matter' });
  });

  test('a rule that can’t be is refused', () => {
    for (const bad of [
      { each: 1, looks: 1 },
      { each: 5, looks: 9 },
    ] as unknown as StopRule[])
      expect(() => compareCounts({ a: [], b: [], rule: bad, matters: 0.2 })).toThrow(RangeError);
    for (const matters of [0, 1, -1, NaN]) expect(() => ask([], [], matters)).toThrow(RangeError);
    expect(() => ask([count(4, 3)], [])).toThrow('whole counts');
  });

  test.each([1, 3, 5] as const)('with %i looks chance alone ends it in at most one of twenty', (looks) => {
    const random = seededRandom(70 + looks);
    let ended = 0;
    for (let i = 0; i < 1000; i++) {
      const [a, b]: [Count[], Count[]] = [[], []];
      // Batches of all sizes, looked at after each, by somebody who would like to see something.
      for (let said = ''; said !== 'not-shown' && said !== 'too-small-to-matter';) {
        for (const list of [a, b]) {
          const of = 1 + Math.floor(random() * 9);
          list.push(
            count(
              Array.from({ length: of }, () => Number(random() < 0.8)).reduce((x, y) => x + y, 0),
              of,
            ),
          );
        }
        said = compareCounts({ a, b, rule: { each: 15, looks }, matters: 0.2 }).verdict.says;
        if (said !== 'different') continue;
        ended++;
        break;
      }
    }
    expect(ended / 1000).toBeLessThanOrEqual(0.05);
  });
});
