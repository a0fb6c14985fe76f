import { parse } from 'csv-parse/sync';
import { Problem } from '../http/problem';

const MOST_LINES = 250_000;
const MOST_COLUMNS = 200;
/** Characters of a cell that are kept: a cell of a list of prints is short. */
const LONGEST_CELL = 1_000;

/** The mark between cells: the one of comma, semicolon and tab that stands most often in the first line. */
function delimiterOf(text: string): string {
  const [first = ''] = text.split(/\r?\n/, 1);
  return [',', ';', '\t'].sort((p, q) => first.split(q).length - first.split(p).length)[0]!;
}

/** Reads a CSV file into heads and lines. @throws Problem what is no list, or too long a one */
export function readCsv(file: Buffer): { heads: string[]; lines: string[][] } {
  const text = new TextDecoder('utf-8').decode(file).replace(/^\uFEFF/, '');
  if (text.includes('\0'))
    throw new Problem(422, 'no-list', 'This is no text file. Save the list as CSV and try again.');
  let rows: string[][];
  try {
    rows = parse(text, {
      delimiter: delimiterOf(text),
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
