import { readAs } from '../ui/manner';
import { readDay } from './timeSpan';

test.each(['2026-11-25', '25.11.2026', '25/11/2026', '25 Nov 2026', ' 25 November 2026 '])('%s is a day', (text) => {
  expect(readDay(text, 'start')).toBe(new Date(2026, 10, 25).getTime());
  expect(readDay(text, 'end')).toBe(new Date(2026, 10, 26).getTime() - 1);
});

test.each(['', 'soon', '2026-13-01', '31.2.2026', '25.11.26'])('“%s” is none', (text) =>
  expect(readDay(text, 'start')).toBeNull(),
);

test('days begin at midnight of the shop', () => {
  readAs({ units: 'mm', zone: 'Pacific/Auckland', numbers: 'point' });
  expect(readDay('2026-11-26', 'start')).toBe(Date.UTC(2026, 10, 25, 11));
  readAs(null);
});
