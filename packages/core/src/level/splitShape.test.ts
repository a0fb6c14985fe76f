import { normalFrom } from './bedShapes.fixture';
import { DegenerateInput } from './errors';
import type { HeightPoint } from './HeightPoint';
import { seededRandom } from './seededMap.fixture';
import { coverFactor, splitShape, type MapOfBoth, type SheetLay } from './splitShape';

/** Made-up shapes over −1 to 1: a few waves each, so that no symmetry is there by chance. */
type Shape = (u: number, v: number) => number;
function madeUp(seed: number): Shape {
  const random = seededRandom(seed);
  const [a, b, c, d, e, f] = Array.from({ length: 6 }, () => 0.2 * (random() - 0.5)) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return (u, v) => a * u * u + b * v * v + c * u * v + d * u ** 3 + e * u * u * v + f * v * v * u * u;
}
const PLACES = [0, 1, 2, 3, 4].flatMap((j) => [0, 1, 2, 3, 4].map((i) => [i / 2 - 1, j / 2 - 1] as const));

/** What a probe reads: the bed, the sheet as it lies, a tilt, scatter. A quarter turn anticlockwise takes (1, 0) to (0, 1). */
function read(
  bed: Shape,
  sheet: Shape | null,
  { turned, flipped }: SheetLay,
  noise: number,
  random: () => number,
): HeightPoint[] {
  const [a, b, c] = [random(), random(), random()];
  return PLACES.map(([u, v]) => {
    let [p, q] = [u, v];
    for (let k = 0; k < turned; k++) [p, q] = [q, -p];
    if (flipped) p = -p;
    const z = bed(u, v) + (sheet?.(p, q) ?? 0) + 0.1 * a * u + 0.1 * b * v + c + noise * normalFrom(random);
    return { x: 110 + 100 * u, y: 110 + 100 * v, z };
  });
}

/** Heights without their plane, as they should come back. */
function plain(shape: Shape): number[] {
  const z = PLACES.map(([u, v]) => shape(u, v));
  const mean = z.reduce((sum, one) => sum + one, 0) / 25;
  const a = PLACES.reduce((sum, [u], i) => sum + u * z[i]!, 0) / 12.5;
  const b = PLACES.reduce((sum, [, v], i) => sum + v * z[i]!, 0) / 12.5;
  return z.map((one, i) => one - mean - a * PLACES[i]![0] - b * PLACES[i]![1]);
}

const LAYS: SheetLay[] = [0, 1, 2, 3].flatMap((turned) =>
  [false, true].map((flipped) => ({ turned: turned as 0, flipped })),
);
interface Situation {
  machines: number;
  sheets: number;
  maps: [machine: number, sheet: number | null, lay: number][];
}
const mapsOf = ({ machines, sheets, maps }: Situation, seed: number, noise = 0) => {
  const random = seededRandom(seed);
  const beds = Array.from({ length: machines }, (_, i) => madeUp(seed * 100 + i));
  const tops = Array.from({ length: sheets }, (_, i) => madeUp(seed * 100 + 50 + i));
  const made = maps.map(([m, s, lay]): MapOfBoth => ({
    machine: `m${m}`,
    sheet: s === null ? null : `s${s}`,
    ...LAYS[lay]!,
    points: read(beds[m]!, s === null ? null : tops[s]!, LAYS[lay]!, noise, random),
  }));
  return {
    maps: made,
    truth: (kind: 'bed' | 'sheet', id: string) => plain((kind === 'bed' ? beds : tops)[Number(id.slice(1))]!),
  };
};

const BARE: Situation = {
  machines: 2,
  sheets: 2,
  maps: [
    [0, null, 0],
    [0, 0, 0],
    [0, 1, 2],
    [1, 0, 4],
    [1, 1, 0],
  ],
};
const SWAPPED: Situation = {
  machines: 2,
  sheets: 2,
  maps: [
    [0, 0, 0],
    [0, 1, 0],
    [1, 0, 0],
    [1, 1, 0],
  ],
};
const HALF: Situation = {
  machines: 1,
  sheets: 1,
  maps: [
    [0, 0, 0],
    [0, 0, 4],
  ],
};
const QUARTER: Situation = {
  machines: 1,
  sheets: 1,
  maps: [
    [0, 0, 0],
    [0, 0, 2],
    [0, 0, 4],
    [0, 0, 6],
  ],
};
const ALL: Situation = { machines: 1, sheets: 1, maps: LAYS.map((_, i): [number, number, number] => [0, 0, i]) };

test('with a bed read bare, everything comes back exactly', () => {
  for (let seed = 1; seed <= 5; seed++) {
    const { maps, truth } = mapsOf(BARE, seed);
    const { shapes, next } = splitShape({ maps });
    expect(next).toEqual([]);
    for (const { kind, id, heights, told } of shapes) {
      expect(told).toBe('all');
      truth(kind, id).forEach((z, i) => expect(heights[i]).toBeCloseTo(z, 9));
    }
  }
});

test('sheets only swapped tell beds from each other and sheets from each other, and nothing by itself', () => {
  const { maps, truth } = mapsOf(SWAPPED, 3);
  const { shapes, differences, next } = splitShape({ maps });
  for (const { told, heights, bow, twist } of shapes) {
    expect(told).toBe('none');
    expect(heights.every((z) => z === null)).toBe(true);
    expect([bow.x, bow.y, bow.difference, twist]).toEqual([null, null, null, null]);
  }
  expect(differences.map(({ first, second }) => `${first} ${second}`)).toEqual(['m0 m1', 's0 s1']);
  for (const { kind, first, second, heights } of differences)
    heights.forEach((z, i) => expect(z).toBeCloseTo(truth(kind, first)[i]! - truth(kind, second)[i]!, 9));
  // A bare bed settles all that is left: 25 places less a plane.
  expect(next[0]).toMatchObject({ sheet: null, settles: 22 });
});

test.each([
  ['a half turn', HALF, { difference: false, twist: false }],
  ['quarter turns', QUARTER, { difference: true, twist: true }],
  ['turned and turned over', ALL, { difference: true, twist: true }],
] as const)('%s tells what does not look alike after it, and no more', (_, situation, tells) => {
  const { maps, truth } = mapsOf(situation, 7);
  const { shapes } = splitShape({ maps });
  const [bed] = shapes;
  expect(bed!.bow.x).toBeNull();
  expect(bed!.bow.y).toBeNull();
  expect(bed!.heights[12]).toBeNull();
  expect(bed!.bow.difference !== null).toBe(tells.difference);
  expect(bed!.twist !== null).toBe(tells.twist);
  if (!bed!.twist) return;
  // What is said is true: the twist of the bed alone, by the product of corners.
  const z = truth('bed', 'm0');
  const uv = PLACES.map(([u, v]) => u * v);
  const size = uv.reduce((sum, one) => sum + one * one, 0);
  expect(bed!.twist.value).toBeCloseTo(uv.reduce((sum, one, i) => sum + one * z[i]!, 0) / size, 9);
});

test('a sheet known to be flat counts as none', () => {
  const { maps } = mapsOf(SWAPPED, 2);
  const [first] = splitShape({ maps, flat: ['s0'] }).shapes;
  expect(first!.told).toBe('all');
});

test('with scatter, ninety-five in a hundred of what is said lie within what is said', () => {
  let [inside, all] = [0, 0];
  for (let seed = 1; seed <= 60; seed++) {
    const { maps, truth } = mapsOf(BARE, seed, 0.01);
    const { shapes, noise } = splitShape({ maps });
    for (const { kind, id, heights, sd } of shapes)
      for (const [i, z] of truth(kind, id).entries()) {
        all++;
        if (Math.abs(heights[i]! - z) <= coverFactor(noise!.freedom) * sd[i]!) inside++;
      }
  }
  expect(all).toBe(6000);
  expect(Math.abs(inside / all - 0.95)).toBeLessThan(0.03);
}, 60_000);

test('one map, and what can’t be', () => {
  const { maps } = mapsOf(HALF, 1);
  const one = splitShape({ maps: maps.slice(0, 1) });
  expect(one.noise).toBeNull();
  expect(one.shapes.every(({ told }) => told === 'none')).toBe(true);
  expect(one.next.length).toBeGreaterThan(0);
  expect(() => splitShape({ maps: [] })).toThrow(DegenerateInput);
  expect(() => splitShape({ maps: [{ ...maps[0]!, turned: 5 as 1 }] })).toThrow(RangeError);
  expect(() => splitShape({ maps: [{ ...maps[0]!, points: [{ x: 0, y: 0, z: NaN }] }] })).toThrow(RangeError);
  expect(() => splitShape({ maps: [{ ...maps[0]!, points: [{ x: 0, y: 0, z: 0 }] }] })).toThrow(DegenerateInput);
  expect(() => splitShape({ maps: Array.from({ length: 30 }, () => maps[0]!) })).toThrow(/at most 24/);
});

test('maps over different areas of one bed show no bow of a sheet that is even', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const random = seededRandom(seed);
    const bow = 0.3 * (random() - 0.5);
    const over = (from: number, to: number): HeightPoint[] =>
      PLACES.map(([u, v]) => {
        const [x, y] = [from + ((to - from) * (u + 1)) / 2, from + ((to - from) * (v + 1)) / 2];
        return { x, y, z: bow * ((x / 110 - 1) ** 2 + 0.5 * (y / 110 - 1) ** 2) + 0.001 * normalFrom(random) };
      });
    const split = splitShape({
      maps: [
        { machine: 'm', sheet: null, points: over(0, 220) },
        { machine: 'm', sheet: 's', points: over(30, 180) },
      ],
    });
    expect(split.area).toEqual({ x0: 30, y0: 30, x1: 180, y1: 180 });
    const sheet = split.shapes.find(({ kind }) => kind === 'sheet')!;
    for (const known of [sheet.bow.x, sheet.bow.y]) expect(Math.abs(known!.value)).toBeLessThan(0.006);
  }
});

test('maps that have little in common are refused; a turned sheet turns about the middle of its plate', () => {
  const over = (from: number, to: number): HeightPoint[] =>
    PLACES.map(([u, v]) => ({ x: from + ((to - from) * (u + 1)) / 2, y: 100 + 80 * v, z: 0.01 * u * v }));
  const apart = [
    { machine: 'm', sheet: 'a', points: over(0, 100) },
    { machine: 'm', sheet: 'a', points: over(80, 180) },
  ];
  expect(() => splitShape({ maps: apart })).toThrow(/same places, got 20 × 160 mm/);
  const turned = splitShape({
    maps: [{ machine: 'm', sheet: 'a', turned: 2, points: over(20, 170) }],
    plate: { width: 200, depth: 200 },
  });
  expect(turned.area).toEqual({ x0: 30, y0: 20, x1: 170, y1: 180 });
});
