import { countersink } from '@even-bed/core/fit/countersink';
import { soak } from '@even-bed/core/fit/soak';
import { faultWords } from './fault';
import type { Reader } from './figures';

const MM: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };
const INCHES: Reader = { units: 'in', zone: 'UTC', numbers: 'comma' };

test.each([
  ['planBlanks needs a whole number of pieces, got 2.5', 'This needs a whole number of pieces.'],
  ['A feeler needs 0 to 5 mm, got 7.25', 'A feeler needs 0 to 5 mm.'],
  ['compareCounts needs 1 to 5 looks, got undefined', 'This needs 1 to 5 looks.'],
  ['stackChange needs above above 0 mm, got NaN', 'This needs above above 0 mm.'],
  ['planBlanks knows saw and snap, got ', 'This knows saw and snap.'],
  [
    'The places lie on one line: no plane goes through them.',
    'The places lie on one line: no plane goes through them.',
  ],
])('%s', (message, words) => expect(faultWords(message, MM)).toBe(words));

test('in the reader’s units and with the reader’s mark', () => {
  expect(faultWords('countersink needs a hole narrower than the head of 5.5 mm, got 7', INCHES)).toBe(
    'This needs a hole narrower than the head of 0,2165 in.',
  );
  expect(faultWords('soak needs a setpoint of 100 °C or less, got 400', INCHES)).toBe(
    'This needs a setpoint of 212 °F or less.',
  );
  expect(faultWords('x needs a share of 0.25 to 1.5, got 3', INCHES)).toBe('This needs a share of 0,25 to 1,5.');
});

test('what the sums themselves refuse says no name of a function', () => {
  const refused = (work: () => unknown) => {
    try {
      work();
    } catch (error) {
      return faultWords((error as Error).message, MM);
    }
    throw new Error('nothing was refused');
  };
  const said = [
    refused(() => countersink({ thread: 'M3', hole: 7 } as never)),
    refused(() => soak({ layers: [], setpoint: 20, ambient: 22 } as never)),
  ];
  for (const text of said) expect(text).toMatch(/^This .*\.$/);
  for (const text of said) expect(text).not.toMatch(/got|countersink|soak needs/);
});
