import { cellNumber, withoutTimeStamp } from './heightText';

/** A line of a table taken apart. */
export interface TableRow {
  /** Counts from 1. */
  line: number;
  /** NaN: not reached; undefined: neither a number nor a mark for unreached. */
  cells: (number | undefined)[];
  /** Cells as written, for headers and for telling whole numbers from decimals. */
  written: string[];
  /** A number that stood before a colon or a single bar: the row's index or position. */
  label: number | null;
  /** Where each cell ends in its line, for text in columns of fixed width; null where cells are parted by a sign. */
  ends: number[] | null;
}

type Delimiter = 'tab' | 'semicolon' | 'comma' | 'bar' | 'space';

/** Lines longer than this hold no map that fits a bed. */
const LONGEST_LINE = 60_000;
const WORDS_BEFORE = /^\s{0,40}(?:[<>]{1,3}\s{0,4}|[A-Za-z][A-Za-z_ ]{0,40}[ ]{0,2}[:>][ \t]{0,8})/;
const ROW_LABEL = /^\s{0,40}(?:row\s{0,3}|y\s{0,2}=?\s{0,2})?[[(]?([+-]?\d{1,6}(?:[.,]\d{1,6})?)[\])]?\s{0,4}[:|]/i;
/** A line that sums a map up and is no row of it. */
const SUMMARY = /^[^A-Za-z]{0,30}(?:mean|avg|average|min|max|minimum|maximum|range|std|stddev|deviation|rms|sum)\b/i;
const COMMA_BETWEEN_DIGITS = /^[^,]*\d?,\d[^,]*$/;

const DECIMAL_COMMAS_PARTED =
  /^\s{0,8}(?:[+-]?\d{1,6}(?:,\d{1,6})?,[ \t]{1,4}){1,200}[+-]?\d{1,6}(?:,\d{1,6})?\s{0,8}$/;

/** The lines with cells, and whether a comma stands for the decimal point in them. */
export function tableRows(lines: readonly string[]): TableRow[] {
  const stripped: { line: number; whole: string; text: string; label: number | null }[] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    if (line.length > LONGEST_LINE || line.trim() === '' || SUMMARY.test(line)) continue;
    stripped.push({ line: i + 1, whole: line, ...strip(line) });
  }
  // A comma before a blank parts, one inside a number is its decimal sign: only where every line says so.
  const both = stripped.filter(({ text }) => /\d/.test(text));
  if (both.length > 1 && both.every(({ text }) => DECIMAL_COMMAS_PARTED.test(text)))
    for (const row of both) row.text = row.text.replace(/,[ \t]{1,4}/g, ';');
  const numeric = stripped.filter(({ text }) => /\d/.test(text));
  const delimiter = delimiterOf(numeric.map(({ text }) => text));
  const decimalComma = usesDecimalComma(
    numeric.map(({ text }) => text),
    delimiter,
  );
  const rows = stripped.map(({ line, whole, text, label }): TableRow => {
    const written = split(text, delimiter);
    return {
      line,
      label,
      written,
      cells: written.map((cell) => cellNumber(cell, decimalComma)),
      ends: delimiter === 'space' ? endsOf(whole, text, written) : null,
    };
  });
  return delimiter === 'space' ? rows : withoutOuterDelimiters(rows);
}

/** Where the cells of a line end, counted from the line's start. */
function endsOf(whole: string, text: string, written: readonly string[]): number[] {
  let at = Math.max(0, whole.lastIndexOf(text));
  return written.map((cell) => {
    at = whole.indexOf(cell, at) + cell.length;
    return at;
  });
}

/** A delimiter before the first or behind the last cell of every row adds no column. */
function withoutOuterDelimiters(rows: TableRow[]): TableRow[] {
  const several = rows.filter(({ written }) => written.length > 1);
  if (several.length < 2) return rows;
  const outer = (at: -1 | 0) => several.every(({ written }) => written.at(at)!.trim() === '');
  const [leading, trailing] = [outer(0), outer(-1)];
  if (!leading && !trailing) return rows;
  const kept = <T>(cells: readonly T[]) => cells.slice(leading ? 1 : 0, trailing ? -1 : undefined);
  return rows.map((row) =>
    row.written.length > 1 ? { ...row, written: kept(row.written), cells: kept(row.cells) } : row,
  );
}

/** The line without time stamp, words before the numbers, row label and brackets. */
function strip(line: string): { text: string; label: number | null } {
  let text = withoutTimeStamp(line);
  const words = WORDS_BEFORE.exec(text);
  if (words && /^[\s\d.,;|+[({-]|^nan/i.test(text.slice(words[0].length))) text = text.slice(words[0].length);
  let label: number | null = null;
  const separator = text.search(/[:|]/);
  if (separator > 0 && separator < 40 && text.indexOf('|', separator + 1) < 0) {
    const match = ROW_LABEL.exec(text);
    if (match) {
      label = Number(match[1]!.replace(',', '.'));
      text = text.slice(match[0].length);
    }
  }
  return { text: unbracketed(text), label };
}

/** Without brackets around the row, one bar at each end, and the comma that follows a closing bracket. */
function unbracketed(text: string): string {
  let start = 0;
  let end = text.length;
  while (start < end && ' \t[({'.includes(text[start]!)) start++;
  while (end > start && ' \t])},;'.includes(text[end - 1]!)) end--;
  const opened = /[[({]/.test(text.slice(0, start));
  const closed = /[\])}]/.test(text.slice(end));
  const row = text.slice(opened ? start : 0, closed ? end : text.length);
  if (!row.includes('|')) return row;
  return row.replace(/^[ \t]{0,40}\|/, '').replace(/\|[ \t]{0,40}$/, '');
}

function delimiterOf(texts: readonly string[]): Delimiter {
  const share = (test: (text: string) => boolean) => texts.filter(test).length > texts.length / 2;
  // A tab only at the start may be an indent: one between two cells has to stand somewhere.
  if (texts.some((text) => text.trim().includes('\t')) && share((text) => text.includes('\t'))) return 'tab';
  if (share((text) => text.includes(';'))) return 'semicolon';
  if (share((text) => text.includes('|'))) return 'bar';
  if (share((text) => text.includes(',') && !onlyDecimalCommas(text))) return 'comma';
  return 'space';
}

/** True when every comma stands inside a number and the numbers are parted by spaces. */
function onlyDecimalCommas(text: string): boolean {
  const tokens = text.trim().split(/\s+/);
  return tokens.length > 1 && tokens.every((token) => !token.includes(',') || COMMA_BETWEEN_DIGITS.test(token));
}

function usesDecimalComma(texts: readonly string[], delimiter: Delimiter): boolean {
  return delimiter !== 'comma' && texts.some((text) => text.includes(','));
}

function split(text: string, delimiter: Delimiter): string[] {
  switch (delimiter) {
    case 'tab':
      return withoutSpaces(text).split('\t');
    case 'semicolon':
      return text.split(';');
    case 'bar':
      return text.split('|');
    case 'comma':
      return text.split(',');
    case 'space':
      return text.trim().split(/\s+/);
  }
}

/** Without the spaces at both ends; tabs stay, they part cells. */
function withoutSpaces(text: string): string {
  let start = 0;
  let end = text.length;
  while (start < end && text[start] === ' ') start++;
  while (end > start && text[end - 1] === ' ') end--;
  return text.slice(start, end);
}
