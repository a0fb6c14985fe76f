import { DECIMALS_FROM, roundTurn } from '@even-bed/core/level/roundTurn';
import { figuresFor, type Reader } from './figures';

/** What matters of a reader for turns. */
type TurnReader = Pick<Reader, 'numbers' | 'turns'>;

const WHOLE = ['', 'one', 'two'];
const SIXTEENTHS: Record<number, string> = {
  1: 'sixteenth',
  3: 'three sixteenths',
  5: 'five sixteenths',
  7: 'seven sixteenths',
  9: 'nine sixteenths',
  11: 'eleven sixteenths',
  13: 'thirteen sixteenths',
  15: 'fifteen sixteenths',
  2: 'eighth',
  6: 'three eighths',
  10: 'five eighths',
  14: 'seven eighths',
  4: 'quarter',
  8: 'half',
  12: 'three quarters',
};

/**
 * A turn in words, + clockwise. The turn is rounded to the step in which it is said; less than half a
 * sixteenth is "leave it".
 * @param turns signed turns, + clockwise as seen by the reader
 * @throws RangeError a turn that is not finite
 * @example turnWords(0.25, { numbers: 'point' }) // 'a quarter turn clockwise'
 */
export function turnWords(turns: number, { numbers, turns: said = 'parts' }: TurnReader): string {
  if (!(Math.abs(turns) <= 1e9)) throw new RangeError(`turnWords needs a finite number of turns, got ${turns}`);
  const rounded = roundTurn(turns);
  if (rounded === 0) return 'leave it';
  const size = Math.abs(rounded);
  const amount = said === 'degrees' && size <= DECIMALS_FROM ? degrees(size, numbers) : amountOf(size, numbers);
  return `${amount} ${rounded > 0 ? 'clockwise' : 'anticlockwise'}`;
}

function amountOf(size: number, numbers: Reader['numbers']): string {
  if (size > DECIMALS_FROM) return `${trimmed(size, numbers)} turns`;
  const whole = Math.floor(size);
  const sixteenths = Math.round((size - whole) * 16);
  const part = SIXTEENTHS[sixteenths];
  if (!part) return whole === 1 ? 'one turn' : `${WHOLE[whole]} turns`;
  if (whole === 0) {
    if (part === 'half') return 'half a turn';
    return part.includes(' ') ? `${part} of a turn` : `${articleOf(part)} ${part} turn`;
  }
  return `${WHOLE[whole]} and ${part.includes(' ') ? part : `${articleOf(part)} ${part}`} turns`;
}

const articleOf = (word: string) => (/^[aeiou]/.test(word) ? 'an' : 'a');
const trimmed = (size: number, numbers: Reader['numbers']) => {
  const text = String(Number(size.toFixed(1)));
  return numbers === 'comma' ? text.replace('.', ',') : text;
};

/** A turn that was rounded to be said, in degrees: a sixteenth is 22.5°. */
const degrees = (turns: number, numbers: Reader['numbers']) => `${trimmed(360 * turns, numbers)}°`;

/** The move of an adjuster, + up, that a motor drives: "up by 0.12 mm". */
export function motorWords(rise: number, reader: Reader): string {
  if (rise === 0) return 'leave it';
  return `${rise > 0 ? 'up' : 'down'} by ${figuresFor(reader).length(Math.abs(rise))}`;
}

/** The same as short figures for a dial: "+0.12"; "–" for none. */
export const motorFigure = (rise: number, reader: Reader): string =>
  rise === 0 ? '–' : `${rise > 0 ? '+' : ''}${figuresFor(reader).length(rise).replace(/ \S+$/, '')}`;

const GLYPHS: Record<number, string> = { 2: '⅛', 4: '¼', 6: '⅜', 8: '½', 10: '⅝', 12: '¾', 14: '⅞' };

/**
 * The size of a turn as short figures for a dial: "¼", "1⅜", "3/16", "2.4"; "–" for none. No direction.
 * @example turnFigure(-1.375, { numbers: 'point' }) // '1⅜'
 */
export function turnFigure(turns: number, { numbers, turns: said = 'parts' }: TurnReader): string {
  const size = Math.abs(roundTurn(turns));
  if (size === 0) return '–';
  if (size > DECIMALS_FROM) return trimmed(size, numbers);
  if (said === 'degrees') return degrees(size, numbers);
  const whole = Math.floor(size);
  const sixteenths = Math.round((size - whole) * 16);
  const part = sixteenths === 0 ? '' : (GLYPHS[sixteenths] ?? `${sixteenths}/16`);
  return `${whole || ''}${part}`;
}
