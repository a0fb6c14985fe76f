import { smallMap } from './smallMap';

const grid = (n: number, z: (x: number, y: number) => number) =>
  Array.from({ length: n * n }, (_, i) => {
    const [x, y] = [(200 * (i % n)) / (n - 1), (200 * Math.floor(i / n)) / (n - 1)];
    return { x, y, z: z(x, y) };
  });

test('a tilted bed is low at one side and high at the other, about its mean, wherever its zero is', () => {
  const map = smallMap(grid(3, (x) => 7 + 0.001 * x))!;
  expect(map).toMatchObject({ columns: 3, rows: 3, hundredths: [-10, 0, 10, -10, 0, 10, -10, 0, 10] });
});

test('a large map has at most seven cells a side, and their mean is nothing', () => {
  const map = smallMap(grid(50, (x, y) => 0.0005 * x * (y / 200)))!;
  expect([map.columns, map.rows]).toEqual([7, 7]);
  const known = map.hundredths.filter((h): h is number => h !== null);
  expect(Math.abs(known.reduce((sum, h) => sum + h, 0) / known.length)).toBeLessThan(1);
});

test('a place that nobody read is empty; a line or a few readings are no map', () => {
  const points = grid(3, () => 0).filter((_, i) => i !== 4);
  expect(smallMap(points)!.hundredths[4]).toBeNull();
  expect(smallMap(points.slice(0, 2))).toBeNull();
  expect(smallMap([0, 1, 2].map((x) => ({ x, y: 0, z: x })))).toBeNull();
});
