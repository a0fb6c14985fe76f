import { proved, trials } from '../simulated/prove.fixture';
import { seededMap, seededRandom } from './seededMap.fixture';
import { settleSign } from './settleSign';

const grid = (z: (x: number, y: number) => number) =>
  Array.from({ length: 25 }, (_, i) => {
    const [x, y] = [50 * (i % 5), 50 * Math.floor(i / 5)];
    return { x, y, z: z(x, y) };
  });

test('a shim of 0.3 at a corner of a tilted bed: + means higher; the same map turned over: lower', () => {
  const map = grid((x, y) => 0.001 * x - 0.0005 * y + (x === 200 && y === 200 ? 0.3 : 0));
  expect(settleSign(map, { x: 198, y: 205 })).toMatchObject({ plus: 'higher' });
  expect(settleSign(map, { x: 198, y: 205 }).stands).toBeCloseTo(0.3, 9);
  const turned = map.map((point) => ({ ...point, z: -point.z }));
  expect(settleSign(turned, { x: 198, y: 205 })).toMatchObject({ plus: 'lower' });
});

test('a place that doesn’t stand out settles nothing, and says how far it would have to', () => {
  const map = grid((x, y) => 0.001 * x + 0.03 * Math.sin(x * y));
  const read = settleSign(map, { x: 100, y: 100 });
  expect(read.plus).toBeNull();
  expect(read.needed).toBeGreaterThanOrEqual(0.08);
});

test('on seeded beds with their own shape the sign comes out right or is left open, never wrong', () => {
  let open = 0;
  for (let seed = 1; seed <= 300; seed++) {
    const map = seededMap(seed, { columns: 4, rows: 4 });
    const high = map[seed % map.length]!;
    const sign = seed % 2 === 0 ? 1 : -1;
    const read = map.map((point) => ({ ...point, z: sign * (point.z + (point === high ? 0.5 : 0)) }));
    const { plus } = settleSign(read, high);
    if (plus === null) open++;
    else expect(plus).toBe(sign > 0 ? 'higher' : 'lower');
  }
  expect(open / 300).toBeLessThan(0.2);
});

test('a twisted bed with nothing on it settles nothing; a shim that was read twice does', () => {
  const random = seededRandom(8);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const beds = trials(2000, 400);
  let [nothing, wrong, found] = [0, 0, 0];
  for (let i = 0; i < beds; i++) {
    const [a, b, twist] = [0.001 * normal(), 0.001 * normal(), 0.12 * (random() < 0.5 ? -1 : 1)];
    const bed = (x: number, y: number) => a * x + b * y + (twist * (x - 100) * (y - 100)) / 1e4 + 0.008 * normal();
    const map = grid(bed);
    const corner = { x: 200 * Number(random() < 0.5), y: 200 * Number(random() < 0.5) };
    if (settleSign(map, corner).plus !== null) nothing++;
    const laid = (x: number, y: number) => bed(x, y) + (x === corner.x && y === corner.y ? 0.3 : 0);
    const twice = [...grid(laid), { ...corner, z: laid(corner.x, corner.y) }];
    const { plus } = settleSign(twice, corner);
    if (plus === 'higher') found++;
    if (plus === 'lower') wrong++;
  }
  proved(
    'sign',
    'twist of 0.12',
    `a verdict with nothing laid in ${nothing}, a shim of 0.3 read twice found in ${found}, wrong in ${wrong} of ${beds}`,
  );
  expect(nothing / beds).toBeLessThanOrEqual(0.01);
  expect(found / beds).toBeGreaterThanOrEqual(0.95);
  expect(wrong).toBe(0);
});

test('too few, and what is no number, are refused', () => {
  expect(() => settleSign([], { x: 0, y: 0 })).toThrow('at least 5 readings');
  expect(() =>
    settleSign(
      grid(() => NaN),
      { x: 0, y: 0 },
    ),
  ).toThrow('needs numbers');
});
