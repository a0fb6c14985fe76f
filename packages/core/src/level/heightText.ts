/** Minus signs and dashes that keyboards, spreadsheets and consoles put where a minus is meant. */
const MINUS_SIGNS = /[\u2010-\u2015\u2212\u207B\u208B\uFE58\uFE63\uFF0D\u2796]/g;
const ODD_SPACES = /[\u00A0\u1680\u2000-\u200A\u202F\u205F\u3000]/g;
const INVISIBLE = /[\uFEFF\u200B-\u200D\u2060]/g;
const ASCII_ONLY = /^[\u0000-\u007F]*$/;
/** Colours and cursor moves that terminals wrap around what they print. */
const ESCAPES = /\u001B(?:\[[0-9;?]{0,20}[A-Za-z]|[()][A-Z0-9])/g;

/** Text with every form of minus, space and line end brought to the plain one. */
export function plainText(text: string): string {
  let plain = text;
  if (!ASCII_ONLY.test(plain)) {
    plain = plain.replace(MINUS_SIGNS, '-').replace(ODD_SPACES, ' ').replace(INVISIBLE, '');
  }
  if (plain.includes('\u001B')) plain = plain.replace(ESCAPES, '');
  if (plain.includes('\r')) plain = plain.replace(/\r\n?/g, '\n');
  return plain;
}

/** Cells without their quotes; a decimal comma inside quotes is a number, not two cells. */
export function withoutQuotes(text: string): string {
  if (!text.includes('"')) return text;
  return text.replace(/"[ ]?([+-]?\d{0,9}),(\d{1,12})[ ]?"/g, '$1.$2').replace(/"/g, '');
}

/** A time or date and time at the start of a line, in brackets or not; hours and minutes alone only before a blank. */
const TIME_STAMP =
  /^\s{0,20}\[?(?:(?:\d{4}[-./]\d{1,2}[-./]\d{1,2}|\d{1,2}[-./]\d{1,2}[-./]\d{2,4})[T ]{1,4})?\d{1,2}:\d\d(?::\d\d(?:[.,]\d{1,9})?|(?=\][ \t]|[ \t]))(?:[ ]?[AaPp]\.?[Mm]\.?)?(?:Z|[+-]\d\d:?\d\d)?\]?[ \t:>|-]{0,3}(?=[^\d.]|[ \t]|$|\d+[ \t,;.])/;
/** Seconds since a start, as kernels and consoles put them in brackets: with decimals, which no row label has. */
const SINCE_START = /^\s{0,20}\[[ \t]{0,10}\d{1,9}\.\d{1,9}\][ \t:]{1,8}(?=\S)/;

/** What consoles put before their answers. */
const REMARK = /^\s{0,20}(?:\/\/|#|>>?)[ \t]{0,8}/;
/** Seconds or milliseconds since 1970 at the start of a line, in brackets or not. */
const EPOCH = /^\s{0,20}\[?1[5-9]\d{8}(?:\d{3})?(?:\.\d{1,9})?\]?(?:[ \t]{0,8}[:,;|>-])?[ \t]{1,8}(?=\S)/;

/** The line without a leading remark sign and time stamp. */
export function withoutTimeStamp(told: string): string {
  const line = told.replace(REMARK, '').replace(EPOCH, '').replace(SINCE_START, '');
  const colon = line.indexOf(':');
  if (colon < 1 || colon > 20) return line;
  const stamp = TIME_STAMP.exec(line);
  if (!stamp) return line;
  const rest = line.slice(stamp[0].length);
  // The separator class may have eaten the minus of the first number.
  return stamp[0].endsWith('-') && /^[\d.]/.test(rest) ? `-${rest}` : rest;
}

/** Characters of a cell that may be a number. */
const LONGEST_CELL = 60;

const SPACE = 32;
const ZERO = 48;
const NINE = 57;

const UNREACHED = new Set(['', '-', '.', '--', '---', 'nan', '+nan', '-nan', 'null', 'n/a', 'none', '?']);
const NUMBER_WITH_UNIT =
  /^([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d{1,3})?)\s?(?:mm|in|inch|inches|thou|mils?|um|µm|μm)?$/i;

/**
 * One cell as a number: NaN where it says that the place was not reached, undefined where it is neither.
 * @param decimalComma whether a comma stands for the decimal point
 */
export function cellNumber(cell: string, decimalComma: boolean): number | undefined {
  const value = cell.length > LONGEST_CELL ? NaN : Number(cell);
  // Number reads nothing as 0, and 0x1F as 31; a plain number shows by its first two characters.
  const first = cell.charCodeAt(0);
  const plain = first === ZERO ? !(cell.charCodeAt(1) > NINE) : first > SPACE;
  if (plain && value === value && value < 1e9 && value > -1e9) return value;
  // A number of a bed is short; a longer cell is none, and is not searched.
  if (cell.length > LONGEST_CELL) return undefined;
  const trimmed = cell.trim();
  if (UNREACHED.has(trimmed.toLowerCase())) return NaN;
  const point = decimalComma ? trimmed.replace(',', '.') : trimmed;
  const match = NUMBER_WITH_UNIT.exec(point);
  if (!match) return undefined;
  const number = Number(match[1]);
  return Math.abs(number) < 1e9 ? number : undefined;
}
