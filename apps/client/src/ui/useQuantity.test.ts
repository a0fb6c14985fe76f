import { act, renderHook } from '@testing-library/react-native';
import { readAs } from './manner';
import { useQuantity } from './useQuantity';

afterAll(() => readAs(null));

test('what is typed stands as it was typed, until the shop counts in another unit', () => {
  readAs({ units: 'in', numbers: 'point', zone: 'UTC' });
  let value = '';
  const { result, rerender } = renderHook(() => useQuantity(value, 'mm', (kept) => (value = kept)));
  act(() => result.current.type('9 1/4'));
  rerender({});
  expect([value, result.current.shown]).toEqual(['234.95', '9 1/4']);
  readAs({ units: 'mm', numbers: 'point', zone: 'UTC' });
  rerender({});
  expect(result.current.shown).toBe('234.95');
});
