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
  /** What a bare weight is in; left out: grams. */
  weightUnit?: 'g' | 'kg' | undefined;
}

/** A match as it is guessed. dayFirst null: the dates of the list can be read either way, and it has to be said. */
export type GuessedMatch = Omit<ColumnMatch, 'dayFirst'> & { dayFirst: boolean | null };

/** Characters of a cell that are looked at: more say nothing of a print. */
const LONGEST_CELL = 500;

const HEADS: Record<PrintColumn, RegExp> = {
  machine: /\b(machine|printer|device|name)\b/,
  ended: /\b(end\w*|finish\w*|complet\w*|date|time|timestamp|when)\b/,
  held: /\b(held|result|status|success|outcome|ok|state)\b/,
  material: /\b(material|filament|resin|type)\b/,
  grams: /\b(grams?|g|kg|weight|mass|used)\b/,
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
export function guessColumns(heads: readonly string[], sample: readonly (readonly string[])[]): GuessedMatch {
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
  const headOf = (column: PrintColumn) => (columns[column] === undefined ? '' : plain[columns[column]]!);
  const span = headOf('duration');
  const durationUnit = /\bmin/.test(span) ? 'min' : /\b(h|hours?|hrs?)\b/.test(span) ? 'h' : 's';
  const weightUnit = /\b(kg|kilos?|kilograms?)\b/.test(headOf('grams')) ? 'kg' : 'g';
  return { columns, dayFirst: dayLeads(ended), durationUnit, weightUnit };
}

/** Whether the day leads in dates like 3/4/2026: 25/11/2026 can only have it first, 11/25/2026 only its month; null: open. */
export function dayLeads(dates: readonly string[]): boolean | null {
  const parted = dates.flatMap((text) => {
    const [, first, second] = /^\s{0,8}(\d{1,2})[/-](\d{1,2})[/-]\d{4}/.exec(text) ?? [];
    return first === undefined ? [] : [[Number(first), Number(second)] as const];
  });
  if (parted.some(([first]) => first > 12)) return true;
  if (parted.some(([, second]) => second > 12)) return false;
  return parted.some(([first, second]) => first !== second) ? null : true;
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
  const grams = amount(cell('grams'), match.weightUnit);
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

/** A weight in grams, with a decimal comma, and a unit that counts before the list's; null for an empty cell, undefined for what is none. */
function amount(text: string, unit: ColumnMatch['weightUnit'] = 'g'): number | null | undefined {
  if (text === '') return null;
  const [, figure = '', named] = /^(\d{1,9}(?:[.,]\d{1,20})?)\s{0,8}(g|grams?|kg)?$/i.exec(text) ?? [];
  const value = figure === '' ? NaN : Number(figure.replace(',', '.'));
  const grams = /^kg$/i.test(named ?? unit) ? 1000 * value : value;
  return grams >= 0 && grams <= 1e6 ? grams : undefined;
}

const short = (text: string) => (text.length > 24 ? `${text.slice(0, 24)}…` : text);
