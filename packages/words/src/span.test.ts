import { timeLeft, timeSet, timeTaken } from './span';

const MINUTE = 60_000;

test.each([
  [1, '1 min'],
  [59 * MINUTE, '59 min'],
  [60 * MINUTE, '1 h'],
  [60 * MINUTE + 1, '1 h 1 min'],
  [250 * MINUTE, '4 h 10 min'],
  [1440 * MINUTE, '1 day'],
  [2880 * MINUTE, '2 days'],
  [(2880 + 180) * MINUTE, '2 d 3 h'],
])('%i ms left', (ms, words) => expect(timeLeft(ms)).toBe(words));

test.each([
  [12.4, '12 s'],
  [59.5, '1 min'],
  [60, '1 min'],
  [372, '6 min 12 s'],
  [3599.6, '1 h'],
  [3600, '1 h'],
  [3930, '1 h 6 min'],
])('%p s taken', (seconds, words) => expect(timeTaken(seconds)).toBe(words));

test.each([
  [20 * MINUTE, '20 min'],
  [90 * MINUTE, '1 h 30 min'],
  [24 * 60 * MINUTE, '24 h'],
  [24.4 * 60 * MINUTE, '24 h'],
  [72 * 60 * MINUTE, '72 h'],
])('%i ms set', (ms, words) => expect(timeSet(ms)).toBe(words));

test('what is left is never said as less than there is, from a day on too', () => {
  expect(timeLeft((24 * 60 + 59) * 60_000)).toBe('1 d 1 h');
  expect(timeLeft(24 * 3_600_000)).toBe('1 day');
  expect(timeLeft((23 * 60 + 59) * 60_000)).toBe('23 h 59 min');
  expect(timeLeft((47 * 60 + 1) * 60_000)).toBe('2 days');
});
