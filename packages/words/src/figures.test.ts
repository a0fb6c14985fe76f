import { readLength } from '@even-bed/core/fleet/readLength';
import fc from 'fast-check';
import { figuresFor, type Reader } from './figures';

const READERS: Reader[] = (['mm', 'in'] as const).flatMap((units) =>
  (['point', 'comma'] as const).map((numbers) => ({ units, numbers, zone: 'UTC' })),
);

// Far below the hundredth that advice is safe to: whoever types what is said does what was meant.
test.each(READERS)('a length of a stack that is said, read back, is the length within 0.001 mm: %j', (reader) => {
  const { size } = figuresFor(reader);
  fc.assert(
    fc.property(fc.double({ min: -500, max: 500, noNaN: true }), (mm) => {
      expect(Math.abs(readLength(size(mm, 3))! - mm)).toBeLessThanOrEqual(0.001);
    }),
    { seed: 11 },
  );
});

test.each([
  [0, '0 mm', '0 in'],
  [-0.0001, '0 mm', '0 in'],
  [3.175, '3.175 mm', '0.125 in'],
  [-25.4, '−25.4 mm', '−1 in'],
  [1e6, '1000000 mm', '39370.07874 in'],
])('%d', (mm, house, inches) => {
  expect(figuresFor(READERS[0]!).size(mm, 3)).toBe(house);
  expect(figuresFor(READERS[2]!).size(mm, 3)).toBe(inches);
});
