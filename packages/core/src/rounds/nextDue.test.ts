import { dueState, nextDue } from './nextDue';

const DAY = 86_400_000;

describe('nextDue', () => {
  test('counts from the last time, and a rule never done is due at once', () => {
    expect(nextDue({ everyDays: 14, lastDone: 3 * DAY, from: 0 })).toBe(17 * DAY);
    expect(nextDue({ everyDays: 14, lastDone: null, from: 5 * DAY })).toBe(5 * DAY);
    expect(nextDue({ everyDays: 1, lastDone: 3 * DAY, from: 0 })).toBe(4 * DAY);
    expect(() => nextDue({ everyDays: 0, lastDone: null, from: 0 })).toThrow(RangeError);
    expect(() => nextDue({ everyDays: NaN, lastDone: null, from: 0 })).toThrow(RangeError);
  });

  test.each([
    [10 * DAY, 'due'],
    [10 * DAY - 1, 'soon'],
    [8.7 * DAY, 'soon'],
    [8.6 * DAY, 'soon'],
    [8.5 * DAY, 'ready'],
  ] as const)('at %d of ten days it is %s', (now, state) => {
    expect(dueState({ dueAt: 10 * DAY, everyDays: 14, now })).toBe(state);
  });
});
