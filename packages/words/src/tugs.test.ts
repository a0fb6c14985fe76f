import { readTugs, tugsFrom } from '@even-bed/core/level/tugs';
import { tugWords, zeroExpiredWords } from './tugs';

const said = (...values: number[]) => tugWords(readTugs(tugsFrom(values), 'firm'));

test('what hands do next is said corner by corner, in the order of the hands', () => {
  expect(said(1, 1, 1, 0)).toBe(
    'Front left is looser than the rest: loosen all, press in the middle, tighten crosswise, front left, rear right, rear left, front right.',
  );
  expect(said(0, 1, 0, 1)).toMatch(/^Rear left and rear right are looser than the rest: loosen all/);
  expect(said(0, 0, 1, 1)).toMatch(/it rocks/);
  expect(said(1, 1, 1, 1)).toBe('Alike at all four: it is level. Now zero.');
  expect(said(2, 2, 2, 2)).toMatch(/zero takes the rest/);
});

test('nothing but “even” says that it is level', () => {
  for (let n = 0; n < 5 ** 4; n++) {
    const values = [0, 1, 2, 3].map((i) => Math.floor(n / 5 ** i) % 5);
    const level = new Set(values).size === 1 && (values[0] === 1 || values[0] === 2);
    expect([values, said(...values).includes('it is level')]).toEqual([values, level]);
  }
});

test('an expired zero names what it is older than', () => {
  expect(zeroExpiredWords('film')).toBe('Zero is from before the new film');
});
