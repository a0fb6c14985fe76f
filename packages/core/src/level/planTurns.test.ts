import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { roundTurn } from './roundTurn';
import { DegenerateAdjusters, DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { spreadOf, type HeightPoint } from './HeightPoint';
import { planTurns, type Adjuster } from './planTurns';
import { seededMap, seededRandom } from './seededMap.fixture';
import { turnsFor } from './threads';

const PITCHES = [0.5, 0.7, 0.8];

/** Adjusters of a made-up bed: near a ring round the middle, one sense and pitch each. */
function seededAdjusters(seed: number, count: number): Adjuster[] {
  const random = seededRandom(seed + 99_991);
  return Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.3 * random())) / count;
    return {
      id: `a${i}`,
      x: 110 + 90 * Math.cos(angle),
      y: 110 + 90 * Math.sin(angle),
      pitch: PITCHES[Math.floor(random() * 3)]!,
      clockwise: random() < 0.5 ? 'raises' : 'lowers',
    };
  });
}

/** A stiff plate on equal springs: force and moment balance solved by a matrix library, no code shared with the plan. */
function stiffPlate(adjusters: readonly Adjuster[], turns: readonly number[]) {
  const rises = adjusters.map(({ pitch, clockwise }, i) => turns[i]! * pitch * (clockwise === 'raises' ? 1 : -1));
  const places = new Matrix(adjusters.map(({ x, y }) => [x, y, 1]));
  const plane = new SingularValueDecomposition(places, { autoTranspose: true }).solve(Matrix.columnVector(rises));
  const [a, b, c] = [plane.get(0, 0), plane.get(1, 0), plane.get(2, 0)];
  const move = (x: number, y: number) => a * x + b * y + c;
  return { move, strain: Math.max(...adjusters.map(({ x, y }, i) => Math.abs(rises[i]! - move(x, y)))) };
}

const moved = (points: readonly HeightPoint[], move: (x: number, y: number) => number) =>
  points.map(({ x, y, z }) => z + move(x, y));

const corners = (clockwise: Adjuster['clockwise'], pitch = 0.7): Adjuster[] => [
  { id: 'front-left', x: 0, y: 0, pitch, clockwise },
  { id: 'front-right', x: 200, y: 0, pitch, clockwise },
  { id: 'rear-left', x: 0, y: 200, pitch, clockwise },
  { id: 'rear-right', x: 200, y: 200, pitch, clockwise },
];
const tilted = (a: number, b: number): HeightPoint[] =>
  [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: a * x + b * y })));

describe('planTurns', () => {
  test.each([3, 4, 5, 6])(
    '250 seeded stiff beds with %d adjusters: exact turns leave the fit, said turns the prediction',
    (count) => {
      for (let seed = 1; seed <= 250; seed++) {
        const points = seededMap(seed * 7 + count);
        const adjusters = seededAdjusters(seed, count);
        const plan = planTurns({ points, adjusters, aim: 0.1 });
        const exact = stiffPlate(
          adjusters,
          plan.turns.map(({ turns }) => turns),
        );
        expect(exact.strain).toBeLessThan(1e-9);
        const fitted = spreadOf(fitPlane(points).residuals).range;
        expect(Math.abs(spreadOf(moved(points, exact.move)).range - fitted)).toBeLessThan(1e-9);
        const said = stiffPlate(
          adjusters,
          plan.turns.map(({ said: turns }) => turns),
        );
        const after = spreadOf(moved(points, said.move));
        expect(Math.abs(after.range - plan.after.range)).toBeLessThan(1e-9);
        expect(Math.abs(after.rms - plan.after.rms)).toBeLessThan(1e-9);
        for (const { said: turns } of plan.turns) expect(turns).toBe(roundTurn(turns));
      }
    },
  );

  test('the largest turn is smallest: no other height of the target does better', () => {
    for (let seed = 1; seed <= 100; seed++) {
      const adjusters = seededAdjusters(seed, 4);
      const plan = planTurns({ points: seededMap(seed), adjusters });
      const largest = (lift: number) =>
        Math.max(...plan.turns.map(({ rise }, i) => Math.abs(rise + lift) / adjusters[i]!.pitch));
      const best = largest(0);
      for (const lift of [-0.3, -0.01, -1e-4, 1e-4, 0.01, 0.3])
        expect(largest(lift)).toBeGreaterThanOrEqual(best - 1e-12);
    }
  });

  test('a kept adjuster stays, and the others do its part', () => {
    const plan = planTurns({ points: tilted(0.002, 0), adjusters: corners('lowers'), keep: 'front-left', aim: 0.1 });
    const [frontLeft, frontRight] = plan.turns;
    expect(frontLeft).toMatchObject({ rise: 0, turns: 0, said: 0 });
    // 200 mm at 0.002 is 0.4 mm too high: down by 0.4 on M4, 0.5714 turn; common practice: clockwise lowers.
    expect(frontRight!.rise).toBeCloseTo(-0.4, 12);
    expect(frontRight!.turns).toBeCloseTo(0.4 / 0.7, 12);
  });

  test('the sense of the thread turns the direction over, the move stays', () => {
    const lowers = planTurns({ points: tilted(0.002, 0.001), adjusters: corners('lowers') });
    const raises = planTurns({ points: tilted(0.002, 0.001), adjusters: corners('raises') });
    lowers.turns.forEach((turn, i) => {
      expect(raises.turns[i]!.rise).toBeCloseTo(turn.rise, 12);
      expect(raises.turns[i]!.turns).toBeCloseTo(-turn.turns, 12);
    });
    expect(lowers.turns[3]!.turns).toBeGreaterThan(0);
  });

  test('lowering comes before raising, and only adjusters with a turn are in the order', () => {
    const plan = planTurns({ points: tilted(0.003, 0), adjusters: corners('lowers'), aim: 0.05 });
    const rises = plan.order.map((id) => plan.turns.find((turn) => turn.id === id)!.saidRise);
    expect(rises).toEqual([...rises].sort((p, q) => Number(p > 0) - Number(q > 0) || Math.abs(q) - Math.abs(p)));
    expect(rises.every((rise) => rise !== 0)).toBe(true);
    expect(rises.length).toBeGreaterThan(0);
  });

  test('small turns are left out only while the result stays within the aim', () => {
    const points = tilted(0.0004, 0);
    const wide = planTurns({ points, adjusters: corners('lowers'), aim: 0.075 });
    const tight = planTurns({ points, adjusters: corners('lowers'), aim: 0.03 });
    expect(wide.after.range).toBeLessThanOrEqual(0.075);
    expect(tight.after.range).toBeLessThanOrEqual(0.03);
    expect(tight.order.length).toBeGreaterThan(wide.order.length);
    expect(tight.turns.some(({ said }) => said !== 0 && Math.abs(said) < 1 / 8)).toBe(true);
  });

  test('within the aim already: nothing to turn', () => {
    const plan = planTurns({ points: tilted(0.0002, 0), adjusters: corners('lowers'), aim: 0.05 });
    expect(plan).toMatchObject({ verdict: 'within', order: [] });
    expect(plan.after).toEqual(plan.before);
  });

  test('says what limits the result', () => {
    const dome = tilted(0, 0).map((p) => ({ ...p, z: -0.00003 * ((p.x - 100) ** 2 + (p.y - 100) ** 2) }));
    const shaped = planTurns({ points: dome, adjusters: corners('lowers'), aim: 0.1 });
    expect(shaped).toMatchObject({ limit: 'shape', verdict: 'short' });
    const random = seededRandom(5);
    const grid = Array.from({ length: 100 }, (_, i) => ({
      x: 20 * (i % 10),
      y: 20 * Math.floor(i / 10),
      z: 0.02 * random(),
    }));
    expect(planTurns({ points: grid, adjusters: corners('lowers') }).limit).toBe('noise');
    expect(planTurns({ points: dome, adjusters: corners('lowers'), noise: 0.2 }).limit).toBe('noise');
    const coarse = planTurns({ points: tilted(0.0005, 0.0003), adjusters: corners('lowers', 1.25) });
    expect(coarse.limit).toBe('tilt');
  });

  test.each<[string, Adjuster[]]>([
    ['two adjusters', corners('lowers').slice(0, 2)],
    ['three in line', [0, 100, 200].map((x) => ({ id: `${x}`, x, y: x, pitch: 0.5, clockwise: 'lowers' }))],
    ['two on one spot', [...corners('lowers'), { ...corners('lowers')[0]!, id: 'again' }]],
    ['no pitch', corners('lowers', 0)],
    ['a pitch that is not a number', corners('lowers', NaN)],
    ['a place that is not a number', [...corners('lowers'), { ...corners('lowers')[0]!, x: NaN }]],
  ])('refuses %s', (_, adjusters) => {
    expect(() => planTurns({ points: tilted(0.001, 0), adjusters })).toThrow(DegenerateAdjusters);
  });

  test('refuses an unknown adjuster to keep, and readings without a plane', () => {
    expect(() => planTurns({ points: tilted(0.001, 0), adjusters: corners('lowers'), keep: 'nobody' })).toThrow(
      DegenerateAdjusters,
    );
    expect(() => planTurns({ points: tilted(0.001, 0).slice(0, 3), adjusters: corners('lowers') })).toThrow(
      DegenerateInput,
    );
  });
});

describe('turnsFor', () => {
  // Common practice: the worked facts of the trade.
  test('0.20 mm is 0.4 turn on a 0.5 mm pitch and 0.2857 on M4', () => {
    expect(turnsFor(0.2, 0.5)).toBeCloseTo(0.4, 12);
    expect(turnsFor(0.2, 0.7)).toBeCloseTo(0.2857, 4);
    expect(() => turnsFor(0.2, 0)).toThrow(RangeError);
  });
});

describe('turns that could not help are not asked for', () => {
  const FOUR = [
    [0, 0],
    [220, 0],
    [0, 220],
    [220, 220],
  ].map(([x, y], i): Adjuster => ({ id: `k${i}`, x: x!, y: y!, pitch: 0.7, clockwise: 'lowers' }));

  test('readings nearly on one line, 110 and 110.01, tell no turn', () => {
    const points = [0, 50, 100, 150].map((y, i) => ({ x: i % 2 ? 110 : 110.01, y, z: 0.01 * (i % 3) }));
    expect(() => planTurns({ points, adjusters: FOUR, aim: 0.1 })).toThrow(/nearly on one line/);
  });

  test('readings in one corner say how little they tell', () => {
    const points = [0, 20, 40].flatMap((y) => [0, 20, 40].map((x) => ({ x, y, z: 0.003 * x })));
    expect(planTurns({ points, adjusters: FOUR, aim: 0.1 }).uncertainty).toBeGreaterThan(0.05);
    const wide = [0, 110, 220].flatMap((y) => [0, 110, 220].map((x) => ({ x, y, z: 0.003 * x })));
    expect(planTurns({ points: wide, adjusters: FOUR, aim: 0.1 }).uncertainty).toBeLessThan(0.01);
  });

  test('on 10,000 seeded beds no plan foretells a worse range, or a gain that nobody could see', () => {
    let turned = 0;
    let left = 0;
    for (let seed = 1; seed <= 10_000; seed++) {
      const random = seededRandom(seed);
      const shape = 0.3 * (random() - 0.5);
      const points = [10, 110, 210].flatMap((y) =>
        [10, 110, 210].map((x) => ({
          x,
          y,
          z: 0.0006 * (random() - 0.5) * x + shape * ((x - 110) / 100) ** 2 + 0.03 * (random() - 0.5),
        })),
      );
      const { before, after, order } = planTurns({ points, adjusters: FOUR, aim: 0.05 });
      if (order.length > 0) {
        turned++;
        expect(before.range - after.range).toBeGreaterThanOrEqual(0.002 - 1e-12);
      } else if (before.range > 0.05) left++;
    }
    expect(turned).toBeGreaterThan(1_000);
    expect(left).toBeGreaterThan(100);
  });
});

describe('turns that are smaller than what is worth a turn', () => {
  const square = [
    { id: 'a', x: 0, y: 0, pitch: 0.5, clockwise: 'raises' as const },
    { id: 'b', x: 200, y: 0, pitch: 0.5, clockwise: 'raises' as const },
    { id: 'c', x: 0, y: 200, pitch: 0.5, clockwise: 'raises' as const },
    { id: 'd', x: 200, y: 200, pitch: 0.5, clockwise: 'raises' as const },
  ];
  /** A plane that falls by `fall` from left to right. */
  const points = (fall: number) =>
    [0, 100, 200].flatMap((x) => [0, 100, 200].map((y) => ({ x, y, z: -(fall * x) / 200 })));
  const said = (fall: number, more: object) =>
    planTurns({ points: points(fall), adjusters: square, ...more }).turns.map(({ said: turns }) => turns);

  test('are left out as long as the range stays within the aim', () => {
    expect(said(0.08, { aim: 0.05, smallestTurn: 0 })).not.toEqual([0, 0, 0, 0]);
    // 0.08 is over the aim: without turns it would not be reached, and so each that is needed stays.
    const some = said(0.08, { aim: 0.05, smallestTurn: 1 });
    expect(some).not.toEqual([0, 0, 0, 0]);
    const all = said(0.08, { aim: 0.05, smallestTurn: 0 });
    expect(some.filter((turns) => turns === 0).length).toBeGreaterThanOrEqual(
      all.filter((turns) => turns === 0).length,
    );
  });

  test('one of just that size is made', () => {
    const made = said(0.25, { aim: 0.2, smallestTurn: 0 });
    const size = Math.min(...made.filter((turns) => turns !== 0).map(Math.abs));
    expect(said(0.25, { aim: 0.2, smallestTurn: size })).toEqual(made);
  });

  test('without an aim none is left out', () =>
    expect(said(0.25, { smallestTurn: 9 })).toEqual(said(0.25, { smallestTurn: 0 })));
});
