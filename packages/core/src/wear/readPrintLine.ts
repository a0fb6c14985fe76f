import { readFailure, readHeld, readRelease, type PrintFailure, type PrintRelease } from './printWords';
import { readSpan, readTime } from './readTime';

/** What a column of a list of prints can hold. */
export const PRINT_COLUMNS = [
  'machine',
  'ended',
  'held',
  'material',
  'grams',
  'duration',
  'failure',
  'release',
  'note',
] as const;
export type PrintColumn = (typeof PRINT_COLUMNS)[number];
/** Columns without which a line is no print. */
export const NEEDED_COLUMNS: readonly PrintColumn[] = ['machine', 'ended', 'held'];

/** Which column of a list holds what, and how it writes its dates and spans. */
export interface ColumnMatch {
  columns: Partial<Record<PrintColumn, number>>;
  dayFirst: boolean;
  durationUnit: 's' | 'min' | 'h';
}

/** Characters of a cell that are looked at: more say nothing of a print. */
const LONGEST_CELL = 500;

const HEADS: Record<PrintColumn, RegExp> = {
  machine: /\b(machine|printer|device|name)\b/,
  ended: /\b(end\w*|finish\w*|complet\w*|date|time|timestamp|when)\b/,
  held: /\b(held|result|status|success|outcome|ok|state)\b/,
  material: /\b(material|filament|resin|type)\b/,
  grams: /\b(grams?|g|weight|mass|used)\b/,
  duration: /\b(duration|print time|hours?|minutes?|took|length|elapsed)\b/,
  failure: /\b(failure|fail\w*|reason|defect|cause|problem)\b/,
  release: /\b(release\w*|removal|removed|came off)\b/,
  note: /\b(notes?|comment\w*|remark\w*|file|job)\b/,
};
/** Columns in the order in which they choose: the most telling words first. */
const CHOOSING: readonly PrintColumn[] = [
  'machine',
  'failure',
  'release',
  'held',
  'material',
  'grams',
  'duration',
  'ended',
  'note',
];

/**
 * Which column probably holds what, by the heads of a list and a few of its lines.
 * @example guessColumns(['Printer', 'Finished', 'Result'], []).columns // { machine: 0, held: 2, ended: 1 }
 */
export function guessColumns(heads: readonly string[], sample: readonly (readonly string[])[]): ColumnMatch {
  const plain = heads.map((head) =>
    head
      .slice(0, 100)
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, ' ')
      .trim(),
  );
  const columns: Partial<Record<PrintColumn, number>> = {};
  const free = new Set(plain.keys());
  for (const column of CHOOSING) {
    const exact = [...free].find((i) => plain[i] === column);
    const found = exact ?? [...free].find((i) => HEADS[column].test(plain[i]!));
    if (found === undefined) continue;
    columns[column] = found;
    free.delete(found);
  }
  const ended = columns.ended === undefined ? [] : sample.map((cells) => cells[columns.ended!] ?? '');
  // 25/11/2026 can only have its day first, 11/25/2026 only its month.
  const monthFirst = ended.some((text) => /^\d{1,2}[/-](1[3-9]|2\d|3[01])[/-]\d{4}/.test(text.trim()));
  const head = columns.duration === undefined ? '' : plain[columns.duration]!;
  const durationUnit = /\bmin/.test(head) ? 'min' : /\b(h|hours?|hrs?)\b/.test(head) ? 'h' : 's';
  return { columns, dayFirst: !monthFirst, durationUnit };
}

export interface ReadPrint {
  machine: string;
  endedAt: number;
  held: boolean;
  material: string;
  grams: number | null;
  duration: number | null;
  failure: PrintFailure | null;
  release: PrintRelease | null;
  note: string;
}

export type PrintLine = { ok: true; print: ReadPrint } | { ok: false; faults: Partial<Record<PrintColumn, string>> };

/**
 * One line of a list as a print, or what is wrong with each of its cells. A failed print need not say how it failed;
 * one that held can't have failed.
 * @param zone IANA name for times that don't say theirs
 * @param now epoch ms; a print can't have ended later
 */
export function readPrintLine(
  cells: readonly string[],
  { match, zone, now }: { match: ColumnMatch; zone: string; now: number },
): PrintLine {
  const faults: Partial<Record<PrintColumn, string>> = {};
  const cell = (column: PrintColumn) => {
    const at = match.columns[column];
    return at === undefined ? '' : (cells[at] ?? '').slice(0, LONGEST_CELL).trim();
  };
  const machine = cell('machine');
  if (machine === '') faults.machine = 'The machine is missing.';
  const endedAt = readTime(cell('ended'), { dayFirst: match.dayFirst, zone });
  if (endedAt === null)
    faults.ended =
      cell('ended') === '' ? 'The time is missing.' : `“${short(cell('ended'))}” is not a time that is understood.`;
  else if (endedAt > now + 86_400_000) faults.ended = 'This time lies in the future.';
  let held = readHeld(cell('held'));
  const how = match.columns.failure === undefined ? cell('held').replace(/^[^,;:(]*/, '') : cell('failure');
  const failure = held === true && match.columns.failure === undefined ? null : readFailure(how);
  // A list may say how it failed and nothing else.
  if (held === null && cell('held') === '' && failure !== null) held = false;
  if (held === null)
    faults.held =
      cell('held') === '' ? 'Whether it held is missing.' : `“${short(cell('held'))}” says neither held nor failed.`;
  if (held === true && failure !== null) faults.failure = 'It held, and yet it says how it failed.';
  const grams = amount(cell('grams'));
  if (grams === undefined) faults.grams = `“${short(cell('grams'))}” is not a weight in grams.`;
  const duration = cell('duration') === '' ? null : readSpan(cell('duration'), match.durationUnit);
  if (duration === null && cell('duration') !== '')
    faults.duration = `“${short(cell('duration'))}” is not a span of time.`;
  if (Object.keys(faults).length > 0) return { ok: false, faults };
  return {
    ok: true,
    print: {
      machine,
      endedAt: endedAt!,
      held: held!,
      material: cell('material').slice(0, 40),
      grams: grams!,
      duration,
      failure,
      release: readRelease(cell('release')),
      note: cell('note').slice(0, 200),
    },
  };
}

/** A weight, with a decimal comma or a "g" behind it; null for an empty cell, undefined for what is none. */
function amount(text: string): number | null | undefined {
  if (text === '') return null;
  const plain = text
    .slice(0, 40)
    .replace(/\s{0,8}g(rams?)?$/i, '')
    .replace(',', '.');
  const value = /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : NaN;
  return value >= 0 && value <= 1e6 ? value : undefined;
}

const short = (text: string) => (text.length > 24 ? `${text.slice(0, 24)}…` : text);
