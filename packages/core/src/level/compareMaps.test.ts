import { normalFrom, plantedBed } from './bedShapes.fixture';
import { compareMaps } from './compareMaps';
import { DegenerateInput } from './errors';
import type { HeightPoint } from './HeightPoint';
import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from './seededMap.fixture';

const NOISE = 0.006;
const again = (points: readonly HeightPoint[], random: () => number, change: (p: HeightPoint) => number = () => 0) =>
  points.map((p) => ({ ...p, z: p.z + change(p) + NOISE * normalFrom(random) }));
const bed = (seed: number) => plantedBed({ shape: 'dome', size: 0.08, noise: 0, side: 7, random: seededRandom(seed) });

test('a bed read twice is the same in 95 of 100; screws turned between are a tilt, not a shape', () => {
  let [same, tilted] = [0, 0];
  for (let seed = 1; seed <= 200; seed++) {
    const random = seededRandom(900 + seed);
    const points = bed(seed);
    const before = again(points, random);
    if (compareMaps({ before, after: again(points, random), noise: NOISE }).verdict === 'same') same++;
    const turned = again(points, random, ({ x, y }) => 0.0006 * x - 0.0004 * y + 0.05);
    if (compareMaps({ before, after: turned, noise: NOISE }).verdict === 'tilted') tilted++;
  }
  expect(same / 200).toBeGreaterThan(0.9);
  expect(tilted / 200).toBeGreaterThan(0.93);
});

test('a crumb under the sheet is found where it lies, and by how much', () => {
  let found = 0;
  for (let seed = 1; seed <= 100; seed++) {
    const random = seededRandom(seed);
    const points = bed(seed);
    const at = points[Math.floor(random() * points.length)]!;
    const after = again(points, random, (p) => (p.x === at.x && p.y === at.y ? 0.1 : 0));
    const { verdict, beyond } = compareMaps({ before: again(points, random), after, noise: NOISE });
    if (verdict === 'changed' && beyond[0]?.x === at.x && beyond[0].y === at.y && Math.abs(beyond[0].by - 0.1) < 0.05)
      found++;
  }
  expect(found).toBeGreaterThan(95);
});

test('maps at other places are read off between the readings of the first', () => {
  const plane = (x: number, y: number) => ({ x, y, z: 0.001 * x + 0.002 * y });
  const before = [0, 50, 100, 150, 200].flatMap((y) => [0, 50, 100, 150, 200].map((x) => plane(x, y)));
  const after = [20, 70, 120, 170, 260].flatMap((y) =>
    [20, 70, 120, 170, 260].map((x) => ({ ...plane(x, y), z: plane(x, y).z + 0.03 })),
  );
  const { points, lift, range } = compareMaps({ before, after, noise: NOISE });
  // What lies beyond the first map is not compared.
  expect(points).toHaveLength(16);
  expect(lift).toBeCloseTo(0.03, 9);
  expect(range).toBeLessThan(1e-9);
});

test('maps that hardly meet, and what is none', () => {
  const far = bed(1).map((p) => ({ ...p, x: p.x + 1000 }));
  expect(compareMaps({ before: bed(1), after: far, noise: NOISE }).verdict).toBe('apart');
  const few = bed(1).slice(0, 2);
  expect(() => compareMaps({ before: few, after: bed(1) })).toThrow(DegenerateInput);
  expect(() => compareMaps({ before: bed(1), after: [...bed(2), { x: NaN, y: 0, z: 0 }] })).toThrow(RangeError);
});

/** A bed that is bowed, twisted and wavy, read over some part of it. */
const readOver = (
  seed: number,
  [from, to, side]: readonly [number, number, number],
  random: () => number,
): HeightPoint[] => {
  const own = seededRandom(seed);
  const [a, b, c, d] = [own() - 0.5, own() - 0.5, own() - 0.5, own() - 0.5];
  const tilt = random() - 0.5;
  return Array.from({ length: side * side }, (_, i) => {
    const [x, y] = [i % side, Math.floor(i / side)].map((k) => from + ((to - from) * k) / (side - 1)) as [
      number,
      number,
    ];
    const [u, v] = [x / 110 - 1, y / 110 - 1];
    const z = 0.4 * a * u * u + 0.4 * b * v * v + 0.2 * c * u * v + 0.15 * d * Math.cos(2 * u) * Math.cos(2 * v);
    return { x, y, z: z + 0.2 * tilt * u + NOISE * normalFrom(random) };
  });
};

test.each([
  ['the whole, then a part with other rows', [10, 210, 5], [40, 200, 7]],
  ['a part, then the whole', [40, 180, 4], [10, 210, 9]],
  ['fine, then coarse and shifted', [10, 200, 11], [35, 215, 5]],
] as const)(
  'a bed that did not change is not called changed where it was read over another area: %s',
  (_, first, second) => {
    const beds = trials(2000, 100);
    let changed = 0;
    for (let seed = 1; seed <= beds; seed++) {
      const random = seededRandom(5000 + seed);
      const before = readOver(seed, first, random);
      const after = readOver(seed, second, random);
      if (compareMaps({ before, after, noise: NOISE }).verdict === 'changed') changed++;
    }
    proved('maps compared', _, `unchanged called changed in ${changed} of ${beds}`);
    expect(changed).toBeLessThanOrEqual(0.05 * beds + 1);
  },
  60_000,
);

test('a probe whose record shows no scatter at all is one of which nothing is known', () => {
  const random = seededRandom(3);
  const [before, after] = [again(bed(3), random), again(bed(3), random)];
  expect(compareMaps({ before, after, noise: 0 })).toEqual(compareMaps({ before, after }));
});
