import { extentOf, spreadOf, type HeightPoint } from './HeightPoint';
import { limitOf } from './limitOf';
import { seededRandom } from './seededMap.fixture';

const SIDE = 10;
const bed = (height: (u: number, v: number) => number): HeightPoint[] =>
  Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [c, r] = [i % SIDE, Math.floor(i / SIDE)];
    return { x: 20 * c, y: 20 * r, z: height(c / (SIDE - 1) - 0.5, r / (SIDE - 1) - 0.5) };
  });
const limit = (points: HeightPoint[], more: { tilt?: number; noise?: number } = {}) => {
  const residuals = points.map(({ z }) => z);
  return limitOf({
    points,
    extent: extentOf(points),
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

test('readings in no order, or too few, say nothing: shape', () => {
  const random = seededRandom(9);
  const scattered = bed(() => random()).sort(() => random() - 0.5);
  expect(limit(scattered)).toBe('shape');
  expect(limit(bed(() => random()).slice(0, 9))).toBe('shape');
});
