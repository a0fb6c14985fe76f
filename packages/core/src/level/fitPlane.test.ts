import fc from 'fast-check';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';
import { PONTIUS } from './pontius.fixture';
import { seededMap } from './seededMap.fixture';

/** The reference: least squares by the SVD of a general-purpose matrix library, on centred columns. */
function planeBySvd(points: readonly HeightPoint[]) {
  const mean = (pick: (p: HeightPoint) => number) => points.reduce((sum, p) => sum + pick(p) / points.length, 0);
  const [mx, my, mz] = [mean((p) => p.x), mean((p) => p.y), mean((p) => p.z)];
  const columns = new Matrix(points.map(({ x, y }) => [x - mx, y - my]));
  const solution = new SingularValueDecomposition(columns, { autoTranspose: true }).solve(
    Matrix.columnVector(points.map(({ z }) => z - mz)),
  );
  const [a, b] = [solution.get(0, 0), solution.get(1, 0)];
  return { a, b, atCentre: mz, residuals: points.map(({ x, y, z }) => z - mz - a * (x - mx) - b * (y - my)) };
}

describe('fitPlane', () => {
  test.each([0, 1e6])('agrees with the matrix library on 200 seeded maps, offset %d mm, to 1e-9', (offset) => {
    for (let seed = 1; seed <= 200; seed++) {
      const points = seededMap(seed).map(({ x, y, z }) => ({ x: x + offset, y: y - offset, z }));
      const fit = fitPlane(points);
      const reference = planeBySvd(points);
      const slope = Math.hypot(reference.a, reference.b);
      expect(Math.abs(fit.a - reference.a)).toBeLessThanOrEqual(1e-9 * slope);
      expect(Math.abs(fit.b - reference.b)).toBeLessThanOrEqual(1e-9 * slope);
      const size = Math.max(...reference.residuals.map(Math.abs));
      fit.residuals.forEach((r, i) =>
        expect(Math.abs(r - reference.residuals[i]!)).toBeLessThanOrEqual(1e-9 * size + 1e-12),
      );
    }
  });

  test('gives the certified values of NIST StRD Pontius, a quadratic: a plane over x and x²', () => {
    const fit = fitPlane(PONTIUS.data.map(([load, deflection]) => ({ x: load, y: load * load, z: deflection })));
    const { certified } = PONTIUS;
    expect(fit.c / certified.b0 - 1).toBeCloseTo(0, 9);
    expect(fit.a / certified.b1 - 1).toBeCloseTo(0, 11);
    expect(fit.b / certified.b2 - 1).toBeCloseTo(0, 9);
    expect(fit.standardErrors!.c / certified.deviation0 - 1).toBeCloseTo(0, 9);
    expect(fit.standardErrors!.a / certified.deviation1 - 1).toBeCloseTo(0, 9);
    expect(fit.standardErrors!.b / certified.deviation2 - 1).toBeCloseTo(0, 9);
    expect(fit.deviation! / certified.residualDeviation - 1).toBeCloseTo(0, 9);
  });

  test('finds a plane exactly, also at offsets of 1e6 mm', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: -9, max: 9 }),
        (p, q, r) => {
          const [a, b, c] = [p / 1024, q / 1024, r / 8];
          const points = [0, 1, 2, 3, 4].flatMap((i) =>
            [0, 1, 2, 3].map((j) => ({
              x: 1e6 + 32 * i,
              y: 1e6 + 64 * j,
              z: a * (1e6 + 32 * i) + b * (1e6 + 64 * j) + c,
            })),
          );
          const fit = fitPlane(points);
          expect(fit.a).toBeCloseTo(a, 12);
          expect(fit.b).toBeCloseTo(b, 12);
          expect(Math.max(...fit.residuals.map(Math.abs))).toBeLessThan(1e-9);
        },
      ),
    );
  });

  test('residuals stay when a plane is added, and turn with the sign', () => {
    const points = seededMap(7);
    const plain = fitPlane(points);
    const tilted = fitPlane(points.map(({ x, y, z }) => ({ x, y, z: z + 0.01 * x - 0.02 * y + 3 })));
    const turned = fitPlane(points.map(({ x, y, z }) => ({ x, y, z: -z })));
    expect(tilted.a - plain.a).toBeCloseTo(0.01, 12);
    expect(tilted.b - plain.b).toBeCloseTo(-0.02, 12);
    plain.residuals.forEach((r, i) => {
      expect(tilted.residuals[i]).toBeCloseTo(r, 11);
      expect(turned.residuals[i]).toBeCloseTo(-r, 12);
    });
  });

  test('three points are met exactly and leave no uncertainty to state', () => {
    const fit = fitPlane([
      { x: 0, y: 0, z: 1 },
      { x: 10, y: 0, z: 2 },
      { x: 0, y: 10, z: 1 },
    ]);
    expect(fit).toMatchObject({ rank: 3, standardErrors: null, deviation: null });
    expect(fit.a).toBeCloseTo(0.1, 14);
    expect(fit.b).toBeCloseTo(0, 14);
    expect(fit.c).toBeCloseTo(1, 14);
  });

  test.each<[string, HeightPoint[]]>([
    [
      'two points',
      [
        { x: 0, y: 0, z: 0 },
        { x: 1, y: 0, z: 0 },
      ],
    ],
    ['none', []],
    ['three in line', [0, 1, 2].map((i) => ({ x: 10 * i, y: 20 * i, z: i }))],
    ['in line at 1e6', [0, 1, 2, 3].map((i) => ({ x: 1e6 + 0.1 * i, y: 1e6 + 0.3 * i, z: i }))],
    ['one place', [1, 2, 3].map((z) => ({ x: 5, y: 5, z }))],
    [
      'NaN',
      [
        { x: 0, y: 0, z: 0 },
        { x: 1, y: 0, z: NaN },
        { x: 0, y: 1, z: 0 },
      ],
    ],
    [
      'infinite place',
      [
        { x: 0, y: 0, z: 0 },
        { x: Infinity, y: 0, z: 0 },
        { x: 0, y: 1, z: 0 },
      ],
    ],
  ])('refuses %s', (_, points) => {
    expect(() => fitPlane(points)).toThrow(DegenerateInput);
  });
});
