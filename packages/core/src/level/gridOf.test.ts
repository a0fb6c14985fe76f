import { gridOf, pointsOf } from './gridOf';
import { extentOf, spreadOf, type HeightPoint } from './HeightPoint';
import { seededMap } from './seededMap.fixture';

describe('gridOf', () => {
  test('a grid goes to points and back, in any order', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const points = seededMap(seed);
      const grid = gridOf([...points].reverse())!;
      expect(pointsOf(grid)).toEqual([...points].sort((p, q) => p.y - q.y || p.x - q.x));
    }
  });

  test('readings within a twentieth of a millimetre share a row; repeats are averaged; holes stay holes', () => {
    const points: HeightPoint[] = [
      { x: 0, y: 0, z: 1 },
      { x: 0.02, y: 0, z: 3 },
      { x: 10, y: 0.03, z: 5 },
      { x: 0, y: 10, z: 7 },
      { x: 10, y: 10, z: NaN },
    ];
    expect(gridOf(points)!.heights).toEqual([
      [2, 5],
      [7, NaN],
    ]);
  });

  test('scattered readings, too few, and hardly any filled are no grid', () => {
    const scattered = Array.from({ length: 9 }, (_, i) => ({ x: 7 * i, y: (i * i) % 11, z: 0 }));
    expect(gridOf(scattered)).toBeNull();
    expect(gridOf(scattered.slice(0, 3))).toBeNull();
    const empty = [0, 1].flatMap((y) => [0, 1].map((x) => ({ x: 10 * x, y: 10 * y, z: x + y === 0 ? 1 : NaN })));
    expect(gridOf(empty)).toBeNull();
  });
});

describe('spreadOf', () => {
  test('range and RMS by hand, also far from zero', () => {
    // 1, 2, 3, 4: mean 2.5, squares 2.25 + 0.25 + 0.25 + 2.25 = 5, √(5/4).
    for (const offset of [0, 1e8]) {
      const { range, rms } = spreadOf([1, 2, 3, 4].map((z) => z + offset));
      expect(range).toBe(3);
      expect(rms).toBeCloseTo(Math.sqrt(1.25), 9);
    }
  });
  test('nothing spreads by nothing', () => expect(spreadOf([])).toEqual({ range: 0, rms: 0 }));
  test('the extent holds all points', () => expect(extentOf(seededMap(3))).toMatchObject({ x0: 5, y0: 5 }));
});
