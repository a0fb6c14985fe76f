import { gridOf } from './gridOf';
import { seededMap } from './seededMap.fixture';
import { shapeCures } from './shapeCures';
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

test('one reading that stands up is kept, however many are thinned: 40 × 40 with one 0.5 high', () => {
  const map = Array.from({ length: 1600 }, (_, i) => ({
    x: 5 * (i % 40),
    y: 5 * Math.floor(i / 40),
    z: i === 823 ? 0.5 : 0.001 * (i % 7),
  }));
  for (const most of [900, 400, 100]) {
    const thin = thinMap(map, most);
    expect(thin.length).toBeLessThanOrEqual(most);
    expect(thin.some(({ z }) => z === 0.5)).toBe(true);
    expect(gridOf(thin)).not.toBeNull();
  }
  const { flatness, cures } = shapeCures({
    map,
    aim: 0.1,
    family: 'filament',
    compensation: true,
    tape: null,
    bendable: null,
    reference: null,
  });
  expect(flatness).toBeGreaterThan(0.4);
  expect(cures.find(({ cure }) => cure === 'mount')).toMatchObject({ within: false });
});
