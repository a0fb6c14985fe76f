import { clockIn, zonesFor } from './zones';

test('a zone is found by any part of its name, with spaces or without capitals', () => {
  expect(zonesFor('new york', [])).toEqual(['America/New_York']);
  expect(zonesFor('europe lisb', [])).toEqual(['Europe/Lisbon']);
  expect(zonesFor('atlantis', [])).toEqual([]);
  expect(zonesFor('utc', [])).toContain('UTC');
});

test('while nothing is typed the device’s own comes first, and the list is short', () => {
  const zones = zonesFor('', ['Europe/Oslo', 'UTC']);
  expect(zones.slice(0, 2)).toEqual(['Europe/Oslo', 'UTC']);
  expect(zones.length).toBeLessThanOrEqual(30);
  expect(new Set(zones).size).toBe(zones.length);
});

test('the clock there', () => {
  // Lisbon is at UTC in winter and an hour ahead in summer. Source: IANA tz database, from memory.
  expect(clockIn('Europe/Lisbon', Date.UTC(2026, 0, 15, 14, 20))).toBe('14:20');
  expect(clockIn('Europe/Lisbon', Date.UTC(2026, 6, 15, 14, 20))).toBe('15:20');
});
