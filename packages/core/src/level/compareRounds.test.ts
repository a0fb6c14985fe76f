import { compareRounds } from './compareRounds';
import { planTurns, type Adjuster } from './planTurns';
import { repeatability } from './repeatability';
import type { HeightPoint } from './HeightPoint';

const adjusters: Adjuster[] = [
  { id: 'front', x: 100, y: 0, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rear-left', x: 0, y: 200, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rear-right', x: 200, y: 200, pitch: 0.5, clockwise: 'lowers' },
];
const bed = (a: number, b: number): HeightPoint[] =>
  [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: a * x + b * y + 0.00002 * (x - 100) ** 2 })));

describe('compareRounds', () => {
  const before = bed(0.002, -0.001);
  const { move } = planTurns({ points: before, adjusters });
  const follow = (share: number, aside = 0) =>
    bed(0.002 + share * move.a - aside * move.b, -0.001 + share * move.b + aside * move.a);

  test.each([
    [1, 0, 'as-said'],
    [0.8, 0, 'as-said'],
    [-1, 0, 'reversed'],
    [0, 0, 'unmoved'],
    [2, 0, 'off'],
    [0.2, 0.8, 'off'],
  ] as const)('a bed that follows by %d (aside %d) answers %s', (share, aside, answer) => {
    expect(compareRounds({ before, made: move, now: follow(share, aside) }).answer).toBe(answer);
  });

  test('a sign turned over makes the reading worse, and the share says −1', () => {
    const result = compareRounds({ before, made: move, now: follow(-1) });
    expect(result.worse).toBe(true);
    expect(result.followed).toBeCloseTo(-1, 6);
  });

  test('turns too small to judge by are not judged', () => {
    const result = compareRounds({ before, made: { a: 0.00001, b: 0 }, now: follow(-1) });
    expect(result).toMatchObject({ answer: 'small', followed: null });
  });

  test('homing that lifts the whole bed changes nothing', () => {
    const lifted = follow(1).map((p) => ({ ...p, z: p.z + 3 }));
    expect(compareRounds({ before, made: move, now: lifted }).answer).toBe('as-said');
  });
});

describe('repeatability', () => {
  // Pooled standard deviation by hand: deviations ±0.01 and ±0.02 with one degree of freedom each: √((0.0002 + 0.0008)/2).
  test('pools places that were read twice', () => {
    const points = [0.1, 0.12].map((z) => ({ x: 0, y: 0, z })).concat([0.2, 0.24].map((z) => ({ x: 9, y: 0, z })));
    expect(repeatability(points)).toBeCloseTo(Math.sqrt(0.0005), 12);
  });
  test('null without repeats', () => expect(repeatability(bed(0, 0))).toBeNull());
});
