import { seededMap } from './seededMap.fixture';
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

test('too few, and what is no number, are refused', () => {
  expect(() => settleSign([], { x: 0, y: 0 })).toThrow('at least 5 readings');
  expect(() =>
    settleSign(
      grid(() => NaN),
      { x: 0, y: 0 },
    ),
  ).toThrow('needs numbers');
});
