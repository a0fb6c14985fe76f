import fc from 'fast-check';
import { DegenerateAdjusters } from './errors';
import { stiffBed, type Position } from './stiffBed';

const square: Position[] = [
  { x: 0, y: 0 },
  { x: 200, y: 0 },
  { x: 0, y: 200 },
  { x: 200, y: 200 },
];
const at = ({ a, b, c }: { a: number; b: number; c: number }, { x, y }: Position) => a * x + b * y + c;

describe('stiffBed', () => {
  test('three adjusters are met exactly, whatever they do', () => {
    const three = [square[0]!, square[1]!, { x: 100, y: 190 }];
    const height = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(height, height, height), (rises) => {
        const move = stiffBed(three)(rises);
        rises.forEach((rise, i) => expect(at(move, three[i]!)).toBeCloseTo(rise, 9));
        expect(move.bind).toBeLessThan(1e-9);
      }),
    );
  });

  test('four that agree lie on their plane; one raised alone lifts its corner by three quarters', () => {
    expect(stiffBed(square)([0, 0.2, 0.4, 0.6])).toMatchObject({
      a: expect.closeTo(0.001, 12),
      b: expect.closeTo(0.002, 12),
    });
    // By symmetry: plane through (0, 0, 0, h) is h·(−1/4, 1/4, 1/4, 3/4) at the corners.
    const move = stiffBed(square)([0, 0, 0, 1]);
    expect(square.map((corner) => at(move, corner))).toEqual(
      [-0.25, 0.25, 0.25, 0.75].map((z) => expect.closeTo(z, 12)),
    );
    expect(move.bind).toBeCloseTo(0.25, 12);
  });

  test('a pure twist moves nothing and binds', () => {
    const move = stiffBed(square)([1, -1, -1, 1]);
    expect([move.a, move.b, move.c].map((value) => Math.abs(value))).toEqual(
      [0, 0, 0].map((z) => expect.closeTo(z, 12)),
    );
    expect(move.bind).toBeCloseTo(1, 12);
  });

  test('moves add up, and shifting the adjusters shifts the plane with them', () => {
    const one = stiffBed(square)([0.1, 0.3, -0.2, 0.4]);
    const two = stiffBed(square)([0.2, 0.6, -0.4, 0.8]);
    expect(two.a).toBeCloseTo(2 * one.a, 12);
    const far = square.map(({ x, y }) => ({ x: x + 1e5, y: y - 1e5 }));
    const moved = stiffBed(far)([0.1, 0.3, -0.2, 0.4]);
    expect(at(moved, far[2]!)).toBeCloseTo(at(one, square[2]!), 9);
  });

  test.each<[string, Position[]]>([
    ['two', square.slice(0, 2)],
    ['a line', [0, 1, 2].map((i) => ({ x: 50 * i, y: 20 * i }))],
    ['a line far away', [0, 1, 2].map((i) => ({ x: 1e5 + 50 * i, y: 1e5 }))],
    ['one spot', [...square, square[0]!]],
    ['NaN', [...square, { x: NaN, y: 0 }]],
  ])('refuses %s', (_, adjusters) => expect(() => stiffBed(adjusters)).toThrow(DegenerateAdjusters));
});
