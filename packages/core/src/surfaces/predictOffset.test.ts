import { Matrix, pseudoInverse } from 'ml-matrix';
import { seededRandom } from '../level/seededMap.fixture';
import { predictOffset, type KnownOffset } from './predictOffset';

/** A sparse table of offsets, made up from a seed; now and then with weights, a pair tried twice, or apart in islands. */
function seededTable(seed: number): KnownOffset[] {
  const random = seededRandom(seed);
  const whole = (most: number) => Math.floor(random() * most);
  const [machines, surfaces] = [2 + whole(9), 2 + whole(14)];
  const share = 0.08 + 0.5 * random();
  const weighted = seed % 2 === 0;
  const known: KnownOffset[] = [];
  for (let m = 0; m < machines; m++) {
    for (let s = 0; s < surfaces; s++) {
      if (random() > share) continue;
      for (let times = random() < 0.15 ? 2 : 1; times > 0; times--) {
        const offset = -1.5 + 0.2 * m + 0.13 * s + 0.03 * (random() - 0.5);
        known.push({ machine: `m${m}`, surface: `s${s}`, offset, ...(weighted ? { weight: 0.2 + 5 * random() } : {}) });
      }
    }
  }
  return known.length > 0 ? known : [{ machine: 'm0', surface: 's0', offset: 0.1 }];
}

/** Union-find over all machines and surfaces. */
function unions(known: readonly KnownOffset[]) {
  const parent = new Map<string, string>();
  const find = (x: string): string => {
    if (!parent.has(x)) parent.set(x, x);
    return parent.get(x) === x ? x : find(parent.get(x)!);
  };
  for (const { machine, surface } of known) parent.set(find(machine), find(surface));
  return (a: string, b: string) => find(a) === find(b);
}

/** The same answer by a general-purpose library: the pseudo-inverse of the weighted design, by SVD. */
function byLibrary(known: readonly KnownOffset[], machine: string, surface: string) {
  const same = unions(known);
  const edges = known.filter((edge) => same(edge.machine, machine));
  const names = [...new Set(edges.flatMap((edge) => [edge.machine, edge.surface]))];
  const X = Matrix.zeros(edges.length, names.length);
  const y = Matrix.zeros(edges.length, 1);
  edges.forEach((edge, i) => {
    const root = Math.sqrt(edge.weight ?? 1);
    X.set(i, names.indexOf(edge.machine), root);
    X.set(i, names.indexOf(edge.surface), root);
    y.set(i, 0, root * edge.offset);
  });
  const inverse = pseudoInverse(X);
  const beta = inverse.mmul(y);
  const x = Matrix.zeros(1, names.length);
  x.set(0, names.indexOf(machine), 1);
  x.set(0, names.indexOf(surface), 1);
  const freedom = edges.length - (names.length - 1);
  const left = Matrix.sub(y, X.mmul(beta)).norm('frobenius') ** 2;
  const reach = x.mmul(inverse).norm('frobenius') ** 2;
  return { offset: x.mmul(beta).get(0, 0), deviation: freedom > 0 ? Math.sqrt((left / freedom) * reach) : null };
}

test('200 seeded sparse tables: the answer of a general-purpose library to 1e-9, and "not connected" just when a union-find says so', () => {
  let compared = 0;
  let apart = 0;
  let judged = 0;
  for (let seed = 1; seed <= 200; seed++) {
    const known = seededTable(seed);
    const same = unions(known);
    const machines = [...new Set(known.map(({ machine }) => machine)), 'unknown machine'];
    const surfaces = [...new Set(known.map((edge) => edge.surface)), 'unknown surface'];
    const random = seededRandom(seed + 10_000);
    for (let i = 0; i < 6; i++) {
      const machine = machines[Math.floor(random() * machines.length)]!;
      const surface = surfaces[Math.floor(random() * surfaces.length)]!;
      const got = predictOffset({ known, machine, surface });
      if (!same(machine, surface)) {
        expect(got).toBe('not connected');
        apart++;
        continue;
      }
      if (got === 'not connected') throw new Error(`seed ${seed}: ${machine} and ${surface} are linked`);
      // What was left out as odd is left out for the library too.
      const isOdd = (edge: KnownOffset) =>
        got.odd.some(
          (odd) => odd.machine === edge.machine && odd.surface === edge.surface && odd.offset === edge.offset,
        );
      const wanted = byLibrary(
        known.filter((edge) => !isOdd(edge)),
        machine,
        surface,
      );
      expect(Math.abs(got.offset - wanted.offset)).toBeLessThan(1e-9);
      if (wanted.deviation === null) expect(got.deviation).toBeNull();
      else {
        expect(Math.abs(got.deviation! - wanted.deviation)).toBeLessThan(1e-9);
        judged++;
      }
      compared++;
    }
  }
  expect(compared).toBeGreaterThan(500);
  expect(judged).toBeGreaterThan(200);
  expect(apart).toBeGreaterThan(200);
});

const CHAIN: KnownOffset[] = [
  { machine: 'Knot', surface: 'S-1', offset: 0.1 },
  { machine: 'Ruff', surface: 'S-1', offset: 0.3 },
  { machine: 'Ruff', surface: 'S-2', offset: 0.5 },
];

test('a chain of three tells the fourth pair, says what it rests on, and that nothing is left to judge by', () => {
  const got = predictOffset({ known: CHAIN, machine: 'Knot', surface: 'S-2' });
  expect(got).toEqual({
    offset: expect.closeTo(0.3, 12),
    deviation: null,
    spare: 0,
    likely: null,
    nearlySure: null,
    odd: [],
    support: { offsets: 3, sameSurface: 1, sameMachine: 1 },
  });
});

test('moving every offset moves the answer alike, also far from zero', () => {
  const known = CHAIN.map((edge) => ({ ...edge, offset: edge.offset + 1e6 }));
  const got = predictOffset({ known, machine: 'Knot', surface: 'S-2' });
  expect(got).toMatchObject({ offset: expect.closeTo(1e6 + 0.3, 8) });
});

test('a heavy weight pulls the answer to its own offset', () => {
  const twice = [
    { machine: 'Knot', surface: 'S-1', offset: 0 },
    { machine: 'Knot', surface: 'S-1', offset: 1, weight: 3 },
  ];
  expect(predictOffset({ known: twice, machine: 'Knot', surface: 'S-1' })).toMatchObject({ offset: 0.75 });
});

test.each([
  [{ machine: 'a', surface: 'b', offset: Number.NaN }, 'finite offsets'],
  [{ machine: 'a', surface: 'b', offset: 0, weight: 0 }, 'weights above 0'],
  [{ machine: 'a', surface: 'b', offset: 0, weight: Infinity }, 'weights above 0'],
])('refuses %j', (edge, message) =>
  expect(() => predictOffset({ known: [edge], machine: 'a', surface: 'b' })).toThrow(message),
);

test('nothing known: not connected', () =>
  expect(predictOffset({ known: [], machine: 'a', surface: 'b' })).toBe('not connected'));

/** A seeded shop with so many spare offsets: true parts of machines and surfaces, and a scatter of its own. */
function seededShop(seed: number, spare: number) {
  const random = seededRandom(seed * 7919 + spare);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const [machines, surfaces] = [2 + Math.floor(random() * 4), 2 + Math.floor(random() * 5)];
  const scatter = 0.01 * 5 ** random();
  const parts = {
    m: Array.from({ length: machines }, () => 0.4 * normal()),
    s: Array.from({ length: surfaces }, () => 0.1 * normal()),
  };
  const all = Array.from({ length: machines * surfaces }, (_, i) => [i % machines, Math.floor(i / machines)] as const);
  const record = ([m, s]: readonly [number, number]): KnownOffset => ({
    machine: `m${m}`,
    surface: `s${s}`,
    offset: parts.m[m]! + parts.s[s]! + scatter * normal(),
  });
  // A tree that links all, then as many more as are spare.
  const known = [
    ...parts.m.map((_, m) => record([m, 0])),
    ...parts.s.slice(1).map((_, s) => record([Math.floor(random() * machines), s + 1])),
    ...Array.from({ length: spare }, () => record(all[Math.floor(random() * all.length)]!)),
  ];
  const [m, s] = all[Math.floor(random() * all.length)]!;
  return { known, machine: `m${m}`, surface: `s${s}`, truth: parts.m[m]! + parts.s[s]! };
}

test.each([1, 2, 3, 5, 10])(
  'with %d spare offsets the ranges hold what they say, within 3 points, on 2,000 seeded shops',
  (spare) => {
    let [judged, likely, nearlySure] = [0, 0, 0];
    for (let seed = 1; seed <= 2_000; seed++) {
      const { known, machine, surface, truth } = seededShop(seed, spare);
      const got = predictOffset({ known, machine, surface });
      if (got === 'not connected' || got.likely === null || got.deviation === 0) continue;
      judged++;
      const off = Math.abs(got.offset - truth);
      if (off <= got.likely) likely++;
      if (off <= got.nearlySure!) nearlySure++;
    }
    expect(judged).toBeGreaterThan(1_900);
    expect(Math.abs(likely / judged - 0.683)).toBeLessThanOrEqual(0.03);
    expect(Math.abs(nearlySure / judged - 0.95)).toBeLessThanOrEqual(0.03);
  },
);

test('one offset of 0.3 mm off is named and left out: the answer stays where it was', () => {
  const scatter = [3, -4, 1, -2, 5, -1, 2, -3, 4, -5, 0, 1];
  const good = ['a', 'b', 'c'].flatMap((machine, m) =>
    ['p', 'q', 'r', 's'].map((surface, s) => ({
      machine,
      surface,
      offset: 0.2 * m + 0.1 * s + 0.003 * scatter[4 * m + s]!,
    })),
  );
  const before = predictOffset({ known: good, machine: 'a', surface: 's' });
  const known = good.map((one, i) => (i === 5 ? { ...one, offset: one.offset + 0.3 } : one));
  const after = predictOffset({ known, machine: 'a', surface: 's' });
  if (before === 'not connected' || after === 'not connected') throw new Error('all are linked');
  expect(before.odd).toEqual([]);
  expect(after.odd).toMatchObject([{ machine: 'b', surface: 'q', off: expect.closeTo(0.3, 1) }]);
  expect(Math.abs(after.offset - before.offset)).toBeLessThan(0.01);
});

test('an offset beyond anything is refused, not worked out as no number', () => {
  const known = [{ machine: 'a', surface: 's', offset: 1e308 }];
  expect(() => predictOffset({ known, machine: 'a', surface: 's' })).toThrow('finite offsets');
});
