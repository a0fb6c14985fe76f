import AsyncStorage from '@react-native-async-storage/async-storage';
import { deviceStore } from './deviceStore';

jest.mock('@react-native-async-storage/async-storage', () =>
  jest.requireActual('@react-native-async-storage/async-storage/jest/async-storage-mock'),
);

beforeEach(() => AsyncStorage.clear());

test('records of a kind are kept one by one, loaded together, and taken away', async () => {
  await deviceStore.set('draft', 'a', { text: '0,2' });
  await deviceStore.set('draft', 'b', { text: '1' });
  await deviceStore.set('other', 'a', 1);
  expect(await deviceStore.load('draft')).toEqual(
    new Map([
      ['a', { text: '0,2' }],
      ['b', { text: '1' }],
    ]),
  );
  await deviceStore.remove('draft', 'a');
  expect(await deviceStore.get('draft', 'a')).toBeNull();
  expect(await deviceStore.get('other', 'a')).toBe(1);
});

test('a record that cannot be read is as good as none', async () => {
  await AsyncStorage.setItem('even-bed/draft/broken', '{');
  expect(await deviceStore.get('draft', 'broken')).toBeNull();
  expect((await deviceStore.load('draft')).size).toBe(0);
});

test('where there is no room it says so, and again when there is', async () => {
  const told: boolean[] = [];
  deviceStore.whenKept((kept) => told.push(kept));
  const full = jest.spyOn(AsyncStorage, 'setItem').mockRejectedValueOnce(new Error('QuotaExceededError'));
  await deviceStore.set('draft', 'a', 1);
  await deviceStore.set('draft', 'a', 2);
  expect(told).toEqual([false, true]);
  expect(await deviceStore.get('draft', 'a')).toBe(2);
  full.mockRestore();
  deviceStore.whenKept(() => undefined);
});
