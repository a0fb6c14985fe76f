import { DegenerateInput } from './errors';
import { flatness, loneReading } from './flatness';
import type { HeightPoint } from './HeightPoint';
import { seededMap, seededRandom } from './seededMap.fixture';
import { zoneProgramme, zoneSolver } from './zoneByHighs.fixture';

/** Maps that are hard for a solver: many readings alike, few places, places twice, whole hundredths, one point out. */
function hardMap(seed: number): HeightPoint[] {
  const random = seededRandom(seed);
  const map = seededMap(seed);
  switch (seed % 6) {
    case 0:
      return map.map((p) => ({ ...p, z: Math.round(p.z * 100) / 100 }));
    case 1:
      return map.map((p, i) => ({ ...p, z: i === seed % map.length ? 0.3 : 0 }));
    case 2:
      return [0, 1, map.length - 2, map.length - 1].map((i) => map[i]!);
    case 3:
      return [...map, ...map.map((p) => ({ ...p, z: p.z + 0.01 * random() }))];
    case 4:
      return map.map((p) => ({ ...p, z: 0.001 * p.x - 0.002 * p.y + (random() < 0.5 ? 0.01 : 0) }));
    default:
      return map.map((p) => ({ ...p, y: p.y > 60 ? 60 : 30 }));
  }
}

// A general-purpose solver of linear programmes, as the reference: HiGHS (MIT licence), from the registry.
test('it is what a solver of linear programmes finds, on 500 maps', async () => {
  const zone = await zoneSolver();
  let worst = 0;
  for (let seed = 1; seed <= 500; seed++) {
    const points = seed % 2 ? seededMap(seed) : hardMap(seed / 2);
    const { x, y } = points[0]!;
    // The solver's own tolerance is for places near nothing.
    const near = points.map((p) => ({ x: (p.x - x) / 100, y: (p.y - y) / 100, z: p.z }));
    worst = Math.max(worst, Math.abs(flatness(points).value - zone(zoneProgramme(near))));
  }
  expect(worst).toBeLessThan(1e-9);
}, 120_000);

test('the planes hold every point, touch those that are named, and these lie so that no tilt is better', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const points = hardMap(seed);
    const { value, plane, contacts, leastSquares } = flatness(points);
    const over = points.map(({ x, y, z }) => z - plane.a * x - plane.b * y - plane.c);
    for (const rest of over) expect(Math.abs(rest)).toBeLessThanOrEqual(value / 2 + 1e-12);
    expect(value).toBeLessThanOrEqual(leastSquares);
    if (value < 1e-9) continue;
    for (const at of contacts.upper) expect(over[at]).toBeCloseTo(value / 2, 10);
    for (const at of contacts.lower) expect(over[at]).toBeCloseTo(-value / 2, 10);
    // A weight on each side with the same centre: then a tilt that gains at one contact loses at another.
    expect(['3-1', '2-2', '2-1', '1-1']).toContain(contacts.kind);
    expect(contacts.upper.length * contacts.lower.length).toBeGreaterThan(0);
  }
});

test('tilt, shift, turning and scale change nothing but the scale', () => {
  for (let seed = 1; seed <= 100; seed++) {
    const points = seededMap(seed);
    const { value } = flatness(points);
    const [c, s] = [Math.cos(seed), Math.sin(seed)];
    const moved = {
      tilted: points.map((p) => ({ ...p, z: p.z + 0.003 * p.x - 0.02 * p.y })),
      shifted: points.map((p) => ({ x: p.x + 5000, y: p.y - 300, z: p.z + 1000 })),
      turned: points.map((p) => ({ x: c * p.x - s * p.y, y: s * p.x + c * p.y, z: p.z })),
      over: points.map((p) => ({ ...p, z: -p.z })),
      wider: points.map((p) => ({ x: 25.4 * p.x, y: 25.4 * p.y, z: p.z })),
    };
    for (const [how, map] of Object.entries(moved))
      expect([how, flatness(map).value - value]).toEqual([how, expect.closeTo(0, 10)]);
    expect(flatness(points.map((p) => ({ ...p, z: 25.4 * p.z }))).value / value).toBeCloseTo(25.4, 8);
  }
});

// ISO 12781-1: of a saddle with corners 0, 0.1, 0, 0.1 the planes touch two across from each other each. By hand.
test('a twisted sheet: two corners above, two below', () => {
  const points = [
    { x: 0, y: 0, z: 0 },
    { x: 200, y: 0, z: 0.1 },
    { x: 200, y: 200, z: 0 },
    { x: 0, y: 200, z: 0.1 },
  ];
  expect(flatness(points)).toMatchObject({
    value: expect.closeTo(0.1, 12),
    contacts: { upper: [1, 3], lower: [0, 2], kind: '2-2' },
  });
});

test('least squares says more where one reading stands out, and that reading is named', () => {
  const points = [0, 50, 100, 150, 200].flatMap((y) =>
    [0, 50, 100, 150, 200].map((x) => ({ x, y, z: x === 200 && y === 0 ? 0.2 : 0.001 * ((x + y) % 3) })),
  );
  const found = flatness(points);
  expect(found.leastSquares).toBeGreaterThan(1.05 * found.value);
  const lone = loneReading(points, found)!;
  expect(points[lone.at]).toMatchObject({ x: 200, y: 0 });
  expect(lone.without).toBeLessThan(0.01);
  const four = hardMap(2);
  expect(loneReading(four, flatness(four))).toBeNull();
});

test('all in one plane, however tilted and far away', () => {
  const flat = [0, 1, 2].flatMap((y) =>
    [0, 1, 2].map((x) => ({ x: 1e6 + 100 * x, y: 100 * y, z: 5 + 0.2 * x - 0.1 * y })),
  );
  expect(flatness(flat).value).toBeLessThan(1e-8);
  expect(flatness(flat.slice(0, 3 + 1)).value).toBeLessThan(1e-8);
});

test('what can’t be is refused', () => {
  const line = [0, 1, 2, 3].map((x) => ({ x, y: 2 * x, z: x * x }));
  expect(() => flatness(line)).toThrow(DegenerateInput);
  expect(() => flatness([])).toThrow(DegenerateInput);
  expect(() => flatness([...seededMap(1), { x: NaN, y: 0, z: 0 }])).toThrow(DegenerateInput);
  expect(() => flatness([...seededMap(1), { x: 0, y: 0, z: Infinity }])).toThrow(DegenerateInput);
});

test.each([1e-1, 1e-2, 1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-9])(
  'a map %d of its length off a slanting line is told or refused',
  (off) => {
    for (let seed = 1; seed <= 30; seed++) {
      const random = seededRandom(seed);
      const points = Array.from({ length: 9 }, (_, i) => {
        const across = 200 * off * (random() - 0.5);
        return { x: 25 * i + across, y: 20 * i - across, z: 0.2 * random() };
      });
      if (off < 1e-3) expect(() => flatness(points)).toThrow(/nearly in one line|on one line/);
      else if (off > 1e-2) {
        // The same, turned so that it runs along x: no axes are better than others.
        const angleRad = Math.atan2(20, 25);
        const turned = points.map(({ x, y, z }) => ({
          x: Math.cos(angleRad) * x + Math.sin(angleRad) * y,
          y: Math.cos(angleRad) * y - Math.sin(angleRad) * x,
          z,
        }));
        expect(flatness(points).value).toBeCloseTo(flatness(turned).value, 9);
      } else
        try {
          expect(flatness(points).value).toBeGreaterThan(0);
        } catch (error) {
          expect(error).toMatchObject({ message: expect.stringContaining('in one line') });
        }
    }
  },
);
