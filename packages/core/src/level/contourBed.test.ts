import { contourBed } from './contourBed';
import { DegenerateInput } from './errors';
import { gridOf } from './gridOf';
import type { HeightPoint } from './HeightPoint';

const grid = (height: (x: number, y: number) => number, side = 5): HeightPoint[] =>
  Array.from({ length: side * side }, (_, i) => {
    const x = (200 * (i % side)) / (side - 1);
    const y = (200 * Math.floor(i / side)) / (side - 1);
    return { x, y, z: height(x, y) };
  });

const areaOf = (ring: [number, number][]) =>
  Math.abs(
    ring.reduce((sum, [x, y], i) => sum + x * ring[(i + 1) % ring.length]![1] - ring[(i + 1) % ring.length]![0] * y, 0),
  ) / 2;

describe('contourBed', () => {
  const tilt = grid((x) => 5 + 0.001 * x);

  test.each([
    ['from the grid', gridOf(tilt)],
    ['from triangles', null],
  ])('the zero line of a tilted bed runs through its middle, %s', (_, given) => {
    const { bands, mean, reach } = contourBed({ points: tilt, grid: given, step: 0.05 });
    expect(mean).toBeCloseTo(5.1, 9);
    expect(reach).toBeCloseTo(0.1, 9);
    const zero = bands.find(({ from }) => Math.abs(from) < 1e-9)!;
    expect(Math.min(...zero.rings[0]!.map(([x]) => x))).toBeCloseTo(100, 0);
    expect(areaOf(zero.rings[0]!)).toBeCloseTo(200 * 100, -3);
  });

  test('the contour of a paraboloid is a circle of the right area', () => {
    const points = grid((x, y) => -0.00002 * ((x - 100) ** 2 + (y - 100) ** 2), 41);
    const { bands, mean } = contourBed({ points, grid: gridOf(points), step: 0.02 });
    const band = bands[bands.length - 1]!;
    const radius2 = (0 - (band.from + mean)) / 0.00002;
    expect(areaOf(band.rings[0]!)).toBeCloseTo(Math.PI * radius2, -2);
  });

  test('at most twelve bands, and a flat bed has none', () => {
    for (const slope of [1e-5, 0.0004, 0.003, 0.08])
      expect(contourBed({ points: grid((x) => slope * x) }).bands.length).toBeLessThanOrEqual(12);
    expect(contourBed({ points: grid(() => 1) }).bands).toEqual([]);
  });

  test('four corner readings have an outline', () => {
    expect(contourBed({ points: grid((x, y) => x * y * 1e-6, 2) }).outline).toHaveLength(4);
  });

  test('refuses readings in one line', () => {
    expect(() => contourBed({ points: [0, 1, 2].map((x) => ({ x, y: 5, z: 0 })) })).toThrow(DegenerateInput);
    expect(() => contourBed({ points: [] })).toThrow(DegenerateInput);
  });
});
