import { millimetres, signedHundredths } from './formatHeight';

test.each([
  [0.034, '+3'],
  [-0.034, '\u22123'],
  [0.004, '0'],
  [-0.004, '0'],
  [1.2, '+120'],
])('%d mm is %s hundredths', (height, text) => expect(signedHundredths(height)).toBe(text));

test.each([
  [0.265, 2, '0.27'],
  [-0.1, 2, '\u22120.10'],
  [-0.001, 2, '0.00'],
  [0.125, 3, '0.125'],
])('%d with %d decimals is %s', (length, digits, text) => expect(millimetres(length, digits)).toBe(text));
