import type { HeightPoint } from './HeightPoint';
import { probeNoise } from './probeNoise';
import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from './seededMap.fixture';

const grid = (side: number, z: (x: number, y: number) => number): HeightPoint[] =>
  Array.from({ length: side * side }, (_, i) => {
    const [x, y] = [20 * (i % side), 20 * Math.floor(i / side)];
    return { x, y, z: z(x, y) };
  });

test('nothing read twice says nothing; one map, three places, maps of other places neither', () => {
  expect(probeNoise([])).toBeNull();
  expect(probeNoise([[grid(4, () => 0.1)]])).toBeNull();
  expect(probeNoise([[grid(2, () => 0).slice(1), grid(2, () => 1).slice(1)]])).toBeNull();
  expect(probeNoise([[grid(3, () => 0), grid(3, () => 0).map((p) => ({ ...p, x: p.x + 1 }))]])).toBeNull();
});

test('turns between two maps are no noise: a plane is taken out, shape stays', () => {
  const shape = (x: number, y: number) => 1e-5 * x * y;
  const noise = probeNoise([[grid(5, shape), grid(5, (x, y) => shape(x, y) + 0.002 * x - 0.001 * y + 3)]]);
  // Nothing but the step of a thousandth or two in which these heights are whole.
  expect(noise).toBeLessThan(0.001);
});

test('two readings 0.02 apart at one place: half of the squared difference, by hand 0.0141', () => {
  const points = [
    { x: 0, y: 0, z: 1 },
    { x: 0, y: 0, z: 1.02 },
    { x: 9, y: 0, z: 2 },
  ];
  expect(probeNoise([[points]])).toBeCloseTo(0.02 / Math.SQRT2, 12);
});

test('planted noise is found within its own error over many checks', () => {
  const random = seededRandom(5);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const checks = Array.from({ length: 60 }, () =>
    Array.from({ length: 3 }, () => {
      const [a, b] = [0.001 * normal(), 0.001 * normal()];
      return grid(4, (x, y) => 1e-5 * x * y + a * x + b * y + 0.008 * normal());
    }),
  );
  expect(probeNoise(checks)).toBeGreaterThan(0.0075);
  expect(probeNoise(checks)).toBeLessThan(0.0085);
});

describe('planted noise of 0.01 comes out within 3 of 100', () => {
  const random = seededRandom(9);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const checks = trials(2000, 400);
  test.each([
    ['with places read two and three times in several maps', 2, 0, 0],
    ['with a plate that twisted by 0.1 between them', 1, 0.1, 0],
    ['read in steps of 0.02', 1, 0, 0.02],
    ['read in steps of 0.05, where the step is most of it', 1, 0, 0.05],
  ] as const)('%s', (name, times, twist, step) => {
    const rounded = (z: number) => (step === 0 ? z : Math.round(z / step) * step);
    const all = Array.from({ length: checks }, () => {
      const map = (turn: number) =>
        grid(4, (x, y) => turn * 0.001 * x + (turn * twist * (x - 30) * (y - 30)) / 900).flatMap((p) =>
          Array.from({ length: times + (p.x === 0 ? times - 1 : 0) }, () => ({
            ...p,
            z: rounded(p.z + 0.01 * normal()),
          })),
        );
      return [map(0), map(1)];
    });
    const noise = probeNoise(all)!;
    proved('probe noise', name, `${(100 * (noise / 0.01 - 1)).toFixed(1)} % off 0.01`);
    if (step < 0.05) expect(Math.abs(noise / Math.hypot(0.01, step / Math.sqrt(12)) - 1)).toBeLessThan(0.03);
    else expect(noise).toBeGreaterThanOrEqual(step / Math.sqrt(12) - 1e-9);
  });
  test('what is no number is passed over', () => {
    const map = grid(4, (x) => x + 0.01 * normal());
    expect(probeNoise([[map, [...map.slice(1), { x: 0, y: 0, z: NaN }]]])).toBe(0);
  });
});
