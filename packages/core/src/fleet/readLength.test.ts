import { readLength } from './readLength';

test.each([
  ['12.5', 12.5],
  ['12,5 mm', 12.5],
  ['.5', 0.5],
  ['\u22120,25', -0.25],
  ['2.54cm', 25.4],
  ['5 1/4 in', 133.35],
  ['5-1/4"', 133.35],
  ['3/16"', 4.7625],
  ['1 in', 25.4],
  ['3/4', 0.75],
  ['-2.049999999999997', -2.05],
])('%s is %d mm', (text, length) => expect(readLength(text)).toBeCloseTo(length, 9));

test('inches by setting', () => expect(readLength('5 1/4', 'in')).toBeCloseTo(133.35, 9));

test.each(['', 'a', '5 12', '1/0', '1..2', '--1', '1 ft'])('%s is no length', (text) =>
  expect(readLength(text)).toBeNull(),
);

test('no dust of binary fractions is left', () => expect(readLength('8 1/2 in')).toBe(215.9));
