import fc from 'fast-check';
import { describeTurn, roundTurn, turnFigure, turnStep } from './describeTurn';
import { firstLayerAim } from './firstLayerAim';
import { pitchOf, THREADS } from './threads';

describe('describeTurn', () => {
  test.each([
    [0, 'leave it'],
    [0.02, 'leave it'],
    [-0.02, 'leave it'],
    [1 / 16, 'a sixteenth turn clockwise'],
    [0.125, 'an eighth turn clockwise'],
    [3 / 16, 'three sixteenths of a turn clockwise'],
    [0.25, 'a quarter turn clockwise'],
    [-0.375, 'three eighths of a turn anticlockwise'],
    [0.5, 'half a turn clockwise'],
    [0.75, 'three quarters of a turn clockwise'],
    [-1, 'one turn anticlockwise'],
    [1.125, 'one and an eighth turns clockwise'],
    [1.25, 'one and a quarter turns clockwise'],
    [-1.375, 'one and three eighths turns anticlockwise'],
    [1.5, 'one and a half turns clockwise'],
    [2, 'two turns clockwise'],
    [2.44, '2.4 turns clockwise'],
    [-13.06, '13.1 turns anticlockwise'],
  ])('%d is "%s"', (turns, words) => expect(describeTurn(turns)).toBe(words));

  test('refuses what is not a number of turns', () => {
    expect(() => describeTurn(NaN)).toThrow(RangeError);
    expect(() => describeTurn(Infinity)).toThrow(RangeError);
  });

  test('what is said is within half a step, and saying it again changes nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (turns) => {
        const said = roundTurn(turns);
        expect(Math.abs(said - turns)).toBeLessThanOrEqual(turnStep(turns) / 2 + 1e-12);
        expect(roundTurn(said)).toBe(said);
        expect(describeTurn(said)).toBe(describeTurn(turns));
        expect(describeTurn(-said).replace('anti', '')).toBe(describeTurn(said).replace('anti', ''));
      }),
    );
  });

  test.each([
    [0, '–'],
    [0.25, '¼'],
    [-0.1875, '3/16'],
    [-1.375, '1⅜'],
    [2, '2'],
    [3.21, '3.2'],
  ])('turnFigure(%d) is %s', (turns, figure) => expect(turnFigure(turns)).toBe(figure));
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
