import { clockTime, longDay, shortDate } from './formatTime';
import { readAs } from './manner';

const NOW = Date.UTC(2026, 10, 25, 22, 30);

// Offsets of the time zone database: in November Lisbon keeps UTC, Auckland UTC+13.
test.each([
  ['Europe/Lisbon', '22:30', 'Wednesday 25 November 2026'],
  ['Pacific/Auckland', '11:30', 'Thursday 26 November 2026'],
])('in %s it is %s on %s, wherever the device is', (zone, clock, day) => {
  readAs({ units: 'mm', zone, numbers: 'point' });
  expect(clockTime(NOW)).toBe(clock);
  expect(longDay(NOW)).toBe(day);
});

test('the year is said when it is another one', () => {
  readAs({ units: 'mm', zone: 'UTC', numbers: 'point' });
  expect(shortDate(Date.UTC(2026, 2, 4), NOW)).toBe('4 Mar');
  expect(shortDate(Date.UTC(2025, 2, 4), NOW)).toBe('4 Mar 2025');
});
