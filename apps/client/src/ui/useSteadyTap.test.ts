import { act, renderHook } from '@testing-library/react-native';
import { isBounce, useLeftOut, useSteadyTap } from './useSteadyTap';

beforeEach(() => jest.useFakeTimers({ now: 1_000_000 }));
afterEach(() => jest.useRealTimers());

test('a second tap in haste presses nothing, whatever stands there; a later one does', () => {
  const { result } = renderHook(() => useSteadyTap());
  const [failed, reason] = [jest.fn(), jest.fn()];
  result.current(failed)();
  jest.advanceTimersByTime(120);
  result.current(reason)();
  expect([failed.mock.calls.length, reason.mock.calls.length]).toEqual([1, 0]);
  jest.advanceTimersByTime(400);
  result.current(reason)();
  expect(reason).toHaveBeenCalledTimes(1);
});

test('only a tap in the same place is a bounce, and a first tap on a new page always counts', () => {
  const at = (ms: number, x: number, y: number) => ({ at: 1_000 + ms, finger: { x, y } });
  expect(isBounce(at(0, 100, 500), at(100, 110, 505))).toBe(true);
  expect(isBounce(at(0, 100, 500), at(100, 300, 505))).toBe(false);
  expect(isBounce(at(0, 100, 500), at(400, 100, 500))).toBe(false);
  // A knock or a pedal right after another is one, wherever a finger was.
  expect(isBounce({ at: 1_000, finger: null }, { at: 1_100, finger: null })).toBe(true);
  expect(isBounce(at(0, 100, 500), { at: 1_100, finger: null })).toBe(true);
  const work = jest.fn();
  renderHook(() => useSteadyTap()).result.current(work)();
  renderHook(() => useSteadyTap()).result.current(work)();
  expect(work).toHaveBeenCalledTimes(2);
});

test('a tap that was left out is told', () => {
  const { result } = renderHook(() => useSteadyTap());
  const told = renderHook(() => useLeftOut());
  result.current(() => undefined)();
  const before = told.result.current;
  jest.advanceTimersByTime(100);
  act(() => result.current(() => undefined)());
  expect(told.result.current).not.toBe(before);
});
