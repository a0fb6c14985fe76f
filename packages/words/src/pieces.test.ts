import { readTestPlate, type PieceLook } from '@even-bed/core/level/testPlate';
import { piecesWords } from './pieces';

const looks = (...bad: number[]) =>
  Array.from({ length: 9 }, (_, i): PieceLook => (bad.includes(i) ? 'failed' : 'held'));

test.each([
  [[], true, /^All nine hold/],
  [[6, 7, 8], true, /^The front fails/],
  [[4], true, /not flat/],
  [[4], false, /can’t be told apart yet/],
  [[0, 1, 2, 3, 4, 5, 6, 7, 8], true, /exposure/],
  [[0, 1, 2, 3, 4, 5, 6, 7, 8], false, /zero first/],
] as const)('%j proven %s', (bad, proven, words) => {
  expect(piecesWords(readTestPlate(looks(...bad), proven))).toMatch(words);
});
