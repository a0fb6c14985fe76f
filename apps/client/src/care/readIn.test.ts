import { PROCEDURES } from '@even-bed/core/care/procedures';
import AsyncStorage from '@react-native-async-storage/async-storage';
import type * as Schemas from '../api/schemas';
import { keepReadIn, readInKept } from './readIn';

jest.mock('@react-native-async-storage/async-storage', () =>
  jest.requireActual('@react-native-async-storage/async-storage/jest/async-storage-mock'),
);
jest.mock('../api/loadSchemas', () => ({
  loadSchemas: () => Promise.resolve(jest.requireActual<typeof Schemas>('../api/schemas')),
}));
beforeEach(() => AsyncStorage.clear());

test('a job that was shared is read in as it is', async () => {
  expect(await keepReadIn(JSON.stringify(PROCEDURES[2]))).toBeNull();
  expect(await readInKept()).toEqual(PROCEDURES[2]);
});

test.each([
  ['not json', /no JSON/],
  ['[]', /must be a group of fields/],
  ['{"title":"x"}', /missing/],
  [
    JSON.stringify({ ...PROCEDURES[2], steps: [{ ...PROCEDURES[2]!.steps[0], cautions: ['fire'] }] }),
    /Caution must be one of/,
  ],
  [JSON.stringify({ ...PROCEDURES[2], run: 'rm' }), /not known here/],
  ['x'.repeat(600_000), /too long/],
])('what is none is refused with words', async (text, words) => {
  expect(await keepReadIn(text)).toMatch(words);
  expect(await readInKept()).toBeNull();
});
