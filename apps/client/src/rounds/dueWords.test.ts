import { readAs } from '../ui/manner';
import { dueWords } from './dueWords';

const at = (day: number, hour: number) => new Date(2026, 10, day, hour).getTime();

test.each([
  [at(25, 23), 'due today'],
  [at(25, 1), 'due today'],
  [at(26, 0), 'due tomorrow'],
  [at(30, 9), 'due in 5 days'],
  [at(24, 23), '1 day late'],
  [at(20, 9), '5 days late'],
])('%#: by the days of the calendar', (nextDueAt, words) => expect(dueWords({ nextDueAt }, at(25, 9))).toBe(words));

test('days are those of the shop', () => {
  const [due, now] = [Date.UTC(2026, 10, 25, 10), Date.UTC(2026, 10, 25, 22, 30)];
  readAs({ units: 'mm', zone: 'Pacific/Auckland', numbers: 'point' });
  expect(dueWords({ nextDueAt: due }, now)).toBe('1 day late');
  readAs({ units: 'mm', zone: 'UTC', numbers: 'point' });
  expect(dueWords({ nextDueAt: due }, now)).toBe('due today');
  readAs(null);
});
