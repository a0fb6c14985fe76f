import path from 'node:path';
import { decodeText } from '@even-bed/core/fleet/decodeText';
import { parse } from 'csv-parse/sync';
import { heavyTask } from '../kernel/heavy';
import { Problem } from '../kernel/problem';

const MOST_LINES = 250_000;
const MOST_COLUMNS = 200;
/** Characters of a cell that are kept: a cell of a list of prints is short. */
const LONGEST_CELL = 1_000;

/** The mark between cells: the one of comma, semicolon and tab that stands most often in the first line. */
function delimiterOf(text: string): string {
  const end = text.indexOf('\n');
  const first = end < 0 ? text : text.slice(0, end);
  return [',', ';', '\t'].sort((p, q) => first.split(q).length - first.split(p).length)[0]!;
}

/** A first line that only says what parts the cells ("sep=;") is taken at its word. */
function unmarked(told: string): { text: string; delimiter: string } {
  const text = told.replace(/^\uFEFF/, '');
  const sep = /^sep=([,;\t])\r?\n/i.exec(text);
  return sep ? { text: text.slice(sep[0].length), delimiter: sep[1]! } : { text, delimiter: delimiterOf(text) };
}

/** Reads a CSV file into heads and lines. @throws Problem what is no list, or too long a one */
export function readCsv(file: Buffer): { heads: string[]; lines: string[][] } {
  const { text, delimiter } = unmarked(decodeText(file));
  if (text.includes('\0'))
    throw new Problem(422, 'no-list', 'This is no text file. Save the list as CSV and try again.');
  let rows: string[][];
  try {
    rows = parse(text, {
      delimiter,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      trim: true,
      to: MOST_LINES + 2,
      max_record_size: 100_000,
    });
  } catch {
    throw new Problem(
      422,
      'no-list',
      'This list can’t be read: a quotation mark is opened and never closed. Save it as CSV again.',
    );
  }
  const [heads, ...lines] = rows;
  if (!heads || lines.length === 0)
    throw new Problem(422, 'no-list', 'There is no line under the heads of the columns.');
  if (lines.length > MOST_LINES)
    throw new Problem(
      422,
      'too-long',
      `A list may have at most ${MOST_LINES.toLocaleString('en')} lines. Cut it in two.`,
    );
  const short = (cells: string[]) => cells.slice(0, MOST_COLUMNS).map((cell) => cell.slice(0, LONGEST_CELL));
  return { heads: short(heads), lines: lines.map(short) };
}

/** A list as it is kept: each line's cells as JSON. */
export interface CsvFile {
  heads: string[];
  /** A line of JSON for each line of the list: one long text goes from thread to thread at once, and cells one by one. */
  lines: string;
}

/** Reads a file in the worker: a whole year of prints takes seconds. */
export function readCsvTask(file: Uint8Array): CsvFile {
  const { heads, lines } = readCsv(Buffer.from(file));
  return { heads, lines: lines.map((cells) => JSON.stringify(cells)).join('\n') };
}
export const READ_CSV = heavyTask<typeof readCsvTask>(path.join(__dirname, 'readCsv'), 'readCsvTask');
