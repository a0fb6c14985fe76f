import { tQuantile } from './studentT';

// NIST/SEMATECH e-Handbook of Statistical Methods, §1.3.6.7.2, critical values of Student's t.
test.each([
  [0.9, 1, 3.078],
  [0.975, 1, 12.706],
  [0.95, 2, 2.92],
  [0.975, 5, 2.571],
  [0.995, 10, 3.169],
  [0.999, 30, 3.385],
  [0.975, 100, 1.984],
])('t at %d with %d degrees of freedom is %d', (probability, freedom, value) =>
  expect(tQuantile(probability, freedom)).toBeCloseTo(value, 3),
);

test('with many degrees of freedom it is the normal one', () => expect(tQuantile(0.975, 1e6)).toBeCloseTo(1.96, 3));

test.each([
  [0.4, 3],
  [1, 3],
  [NaN, 3],
  [0.9, 0],
  [0.9, NaN],
])('refuses %d, %d', (probability, freedom) =>
  expect(() => tQuantile(probability, freedom)).toThrow('tQuantile needs'),
);
