import { countdown, jobSignal } from './jobWords';

test.each([
  [0, '0:00'],
  [-5000, '0:00'],
  [65_000, '1:05'],
  [64_001, '1:05'],
  [72 * 3_600_000, '72:00:00'],
])('%p ms are shown as %s', (ms, shown) => expect(countdown(ms)).toBe(shown));

test('a job waits by itself until its time is up, then for a hand, and shows how it ended', () => {
  expect(jobSignal({ waitUntil: 100, ended: null }, 50)).toEqual({ kind: 'hold', waits: true });
  expect(jobSignal({ waitUntil: 100, ended: null }, 100)).toEqual({ kind: 'due', waits: false });
  expect(jobSignal({ waitUntil: null, ended: null }, 100).kind).toBe('due');
  expect(jobSignal({ waitUntil: null, ended: 'done' }, 100).kind).toBe('ready');
  expect(jobSignal({ waitUntil: 200, ended: 'stopped' }, 100).kind).toBe('stop');
});
