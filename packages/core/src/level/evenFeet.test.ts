import fc from 'fast-check';
import { evenFeet } from './evenFeet';

test('a level that is off by 0.5° on a printer that leans 1° to the right: both come out', () => {
  // It shows tilt + bias, and turned round −tilt + bias.
  const read = evenFeet({ first: 1.5, turned: -0.5 }, 200);
  expect(read.tilt).toBeCloseTo(1, 12);
  expect(read.bias).toBeCloseTo(0.5, 12);
  // 200 mm at 1°: 3.49 mm (tan 1° = 0.017455, any table).
  expect(read.lower).toBeCloseTo(3.491, 3);
  expect(read.verdict).toBe('shim');
});

test('a bias alone is no tilt', () => {
  expect(evenFeet({ first: 2, turned: 2 }, 300)).toMatchObject({ tilt: 0, bias: 2, lower: 0, verdict: 'even' });
});

test('whatever the bias, the tilt is the same', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -20, max: 20, noNaN: true }),
      fc.double({ min: -20, max: 20, noNaN: true }),
      (tilt, bias) => {
        const read = evenFeet({ first: tilt + bias, turned: bias - tilt }, 100);
        expect(read.tilt).toBeCloseTo(tilt, 9);
        expect(read.bias).toBeCloseTo(bias, 9);
      },
    ),
  );
});

test('refuses what is no angle and no span', () => {
  expect(() => evenFeet({ first: NaN, turned: 0 }, 100)).toThrow('needs numbers');
  expect(() => evenFeet({ first: 60, turned: 0 }, 100)).toThrow('below 45°');
  expect(() => evenFeet({ first: 0, turned: 0 }, 0)).toThrow('span');
});
