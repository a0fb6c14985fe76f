import { stringify } from 'csv-stringify/sync';

/** Beginnings that spreadsheets run as a formula. Source: OWASP, CSV Injection. */
const RUNS = /^[=+\-@\t\r]/;
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

/** A cell that no spreadsheet runs: what would be a formula gets an apostrophe in front. Numbers stay numbers. */
export function defused(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (typeof cell === 'number') return String(cell);
  const text =
    typeof cell === 'string' ? cell : typeof cell === 'boolean' ? (cell ? 'yes' : 'no') : JSON.stringify(cell);
  return RUNS.test(text) && !NUMBER.test(text) ? `'${text}` : text;
}

/** A table as CSV (RFC 4180), with a byte order mark so that spreadsheets read it as UTF-8. */
export const csv = (rows: readonly (readonly unknown[])[]): string =>
  `\uFEFF${stringify(
    rows.map((row) => row.map(defused)),
    { record_delimiter: 'windows', quoted_match: /[\r\n]/ },
  )}`;
