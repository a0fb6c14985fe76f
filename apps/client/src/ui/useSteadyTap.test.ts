import { renderHook } from '@testing-library/react-native';
import { useSteadyTap } from './useSteadyTap';

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
