import type { BookEntry } from '@even-bed/contract';
import { seenLast } from './seenLast';

const look = (at: number, card: string, code: string) =>
  ({ kind: 'inspected', at, data: { inspectionId: '', card, code, numbers: {}, note: '' } }) as BookEntry;

test('the latest look of each card counts, until work was done after it', () => {
  const looks = [look(10, 'coat', 'faded'), look(20, 'light-line', 'none')];
  expect(seenLast(looks, [], 0)).toMatchObject({ at: 10, words: expect.stringContaining('faded') });
  // Washed since: what was seen before may be cured.
  expect(seenLast(looks, [15], 0)).toBeNull();
  // From before it was renewed.
  expect(seenLast(looks, [], 12)).toBeNull();
  // Seen anew, and well.
  expect(seenLast([...looks, look(30, 'coat', 'even')], [], 0)).toBeNull();
  expect(seenLast([], [], 0)).toBeNull();
});
