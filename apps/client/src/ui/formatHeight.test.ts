import {
  area,
  decimal,
  length,
  lengthFigure,
  shortDecimal,
  signedFine,
  signedLength,
  size,
  temperature,
  temperatureDifference,
} from './formatHeight';
import { readAs } from './manner';

const METRIC = { units: 'mm', zone: 'UTC', numbers: 'point' } as const;
beforeEach(() => readAs(METRIC));

test.each([
  [0.034, '+3'],
  [-0.034, '\u22123'],
  [0.004, '0'],
  [-0.004, '0'],
  [1.2, '+120'],
])('%d mm is %s hundredths', (height, text) => expect(signedFine(height)).toBe(text));

test.each([
  [0.265, 2, '0.27'],
  [-0.1, 2, '\u22120.10'],
  [-0.001, 2, '0.00'],
  [0.125, 3, '0.125'],
])('%d with %d decimals is %s', (value, digits, text) => expect(lengthFigure(value, digits)).toBe(text));

test('lengths and temperatures carry their unit', () => {
  expect(length(0.05)).toBe('0.05 mm');
  expect(size(0.6)).toBe('0.6 mm');
  expect(area(235, 310.25)).toBe('235 × 310.3 mm');
  expect(signedLength(-1.161)).toBe('\u22121.161 mm');
  expect(signedLength(0.2)).toBe('+0.200 mm');
  expect(temperature(100)).toBe('100 °C');
});

// 1 in = 25.4 mm exactly (international yard and pound agreement, 1959); 0 °C = 32 °F, 100 °C = 212 °F.
test('inches and Fahrenheit by setting', () => {
  readAs({ ...METRIC, units: 'in' });
  expect(length(25.4)).toBe('1.0000 in');
  expect(size(254)).toBe('10 in');
  expect(length(0.0254)).toBe('0.0010 in');
  expect(temperature(100)).toBe('212 °F');
  expect(temperature(0)).toBe('32 °F');
});

test('a comma by setting', () => {
  readAs({ ...METRIC, numbers: 'comma' });
  expect(length(-0.27)).toBe('\u22120,27 mm');
  expect(decimal(1234.5, 1)).toBe('1234,5');
  expect(shortDecimal(29.5, 2)).toBe('29,5');
});

test('a difference of temperatures is scaled and not shifted', () => {
  expect(temperatureDifference(2)).toBe('2 °C');
  readAs({ units: 'in', zone: 'UTC', numbers: 'point' });
  expect(temperatureDifference(2)).toBe('3.6 °F');
  expect(temperature(100)).toBe('212 °F');
});
