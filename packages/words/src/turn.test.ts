import fc from 'fast-check';
import { roundTurn } from '@even-bed/core/level/roundTurn';
import { motorFigure, motorWords, turnFigure, turnWords } from './turn';

const POINT = { numbers: 'point' } as const;
const COMMA = { numbers: 'comma' } as const;

describe('turnWords', () => {
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
  ])('%d is "%s"', (turns, words) => expect(turnWords(turns, POINT)).toBe(words));

  test('refuses what is not a number of turns', () => {
    expect(() => turnWords(NaN, POINT)).toThrow(RangeError);
    expect(() => turnWords(Infinity, POINT)).toThrow(RangeError);
  });

  test('what is rounded is said as what it was rounded from', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (turns) => {
        const said = roundTurn(turns);
        expect(turnWords(said, POINT)).toBe(turnWords(turns, POINT));
        expect(turnWords(-said, POINT).replace('anti', '')).toBe(turnWords(said, POINT).replace('anti', ''));
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
  ])('turnFigure(%d) is %s', (turns, figure) => expect(turnFigure(turns, POINT)).toBe(figure));

  test('with the reader’s decimal mark', () => {
    expect(turnWords(2.44, COMMA)).toBe('2,4 turns clockwise');
    expect(turnFigure(3.21, COMMA)).toBe('3,2');
    expect(turnFigure(0.25, COMMA)).toBe('¼');
  });

  test.each([
    [1 / 16, '22.5° clockwise', '22.5°'],
    [-0.25, '90° anticlockwise', '90°'],
    [1.375, '495° clockwise', '495°'],
    [2, '720° clockwise', '720°'],
    [2.44, '2.4 turns clockwise', '2.4'],
    [0.02, 'leave it', '–'],
  ])('%d in degrees is "%s"', (turns, words, figure) => {
    expect(turnWords(turns, { numbers: 'point', turns: 'degrees' })).toBe(words);
    expect(turnFigure(turns, { numbers: 'point', turns: 'degrees' })).toBe(figure);
  });
});

test('a motor is told up or down by how much, in the reader’s units; on a dial with its sign', () => {
  const house = { units: 'mm', zone: 'UTC', numbers: 'comma' } as const;
  expect(motorWords(0.12, house)).toBe('up by 0,12 mm');
  expect(motorWords(-0.0254, { ...house, units: 'in' })).toBe('down by 0,0010 in');
  expect(motorWords(0, house)).toBe('leave it');
  expect([0.12, -0.12, 0].map((rise) => motorFigure(rise, house))).toEqual(['+0,12', '−0,12', '–']);
});
