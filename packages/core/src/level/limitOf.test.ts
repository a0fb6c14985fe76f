import { fitPlane } from './fitPlane';
import { spreadOf, type HeightPoint } from './HeightPoint';
import { limitOf } from './limitOf';
import { seededRandom } from './seededMap.fixture';

const SIDE = 10;
const bed = (height: (u: number, v: number) => number): HeightPoint[] =>
  Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [c, r] = [i % SIDE, Math.floor(i / SIDE)];
    return { x: 20 * c, y: 20 * r, z: height(c / (SIDE - 1) - 0.5, r / (SIDE - 1) - 0.5) };
  });
const limit = (points: HeightPoint[], more: { tilt?: number; noise?: number } = {}) => {
  const { residuals } = fitPlane(points);
  return limitOf({
    points,
    residuals,
    tilt: more.tilt ?? 0,
    shape: spreadOf(residuals),
    noise: more.noise,
  });
};

test('a smooth shape is a shape, in rows and in a serpentine', () => {
  const dome = bed((u, v) => 0.1 * (1 - u * u - v * v));
  expect(limit(dome)).toBe('shape');
  const serpentine = Array.from({ length: SIDE }, (_, r) => {
    const row = dome.slice(SIDE * r, SIDE * r + SIDE);
    return r % 2 ? row.reverse() : row;
  }).flat();
  expect(limit(serpentine)).toBe('shape');
});

test('white noise is noise on at least 95 of 100 seeded beds', () => {
  const noisy = Array.from({ length: 100 }, (_, seed) => {
    const random = seededRandom(seed + 1);
    return limit(bed(() => 0.02 * (random() - 0.5)));
  });
  expect(noisy.filter((kind) => kind === 'noise').length).toBeGreaterThanOrEqual(95);
});

test('tilt that is left outweighs both', () =>
  expect(
    limit(
      bed((u) => 0.01 * u),
      { tilt: 1 },
    ),
  ).toBe('tilt'));

test('a known deviation decides', () => {
  const dome = bed((u, v) => 0.1 * (1 - u * u - v * v));
  expect(limit(dome, { noise: 0.001 })).toBe('shape');
  expect(limit(dome, { noise: 1 })).toBe('noise');
});

test('a plate bent along its rows, or its columns, without noise is a shape, on any grid', () => {
  for (let side = 3; side <= 9; side++)
    for (let other = 3; other <= 9; other++)
      for (const along of [true, false]) {
        const points = Array.from({ length: side * other }, (_, i) => {
          const [c, r] = [i % side, Math.floor(i / side)];
          const t = along ? c / (side - 1) - 0.5 : r / (other - 1) - 0.5;
          return { x: 20 * c, y: 20 * r, z: 0.08 * t * t };
        });
        expect([side, other, along, limit(points)]).toEqual([side, other, along, 'shape']);
      }
});

test('pure noise on 3 × 3 is hardly ever called a shape, and never called noise: nine readings can’t tell', () => {
  const said = Array.from({ length: 200 }, (_, seed) => {
    const random = seededRandom(seed + 1);
    return limit(
      Array.from({ length: 9 }, (__, i) => ({
        x: 100 * (i % 3),
        y: 100 * Math.floor(i / 3),
        z: 0.02 * (random() + random() + random() - 1.5),
      })),
    );
  });
  expect(said.filter((one) => one === 'unsure').length).toBeGreaterThanOrEqual(190);
  expect(said).not.toContain('noise');
});

test('readings in no order but on a grid are read as the grid; what scatters more than any probe is a shape', () => {
  const random = seededRandom(9);
  const scattered = bed(() => 0.02 * random()).sort(() => random() - 0.5);
  expect(limit(scattered)).toBe('noise');
  expect(limit(bed(() => random()).filter(({ x, y }) => x < 60 && y < 60))).toBe('shape');
});
