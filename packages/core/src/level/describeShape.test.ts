import { plantedBed, type Planted } from './bedShapes.fixture';
import { describeShape, type ShapeName } from './describeShape';
import { DegenerateInput } from './errors';
import { seededRandom } from './seededMap.fixture';

const NAMES: Record<Planted, ShapeName> = {
  dome: 'dome',
  dish: 'dish',
  saddle: 'saddle',
  bow: 'bow-up',
  twist: 'twist',
  ridge: 'ridge',
  valley: 'valley',
  region: 'high-region',
  bump: 'bump',
};
const NOISE = 0.01;

/** Share of seeded beds in which the planted shape is found and named right; its size in deviations of one reading. */
function found(shape: Planted, { times, side, beds }: { times: number; side: number; beds: number }): number {
  let right = 0;
  for (let seed = 1; seed <= beds; seed++) {
    const random = seededRandom(7919 * seed + shape.length);
    const points = plantedBed({ shape, size: times * NOISE, noise: NOISE, side, random });
    if (describeShape(points, { noise: NOISE }).name === NAMES[shape]) right++;
  }
  return right / beds;
}

// 1,000 beds of 11 × 11 readings. What covers many readings shows at twice the noise of one.
const WIDE: Planted[] = ['dome', 'dish', 'saddle', 'bow', 'twist', 'ridge', 'valley'];
test('a planted shape is found and named at twice the noise in 95 of 100', () => {
  const rates = WIDE.map((shape) => found(shape, { times: 2, side: 11, beds: 143 }));
  expect(rates.reduce((sum, rate) => sum + rate, 0) / rates.length).toBeGreaterThan(0.95);
  expect(Math.min(...rates)).toBeGreaterThan(0.88);
}, 60_000);

// Of 121 readings one exceeds twice the noise by chance in every bed: no sum can see what isn't there.
test.each([
  ['region', 2, 0.3, 0.85],
  ['region', 4, 0.95, 1],
  ['bump', 2, 0, 0.1],
  ['bump', 7, 0.95, 1],
] as const)(
  'a %s of %d deviations is found in a share of %d to %d',
  (shape, times, least, most) => {
    const rate = found(shape, { times, side: 11, beds: 80 });
    expect(rate).toBeGreaterThanOrEqual(least);
    expect(rate).toBeLessThanOrEqual(most);
  },
  30_000,
);

test.each([
  ['told', { noise: NOISE }],
  ['taken from the map itself', {}],
])(
  'of flat beds at most one in twenty is said to have a shape, the noise %s',
  (_, asked) => {
    let claimed = 0;
    const beds = 500;
    for (let seed = 1; seed <= beds; seed++) {
      const side = [7, 9, 11][Math.floor((3 * (seed - 1)) / beds)]!;
      const points = plantedBed({ shape: 'flat', size: 0, noise: NOISE, side, random: seededRandom(31 * seed) });
      if (describeShape(points, asked).name !== 'none') claimed++;
    }
    expect(claimed / beds).toBeLessThanOrEqual(0.05);
  },
  60_000,
);

test('sizes come back as planted, with the deviation that they scatter by', () => {
  const z: number[] = [];
  for (let seed = 1; seed <= 200; seed++) {
    const points = plantedBed({ shape: 'dome', size: 0.08, noise: NOISE, side: 7, random: seededRandom(seed) });
    for (const part of describeShape(points, { noise: NOISE }).parts)
      if (part.kind === 'bow') z.push((part.size - 0.08) / part.sd);
  }
  expect(z.length).toBeGreaterThan(390);
  const mean = z.reduce((sum, value) => sum + value, 0) / z.length;
  const deviation = Math.sqrt(z.reduce((sum, value) => sum + (value - mean) ** 2, 0) / z.length);
  expect(Math.abs(mean)).toBeLessThan(0.15);
  expect(deviation).toBeGreaterThan(0.85);
  expect(deviation).toBeLessThan(1.15);
});

test('two things on one bed are told apart, the larger first', () => {
  const points = plantedBed({ shape: 'twist', size: 0.1, noise: 0.005, side: 9, random: seededRandom(4) });
  const both = points.map((p) => ({ ...p, z: p.z + (p.x > 100 && p.x < 130 && p.y > 100 && p.y < 130 ? 0.06 : 0) }));
  const { name, parts } = describeShape(both, { noise: 0.005 });
  expect(name).toBe('twist');
  expect(parts[1]!.kind).toMatch(/bump|region/);
  expect(parts[1]).toMatchObject({ at: { x: expect.closeTo(115, 0), y: expect.closeTo(115, 0) } });
});

test('where nothing says how the readings scatter, that is the answer', () => {
  const few = plantedBed({ shape: 'dome', size: 0.1, noise: 0.01, side: 3, random: seededRandom(1) });
  expect(describeShape(few)).toMatchObject({ name: 'untold', noise: null });
  expect(describeShape(few, { noise: 0.001 }).name).toBe('dome');
});

test('a tilt is no shape: it is said by itself', () => {
  const points = plantedBed({ shape: 'flat', size: 0, noise: 0.01, side: 7, random: seededRandom(3) }).map((p) => ({
    ...p,
    z: p.z + 0.001 * p.x,
  }));
  const { name, tilt, sees } = describeShape(points, { noise: 0.01 });
  expect(name).toBe('none');
  expect(tilt.seen).toBe(true);
  expect(sees!.bow).toBeLessThan(sees!.bump);
});

test('a map of many thousands is thinned out and answered at once; what is no map is refused', () => {
  const many = plantedBed({ shape: 'ridge', size: 0.1, noise: 0.01, side: 100, random: seededRandom(1) });
  expect(describeShape(many).name).toBe('ridge');
  expect(() => describeShape([])).toThrow(DegenerateInput);
  expect(() => describeShape(many.slice(0, 9), { noise: 0 })).toThrow(DegenerateInput);
  expect(() => describeShape([{ x: NaN, y: 0, z: 0 }, ...many.slice(0, 200)])).toThrow(DegenerateInput);
});

test.each([
  ['a parabola each way', (u: number, v: number) => (1 - u * u) * (1 - v * v)],
  ['a wave each way', (u: number, v: number) => Math.cos((Math.PI * u) / 2) * Math.cos((Math.PI * v) / 2)],
])('a dome that lies low all round is a dome, as high as it is: %s', (_, shape) => {
  let [domes, near, beds] = [0, 0, 0];
  for (const side of [5, 7, 11])
    for (let seed = 1; seed <= 60; seed++, beds++) {
      const random = seededRandom(17 * seed + side);
      const sign = seed % 2 ? 1 : -1;
      const points = plantedBed({ shape: 'flat', size: 0, noise: NOISE, side, random }).map((p) => ({
        ...p,
        z: p.z + sign * 0.2 * shape((p.x - 115) / 110, (p.y - 115) / 110),
      }));
      const { name, parts } = describeShape(points, { noise: NOISE });
      if (name === (sign > 0 ? 'dome' : 'dish')) domes++;
      if (parts[0]?.kind === 'cap' && Math.abs(sign * parts[0].size - 0.2) < 0.03) near++;
    }
  expect(domes).toBeGreaterThanOrEqual(0.97 * beds);
  expect(near).toBeGreaterThan(0.7 * beds);
});
