import { driftWords, levelRangeWords, levelWayMark } from './levels';
import type { Reader } from './figures';

const HOUSE: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };

test('a range says how well it is known', () => {
  expect(levelRangeWords({ least: null, most: null }, HOUSE)).toBe('not measured by this way');
  expect(levelRangeWords({ least: 0.02, most: null }, HOUSE)).toBe('0.02 mm or more');
  expect(levelRangeWords({ least: 0.05, most: 0.05 }, HOUSE)).toBe('0.05 mm, how well is not known');
  expect(levelRangeWords({ least: 0.02, most: 0.05 }, HOUSE)).toBe('0.02 mm to 0.05 mm');
});

test('each way has a mark of its own', () => {
  const ways = ['probe', 'typed', 'felt', 'quarters', 'sheet', 'film', 'lock', 'skirt'] as const;
  expect(new Set(ways.map(levelWayMark)).size).toBe(ways.length);
});

test('a drift says what it rests on, or what would tell it', () => {
  expect(driftWords({ next: null, more: 2 }, HOUSE)).toContain('2 more checks');
  expect(driftWords({ next: null, more: 1 }, HOUSE)).toContain('1 more check with');
  expect(driftWords({ next: null, more: 0 }, HOUSE)).toContain('a check does');
  expect(driftWords({ next: { at: 0, days: 9, rate: 0.0042, sd: 0.001 }, more: 0 }, HOUSE)).toBe(
    'Every 9 days: it drifts about 0.0042 mm a day, give or take 0.001 mm.',
  );
  expect(driftWords({ next: { at: 0, days: 180, rate: -0.001, sd: 0.001 }, more: 0 }, HOUSE)).toContain('not drifted');
});
