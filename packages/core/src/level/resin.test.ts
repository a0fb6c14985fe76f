import fc from 'fast-check';
import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from './seededMap.fixture';
import { footZero, gapBudget, USUAL_GIVES, type GapBudgetAsk } from './gapBudget';
import { readTestPlate, type PieceLook } from './testPlate';
import { CORNERS, readTugs, tugAnswer, tugsFrom, TUGS, type Tug } from './tugs';
import { zeroStands, type ZeroEvent } from './zeroStands';

const none = { value: 0, sd: 0 };
const exact: GapBudgetAsk = {
  way: 'quarters',
  gauge: { value: 0.1, sd: 0 },
  film: { value: 0.125, sd: 0 },
  gaugeGives: none,
  filmGives: none,
  raise: 0,
  firstLayer: 0.05,
};

describe('gapBudget', () => {
  test('office paper 0.10 and film of 0.10 to 0.15 are 0.025 to 0.05 apart (common practice)', () => {
    for (const film of [0.125, 0.15]) {
      const { gap } = gapBudget({ ...exact, film: { value: film, sd: 0 } });
      expect(gap.value - 0.05).toBeCloseTo(0.1 - film, 12);
    }
  });

  test('a gap under two thirds of its layer shows as a foot, over four thirds it is loose, under nothing it presses', () => {
    const at = (film: number) => gapBudget({ ...exact, film: { value: film, sd: 0 } });
    expect([0.16, 0.125, 0.105, 0.08].map((film) => at(film).expect)).toEqual(['presses', 'foot', 'even', 'loose']);
    expect(at(0.125).jog).toBe(0.03);
    expect(at(0.105).jog).toBe(0.01);
    expect(at(0.08).jog).toBe(-0.02);
  });

  test('what is not known well is said to be unsure, with what would tell', () => {
    const unsure = { ...exact, film: { value: 0.115, sd: 0.002 }, gauge: { value: 0.1, sd: 0.02 } };
    expect(gapBudget(unsure)).toMatchObject({ expect: 'unsure', measure: 'gauge' });
    expect(gapBudget({ ...unsure, gauge: { value: 0.1, sd: 0.001 }, film: { value: 0.115, sd: 0.02 } })).toMatchObject({
      expect: 'unsure',
      measure: 'film',
    });
  });

  test('a jog is in hundredths, never down further than is surely too much, and jogged the gap is never under its layer', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.03, max: 0.4, noNaN: true }),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 0.03, noNaN: true }),
        (gauge, film, sd) => {
          const ask = { ...exact, gauge: { value: gauge, sd }, film: { value: film, sd: 0 } };
          const { gap, jog } = gapBudget(ask);
          expect(Math.abs(Math.round(jog * 100) - jog * 100)).toBeLessThan(1e-9);
          expect(gap.value + jog).toBeGreaterThanOrEqual(0.05 - 1e-9);
          if (jog < 0) expect(gap.value + jog).toBeGreaterThanOrEqual(0.05 + 2 * sd - 1e-9);
        },
      ),
    );
  });

  test('with the film as gauge its thickness doesn’t matter, only what it gives', () => {
    const film = { ...exact, way: 'film' as const, gauge: null, filmGives: USUAL_GIVES.film };
    expect(gapBudget(film).gap.value).toBeCloseTo(0.042, 12);
    expect(gapBudget({ ...film, film: { value: 0.3, sd: 0.1 } }).gap.value).toBeCloseTo(0.042, 12);
  });

  test('refuses a sheet where none lies, none where one does, and what is no number', () => {
    expect(() => gapBudget({ ...exact, way: 'lock' })).toThrow('a gauge on sheets');
    expect(() => gapBudget({ ...exact, gauge: null })).toThrow('a gauge on sheets');
    expect(() => gapBudget({ ...exact, firstLayer: 0 })).toThrow('first layer');
    expect(() => gapBudget({ ...exact, film: { value: NaN, sd: 0 } })).toThrow('needs numbers');
    expect(() => gapBudget({ ...exact, film: { value: 0.1, sd: -1 } })).toThrow('uncertainties');
  });
});

describe('footZero', () => {
  test('the same piece 0.04 shorter flat than on supports: zero up by 0.04', () => {
    const read = footZero({ flat: [9.96, 9.97, 9.95, 9.96], control: [10, 10.01, 9.99, 10] });
    expect(read).toMatchObject({ verdict: 'raise', jog: 0.04 });
    expect(read.squeezed.value).toBeCloseTo(0.04, 12);
  });
  test('one of each can’t tell a hundredth: so many more would', () => {
    const read = footZero({ flat: [9.99], control: [10] });
    expect(read).toMatchObject({ verdict: 'unsure', jog: 0 });
    expect(read.more).toBeGreaterThanOrEqual(3);
  });
  test('one reading taller, or of each, moves nothing: it shows nothing of what heights scatter by', () => {
    expect(footZero({ flat: [10.05], control: [10] })).toMatchObject({ verdict: 'unsure', jog: 0 });
    expect(footZero({ flat: [9.8], control: [10] })).toMatchObject({ verdict: 'unsure', jog: 0 });
  });
  test('where nothing is squeezed, and prints scatter by 0.02, it moves zero in at most one of twenty', () => {
    const random = seededRandom(3);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const plates = trials(2000, 1000);
    for (const n of [1, 2, 3, 5]) {
      let [moved, lowered] = [0, 0];
      for (let i = 0; i < plates; i++) {
        const of = () => Array.from({ length: n }, () => 10 + 0.02 * normal());
        const { verdict } = footZero({ flat: of(), control: of() });
        if (verdict === 'raise' || verdict === 'lower') moved++;
        if (verdict === 'lower') lowered++;
      }
      proved(
        'foot',
        `nothing squeezed, scatter 0.02, ${n} of each`,
        `zero moved in ${moved}, lowered in ${lowered} of ${plates}`,
      );
      expect(moved / plates).toBeLessThanOrEqual(0.06);
    }
  });
  test('taller flat than on supports: down, by less than it is taller', () => {
    const read = footZero({ flat: [10.08, 10.08, 10.08], control: [10, 10, 10] });
    expect(read.verdict).toBe('lower');
    expect(read.jog).toBeLessThan(0);
    expect(read.jog).toBeGreaterThan(-0.08);
  });
  test('refuses nothing, NaN and what is no height', () => {
    expect(() => footZero({ flat: [], control: [1] })).toThrow('a height of each');
    expect(() => footZero({ flat: [NaN], control: [1] })).toThrow('above 0');
    expect(() => footZero({ flat: [1], control: [0] })).toThrow('above 0');
  });
});

describe('readTugs', () => {
  const read = (...values: number[]) => readTugs(tugsFrom(values), 'firm');
  test.each([
    [[1, 1, 1, 1], 'even', []],
    [[2, 2, 2, 2], 'even-tighter', []],
    [[0, 0, 0, 0], 'all-loose', []],
    [[3, 4, 3, 4], 'all-tight', []],
    [[0, 1, 1, 1], 'corner', ['rear-left']],
    [[1, 1, 3, 1], 'corner', ['rear-right']],
    [[1, 1, 0, 2], 'corner', ['rear-right']],
    // Rear left and rear right looser: a side.
    [[0, 1, 0, 1], 'side', ['rear-left', 'rear-right']],
    // Rear left and front right looser: it rocks.
    [[0, 0, 1, 1], 'rocks', ['rear-left', 'front-right']],
    [[0, 0, 1, 2], 'mixed', ['rear-left', 'front-right']],
  ] as const)('%j is %s', (values, verdict, at) => {
    const found = read(...values);
    expect(found.verdict).toBe(verdict);
    expect(found.at).toEqual(at);
    expect([...found.order].sort()).toEqual([...CORNERS].sort());
  });
  test('the other school takes “does not move” for even', () => {
    expect(readTugs(tugsFrom([2, 2, 2, 2]), 'still').verdict).toBe('even');
    expect(readTugs(tugsFrom([1, 1, 1, 1]), 'still').verdict).toBe('even-looser');
  });
  test('tightening begins where it is loosest and goes across', () => {
    expect(read(1, 1, 0, 1).order).toEqual(['rear-right', 'front-left', 'rear-left', 'front-right']);
  });
  test('a range is as wide as the tugs allow', () => {
    expect(read(1, 1, 1, 1).range).toEqual({ least: 0, most: 0.03 });
    expect(read(0, 1, 1, 1).range).toEqual({ least: 0, most: null });
    const apart = read(0, 2, 2, 2).range;
    expect(apart.least).toBeCloseTo(0.03, 12);
  });
  test('a job goes by it, and by one sheet as by four alike; not by what is missing', () => {
    expect(tugAnswer([1, 1, 1, 0], 'firm')).toBe('uneven');
    expect(tugAnswer([1], 'firm')).toBe('even');
    expect(tugAnswer([0], 'firm')).toBe('loose');
    expect(tugAnswer([1, 1, undefined, 1], 'firm')).toBeNull();
    expect(() => tugAnswer([NaN], 'firm')).toThrow('needs numbers');
    expect(() => readTugs({ 'rear-left': 'soft' as Tug } as never, 'firm')).toThrow(TUGS[0]);
  });
});

describe('readTestPlate (common practice)', () => {
  const looks = (bad: number[], look: PieceLook = 'failed') =>
    Array.from({ length: 9 }, (_, i): PieceLook => (bad.includes(i) ? look : 'held'));
  test.each([
    [[], true, 'held', null],
    [[0, 1, 2], true, 'tilt', 'rear'],
    [[2, 5, 8], false, 'tilt', 'right'],
    [[4], true, 'flatness', null],
    [[1, 6], true, 'flatness', null],
    [[4], false, 'level-first', null],
    [[0, 1, 2, 3, 4, 5, 6, 7, 8], true, 'exposure', null],
    [[0, 1, 2, 3, 4, 5, 6, 7, 8], false, 'zero', null],
  ] as const)('%j with a proven level %s: %s', (bad, proven, verdict, side) => {
    expect(readTestPlate(looks([...bad]), proven)).toEqual({ verdict, side });
  });
  test('refuses too few and words that are none', () => {
    expect(() => readTestPlate([], true)).toThrow('9 looks');
    expect(() => readTestPlate(Array(9).fill('fine') as never, true)).toThrow('held');
  });
});

describe('zeroStands', () => {
  const event = (at: number, what: ZeroEvent['what']): ZeroEvent => ({ at, what });
  const film = { slot: 'film', surfaceId: 'F' } as const;
  const flex = { slot: 'top', surfaceId: 'X' } as const;
  test.each([
    ['nothing', [], []],
    [
      'a new film',
      [event(5, { kind: 'gone', ...film }), event(6, { kind: 'fitted', slot: 'film', surfaceId: 'G' })],
      ['film'],
    ],
    [
      'the same film out and in',
      [event(5, { kind: 'gone', ...film }), event(6, { kind: 'fitted', ...film })],
      ['film'],
    ],
    ['the platform off', [event(5, { kind: 'gone', slot: 'platform', surfaceId: 'P' })], ['platform']],
    ['the platform lapped', [event(5, { kind: 'worked', slot: 'platform' })], ['platform']],
    ['a flex plate off and on again', [event(5, { kind: 'gone', ...flex }), event(6, { kind: 'fitted', ...flex })], []],
    [
      'another flex plate',
      [event(5, { kind: 'gone', ...flex }), event(6, { kind: 'fitted', slot: 'top', surfaceId: 'Y' })],
      ['stack'],
    ],
    ['a flex plate off', [event(5, { kind: 'gone', ...flex })], ['stack']],
    ['a magnet on', [event(5, { kind: 'fitted', slot: 'base', surfaceId: 'B' })], ['stack']],
    ['plain layers changed', [event(5, { kind: 'layers' })], ['stack']],
    ['levelled again', [event(5, { kind: 'screws' })], ['screws']],
    ['home moved', [event(5, { kind: 'home' })], ['home']],
    ['a print forced off', [event(5, { kind: 'forced-off' })], []],
    [
      'all of it before zero was set',
      [event(1, { kind: 'home' }), event(2, { kind: 'screws' }), event(3, { kind: 'gone', ...film })],
      [],
    ],
  ] as const)('%s', (_, events, why) => {
    const found = zeroStands(4, events);
    expect(found.since.map((one) => one.why)).toEqual(why);
    expect(found.state).toBe(why.length === 0 ? 'stands' : 'expired');
  });
  test('never set is not expired; the first of a kind counts; events may come in any order', () => {
    expect(zeroStands(null, [event(5, { kind: 'home' })])).toEqual({ state: 'never', since: [] });
    const events = [event(9, { kind: 'screws' }), event(5, { kind: 'screws' }), event(7, { kind: 'home' })];
    expect(zeroStands(1, events).since).toEqual([
      { why: 'screws', at: 5 },
      { why: 'home', at: 7 },
    ]);
  });
});

test('a zero set at no time is none', () => {
  expect(zeroStands(NaN, [])).toEqual({ state: 'never', since: [] });
  expect(zeroStands(Infinity, [])).toEqual({ state: 'never', since: [] });
});
