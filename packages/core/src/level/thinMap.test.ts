import { gridOf } from './gridOf';
import { seededMap } from './seededMap.fixture';
import { thinMap } from './thinMap';

test('a grid stays a grid; small maps stay as they are; places without a grid are thinned evenly', () => {
  const map = seededMap(3, { columns: 100, rows: 60 });
  const thin = thinMap(map, 400);
  expect(thin.length).toBeLessThanOrEqual(400);
  expect(thin.length).toBeGreaterThan(150);
  expect(gridOf(thin)!.heights.flat()).toHaveLength(thin.length);
  expect(thinMap(map.slice(0, 20), 400)).toEqual(map.slice(0, 20));
  const loose = map.map((p, i) => ({ ...p, x: p.x + i * 0.37, y: p.y + i * 0.21 }));
  expect(thinMap(loose, 400).length).toBeLessThanOrEqual(400);
});
