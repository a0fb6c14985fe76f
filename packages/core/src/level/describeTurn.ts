/** From here on turns are said in tenths: nobody counts eighths past two whole turns. */
const DECIMALS_FROM = 2;
/** Up to one turn a hand can tell sixteenths (22.5°). */
const SIXTEENTHS_UP_TO = 1;

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
 * The step in which a turn of this size is said: a sixteenth up to one turn, an eighth up to two, then a tenth.
 * @param turns signed turns
 */
export function turnStep(turns: number): number {
  const size = Math.abs(turns);
  if (size <= SIXTEENTHS_UP_TO) return 1 / 16;
  return size <= DECIMALS_FROM ? 1 / 8 : 1 / 10;
}

/**
 * A turn rounded to what can be said and done by hand; sign kept, never −0.
 * @example roundTurn(0.4) // 0.375
 */
export function roundTurn(turns: number): number {
  const perTurn = Math.round(1 / turnStep(turns));
  return Math.round(turns * perTurn) / perTurn + 0;
}

/**
 * A turn in words, + clockwise. The turn is rounded to the step in which it is said; less than half a
 * sixteenth is "leave it".
 * @param turns signed turns, + clockwise as seen by the reader
 * @throws RangeError a turn that is not finite
 * @example describeTurn(0.25) // 'a quarter turn clockwise'
 */
export function describeTurn(turns: number): string {
  if (!(Math.abs(turns) <= 1e9)) throw new RangeError(`describeTurn needs a finite number of turns, got ${turns}`);
  const said = roundTurn(turns);
  if (said === 0) return 'leave it';
  return `${amountOf(Math.abs(said))} ${said > 0 ? 'clockwise' : 'anticlockwise'}`;
}

function amountOf(size: number): string {
  if (size > DECIMALS_FROM) return `${trimmed(size)} turns`;
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
const trimmed = (size: number) => String(Number(size.toFixed(1)));

const GLYPHS: Record<number, string> = { 2: '⅛', 4: '¼', 6: '⅜', 8: '½', 10: '⅝', 12: '¾', 14: '⅞' };

/**
 * The size of a turn as short figures for a dial: "¼", "1⅜", "3/16", "2.4"; "–" for none. No direction.
 * @example turnFigure(-1.375) // '1⅜'
 */
export function turnFigure(turns: number): string {
  const size = Math.abs(roundTurn(turns));
  if (size === 0) return '–';
  if (size > DECIMALS_FROM) return trimmed(size);
  const whole = Math.floor(size);
  const sixteenths = Math.round((size - whole) * 16);
  const part = sixteenths === 0 ? '' : (GLYPHS[sixteenths] ?? `${sixteenths}/16`);
  return `${whole || ''}${part}`;
}
