import fc from 'fast-check';
import { roundTurn, turnStep } from './roundTurn';
import { firstLayerAim } from './firstLayerAim';
import { pitchOf, THREADS } from './threads';

test('what is said is within half a step, and saying it again changes nothing', () => {
  fc.assert(
    fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (turns) => {
      const said = roundTurn(turns);
      expect(Math.abs(said - turns)).toBeLessThanOrEqual(turnStep(turns) / 2 + 1e-12);
      expect(roundTurn(said)).toBe(said);
    }),
  );
});

describe('threads', () => {
  // ISO 261, coarse series; ASME B1.1: threads per inch.
  test.each([
    ['M2', 0.4],
    ['M3', 0.5],
    ['M4', 0.7],
    ['M5', 0.8],
    ['M6', 1],
    ['M8', 1.25],
    ['#6-32 UNC', 0.79375],
    ['1/4-20 UNC', 1.27],
    ['#10-32 UNF', 0.79375],
  ])('%s has a pitch of %d mm', (name, pitch) => expect(pitchOf(name)).toBeCloseTo(pitch, 10));

  test('unknown threads are undefined, and no name stands twice', () => {
    expect(pitchOf('M99')).toBeUndefined();
    expect(new Set(THREADS.map(({ name }) => name)).size).toBe(THREADS.length);
  });
});

describe('firstLayerAim', () => {
  // Common practice, from memory.
  test('half the first layer with compensation, a quarter without', () => {
    expect(firstLayerAim({ firstLayer: 0.2, compensation: true })).toBeCloseTo(0.1, 12);
    expect(firstLayerAim({ firstLayer: 0.2, compensation: false })).toBeCloseTo(0.05, 12);
    expect(() => firstLayerAim({ firstLayer: 0, compensation: true })).toThrow(RangeError);
  });
});
