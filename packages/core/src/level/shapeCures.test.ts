import { seededRandom } from './seededMap.fixture';
import { proved, trials } from '../simulated/prove.fixture';
import { DegenerateInput } from './errors';
import type { HeightPoint } from './HeightPoint';
import { CURES, shapeCures, type ShapeCuresAsk } from './shapeCures';

const grid = (z: (u: number, v: number) => number, side = 5): HeightPoint[] =>
  Array.from({ length: side * side }, (_, i) => {
    const [u, v] = [(2 * (i % side)) / (side - 1) - 1, (2 * Math.floor(i / side)) / (side - 1) - 1];
    return { x: 117.5 * (u + 1), y: 117.5 * (v + 1), z: z(u, v) };
  });
const ask = (map: HeightPoint[], more: Partial<ShapeCuresAsk> = {}) =>
  shapeCures({
    map,
    aim: 0.1,
    family: 'filament',
    compensation: true,
    tape: { thickness: 0.075, width: 50 },
    bendable: null,
    reference: null,
    noise: 0.005,
    ...more,
  });
const of = (found: ReturnType<typeof shapeCures>, id: string) => found.cures.find(({ cure }) => cure === id)!;

test('a bow of 0.15: as it is out, strips and bending within, the map too; least work first', () => {
  const found = ask(grid((_u, v) => -0.15 * (1 - v * v)));
  expect(found.cures.map(({ cure }) => cure).sort()).toEqual([...CURES].sort());
  expect(of(found, 'mount')).toMatchObject({ leaves: expect.closeTo(0.15, 9), within: false, not: null });
  expect(of(found, 'shim')).toMatchObject({ within: true, not: null });
  expect(of(found, 'ease')).toMatchObject({ leaves: expect.closeTo(0.03, 9), needs: ['heater-off'] });
  // Second differences of 0.075 sag by an eighth between readings; twice the scatter of 0.005.
  expect(of(found, 'map').leaves).toBeCloseTo(0.075 / 8 + 0.01, 9);
  expect(found.cures[0]!.cure).toBe('map');
  expect(of(found, 'lap').not).toBe('not-this-family');
  expect(of(found, 'glass-pad')).toMatchObject({ leaves: null, within: null, needs: ['prove-glass', 'stack-changes'] });
});

test('what presses from below is looked for first; what lies under the sheet too', () => {
  const region = grid(
    (u, v) => 0.3 * Math.exp(-((u - 0.5) ** 2 + (v - 0.25) ** 2) / 0.1) + 0.002 * Math.sin(9 * u + 5 * v),
    9,
  );
  expect(ask(region).cures[0]).toMatchObject({ cure: 'under-bed', leaves: null });
  const bump = grid((u, v) => (u === 0 && v === 0 ? 0.3 : 0.002 * Math.sin(9 * u + 5 * v)), 7);
  expect(ask(bump).cures[0]).toMatchObject({ cure: 'under-sheet' });
});

test('a plate that may not be bent is not; without tape no strips; without compensation no map', () => {
  const map = grid((_u, v) => -0.15 * (1 - v * v));
  const found = ask(map, { bendable: false, tape: null, compensation: false });
  expect(of(found, 'ease').not).toBe('forbidden');
  expect(of(found, 'shim')).toMatchObject({ not: 'no-tape', needs: ['measure-tape'] });
  expect(of(found, 'map').not).toBe('no-compensation');
  // A pane that is no flatter than the plate gains nothing.
  expect(of(ask(map, { reference: 0.14 }), 'glass-pad').not).toBe('no-gain');
  expect(of(ask(map, { reference: 0.02 }), 'glass-pad')).toMatchObject({ not: null, within: true });
});

test('a twist is not eased; a resin platform is lapped on what is proven', () => {
  const twist = grid((u, v) => 0.12 * u * v);
  expect(of(ask(twist), 'ease').leaves).toBeGreaterThan(0.1);
  const resin = ask(twist, { family: 'resin', compensation: false, reference: 0.01 });
  expect(resin.cures[0]).toMatchObject({ cure: 'lap', leaves: 0.01, within: true, needs: ['prove-reference'] });
  expect(of(resin, 'map').not).toBe('not-this-family');
});

test('flat enough: nothing to do comes first', () => {
  expect(ask(grid((u) => 0.02 * u * u)).cures[0]).toMatchObject({ cure: 'mount', within: true });
});

test('what can’t be is refused', () => {
  const map = grid(() => 0);
  expect(() => ask([])).toThrow(DegenerateInput);
  expect(() => ask(map, { aim: 0 })).toThrow(RangeError);
  expect(() => ask(map, { reference: -1 })).toThrow(RangeError);
  expect(() => ask(map, { aim: NaN })).toThrow(RangeError);
});

test('what a map leaves is no less than what a bilinear map of it misses, on beds and between readings', () => {
  const grid = (side: number, height: (x: number, y: number) => number) =>
    Array.from({ length: side * side }, (_, i) => {
      const [x, y] = [(200 * (i % side)) / (side - 1), (200 * Math.floor(i / side)) / (side - 1)];
      return { x, y, z: height(x, y) };
    });
  let [held, of] = [0, 0];
  const beds = trials(2000, 200);
  for (let seed = 1; seed <= beds; seed++) {
    const random = seededRandom(seed);
    const side = 5 + (seed % 4);
    const [a, b] = [0.3 * random(), 0.3 * random()];
    const [cx, cy, w] = [40 + 120 * random(), 40 + 120 * random(), 35 + 50 * random()];
    const height = (x: number, y: number) =>
      seed % 2
        ? -a * ((x - 100) / 100) ** 2 - b * ((y - 100) / 100) ** 2
        : 0.2 * Math.exp(-(((x - cx) ** 2 + (y - cy) ** 2) / w ** 2));
    const map = grid(side, height);
    const { cures } = shapeCures({
      map,
      aim: 0.01,
      family: 'filament',
      compensation: true,
      tape: null,
      bendable: null,
      reference: null,
      noise: 0.0005,
    });
    const said = cures.find(({ cure }) => cure === 'map')!.leaves!;
    // The machine follows its map between four readings as a surface that is straight along both axes.
    const step = 200 / (side - 1);
    const z = (c: number, r: number) => map[r * side + c]!.z;
    let missed = [0, 0];
    for (let x = 0; x < 200; x += 5)
      for (let y = 0; y < 200; y += 5) {
        const [c, r] = [Math.floor(x / step), Math.floor(y / step)];
        const [u, v] = [x / step - c, y / step - r];
        const flat =
          (1 - v) * ((1 - u) * z(c, r) + u * z(c + 1, r)) + v * ((1 - u) * z(c, r + 1) + u * z(c + 1, r + 1));
        const off = height(x, y) - flat;
        missed = [Math.min(missed[0]!, off), Math.max(missed[1]!, off)];
      }
    of++;
    if (missed[1]! - missed[0]! <= said + 0.002) held++;
  }
  proved('what a map leaves', 'domes, and narrow regions between readings', `no less than is true in ${held} of ${of}`);
  expect(held / of).toBeGreaterThanOrEqual(0.95);
});
