import type { BadLine, ListPreview, ListTake, ListTaken, PrintList } from '@even-bed/contract';
import {
  guessColumns,
  NEEDED_COLUMNS,
  readPrintLine,
  type ColumnMatch,
  type PrintColumn,
  type PrintLine,
} from '@even-bed/core';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { actorOf } from '../kernel/acting';
import { breathe } from '../db/breathe';
import { LIMITS } from '../kernel/limits';
import { atField, idTaken, notFound } from '../kernel/problem';
import { shopSettings } from '../manner/store';
import type { CsvFile } from './readCsv';
import { addPrints, ROWS_AT_ONCE, type NewPrint } from './store';

const LINES_AT_ONCE = 500;
/** Lines that one request takes: short enough that others get their turn in between. */
const PART = 400;
const SAMPLE = 8;
const DAY_OR_MONTH = 'Say whether 3/4/2026 is the 3rd of April or the 4th of March: the list can be read either way.';
/** Lines by which columns and dates are guessed: a month's days tell which part of a date is the day. */
const GUESSED = 1_000;
const SHOWN_BAD = 200;
/** Namespace of the ids of prints from lists (a fixed, random UUID). */
const NAMESPACE = '3f6a0a52-5c0f-4f0e-8f3d-4c1f7e5b7a10';

interface ListRow {
  id: string;
  name: string;
  columns: string;
  matched: string | null;
  lines: number;
  taken: number;
  known: number;
  at: number;
  person_id: string | null;
}

interface LineRow {
  list_id: string;
  line: number;
  cells: string;
  repeat: number;
}

/** Keeps a list that came in, with a guess of what its columns hold. The same again changes nothing. */
export async function keepList(
  db: Knex,
  id: string,
  { name, file, at }: { name: string; file: CsvFile; at: number },
): Promise<PrintList> {
  const { heads } = file;
  const lines = file.lines.split('\n');
  const before = await db<ListRow>('print_lists').where({ id }).first();
  if (before) {
    if (before.lines !== lines.length || before.columns !== JSON.stringify(heads)) throw idTaken('list');
    return readList(db, id);
  }
  const times = new Map<string, number>();
  const rows: LineRow[] = [];
  for (const [i, text] of lines.entries()) {
    if (i % LIMITS.linesAtOnce === 0) await breathe();
    const repeat = (times.get(text) ?? 0) + 1;
    times.set(text, repeat);
    // As a table program numbers it: the heads are line 1.
    rows.push({ list_id: id, line: i + 2, cells: text, repeat });
  }
  await db('print_lists').insert({
    id,
    name: name || 'a list',
    columns: JSON.stringify(heads),
    matched: null,
    lines: rows.length,
    at,
    person_id: actorOf(db),
  });
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
    await db('print_list_lines').insert(rows.slice(i, i + ROWS_AT_ONCE));
    await breathe();
  }
  return readList(db, id);
}

async function needList(db: Knex, id: string): Promise<ListRow> {
  const row = await db<ListRow>('print_lists').where({ id }).first();
  if (!row) throw notFound('This list');
  return row;
}

export async function readList(db: Knex, id: string): Promise<PrintList> {
  const row = await needList(db, id);
  const heads = JSON.parse(row.columns) as string[];
  const first = (
    await db<LineRow>('print_list_lines')
      .where({ list_id: id })
      .orderBy('line')
      .limit(row.matched === null ? GUESSED : SAMPLE)
  ).map(({ cells }) => JSON.parse(cells) as string[]);
  const { waiting } = (await db('print_list_lines').where({ list_id: id }).count('* as waiting').first()) as {
    waiting: number;
  };
  return {
    id,
    name: row.name,
    heads,
    sample: first.slice(0, SAMPLE),
    lines: row.lines,
    waiting,
    taken: row.taken,
    known: row.known,
    match: row.matched === null ? guessColumns(heads, first) : (JSON.parse(row.matched) as ColumnMatch),
    at: row.at,
  };
}

/** Lists that still have lines to put right, the latest first. */
export async function openLists(db: Knex): Promise<PrintList[]> {
  const rows = (await db('print_lists as l')
    .whereExists(db('print_list_lines as p').whereRaw('p.list_id = l.id').select(db.raw('1')))
    .orderBy('l.at', 'desc')
    .limit(20)
    .select('l.id')) as { id: string }[];
  return Promise.all(rows.map(({ id }) => readList(db, id)));
}

function refuseUnmatched(match: ColumnMatch): void {
  const missing = NEEDED_COLUMNS.find(
    (column) => match.columns[column] === undefined && !(column === 'held' && match.columns.failure !== undefined),
  );
  if (missing) throw atField(`match.columns.${missing}`, NEEDED_WORDS[missing as keyof typeof NEEDED_WORDS]);
}

const NEEDED_WORDS = {
  machine: 'Say which column names the machine.',
  ended: 'Say which column holds when the print ended.',
  held: 'Say which column holds whether it held.',
};

/** Reads lines with a pause now and then in which others get their turn. */
async function readAll<T>(rows: readonly LineRow[], read: (row: LineRow) => T): Promise<T[]> {
  const all: T[] = [];
  for (const [i, row] of rows.entries()) {
    if (i % LIMITS.linesAtOnce === 0) await breathe();
    all.push(read(row));
  }
  return all;
}

interface Reader {
  read: (row: LineRow) => { row: LineRow; line: PrintLine; print: NewPrint | null };
}

/** Reads lines as prints of this shop's machines, by name or tag. */
async function readerFor(db: Knex, match: ColumnMatch, now: number): Promise<Reader> {
  refuseUnmatched(match);
  const { zone } = await shopSettings(db);
  const machines = new Map<string, string>();
  for (const { id, name, tag } of (await db('machines').select('id', 'name', 'tag')) as Record<
    'id' | 'name' | 'tag',
    string
  >[]) {
    machines.set(name.toLowerCase(), id);
    machines.set(tag.toLowerCase(), id);
  }
  return {
    read(row) {
      const cells = JSON.parse(row.cells) as string[];
      const line = readPrintLine(cells, { match, zone, now });
      if (!line.ok) return { row, line, print: null };
      const machineId = machines.get(line.print.machine.toLowerCase());
      if (machineId === undefined) {
        const faults = { machine: `“${line.print.machine.slice(0, 24)}” is no machine of this shop.` };
        return { row, line: { ok: false, faults }, print: null };
      }
      const { machine, ...facts } = line.print;
      // The id follows from the line as it stands in the file: the same file sent twice holds the same prints.
      const id = uuidOfName(`${row.cells} ${row.repeat}`, NAMESPACE);
      return { row, line, print: { ...facts, id, machineId } };
    },
  };
}

/** Which of some prints are in the shop: by their id, or written down in another way for the same machine and second. */
async function knownOf(db: Knex, prints: readonly NewPrint[]): Promise<Set<string>> {
  const known = new Set<string>();
  for (let i = 0; i < prints.length; i += LINES_AT_ONCE) {
    const part = prints.slice(i, i + LINES_AT_ONCE);
    const byId = (await db('prints')
      .whereIn(
        'id',
        part.map(({ id }) => id),
      )
      .select('id')) as { id: string }[];
    for (const { id } of byId) known.add(id);
    const byTime = (await db('prints')
      .whereNot('source', 'list')
      .whereNull('withdrawn_at')
      .whereIn('ended_at', [...new Set(part.map(({ endedAt }) => endedAt))])
      .select('machine_id', 'ended_at')) as { machine_id: string; ended_at: number }[];
    const times = new Set(byTime.map(({ machine_id, ended_at }) => `${machine_id} ${ended_at}`));
    for (const { id, machineId, endedAt } of part) if (times.has(`${machineId} ${endedAt}`)) known.add(id);
  }
  return known;
}

/** What would become of the lines that wait. Writes nothing. */
export async function previewList(
  db: Knex,
  id: string,
  { match, now }: { match: ColumnMatch; now: number },
): Promise<ListPreview> {
  await needList(db, id);
  const { read } = await readerFor(db, match, now);
  // What was said of its columns is kept: its bad lines are told by it too.
  await db<ListRow>('print_lists')
    .where({ id })
    .update({ matched: JSON.stringify(match) });
  const preview: ListPreview = { good: 0, known: 0, bad: [], badCount: 0, first: [], strangers: [] };
  const strangers = new Map<string, number>();
  const names = new Map(
    ((await db('machines').select('id', 'name')) as { id: string; name: string }[]).map((row) => [row.id, row.name]),
  );
  for (let from = 0; ;) {
    const rows = await linesAfter(db, id, from, LINES_AT_ONCE);
    const lines = await readAll(rows, read);
    const known = await knownOf(
      db,
      lines.flatMap(({ print }) => print ?? []),
    );
    for (const { row, line, print } of lines) {
      if (print && known.has(print.id)) preview.known++;
      else if (print) {
        preview.good++;
        if (preview.first.length < SAMPLE) {
          const { endedAt, held, material } = print;
          preview.first.push({ line: row.line, machineName: names.get(print.machineId)!, endedAt, held, material });
        }
      } else {
        preview.badCount++;
        const bad = badOf(row, line);
        if (preview.bad.length < SHOWN_BAD) preview.bad.push(bad);
        if (bad.faults.machine?.includes('no machine')) {
          const name = bad.cells[match.columns.machine!] ?? '';
          strangers.set(name, (strangers.get(name) ?? 0) + 1);
        }
      }
    }
    if (rows.length < LINES_AT_ONCE) break;
    from = rows[rows.length - 1]!.line;
  }
  preview.strangers = [...strangers]
    .map(([name, lines]) => ({ name, lines }))
    .sort((p, q) => q.lines - p.lines)
    .slice(0, 20);
  return preview;
}

const badOf = (row: LineRow, line: PrintLine): BadLine => ({
  line: row.line,
  cells: JSON.parse(row.cells) as string[],
  faults: line.ok ? {} : line.faults,
});

const linesAfter = (db: Knex, id: string, from: number, limit: number) =>
  db<LineRow>('print_list_lines').where({ list_id: id }).where('line', '>', from).orderBy('line').limit(limit);

/**
 * Takes the next part of a list: good lines become prints, once each; bad ones stay to be put right. Called again with
 * what it answers until that is null.
 */
export async function takePart(db: Knex, id: string, { match, from }: ListTake, now: number): Promise<ListTaken> {
  const list = await needList(db, id);
  const { read } = await readerFor(db, match, now);
  const rows = await linesAfter(db, id, from, PART);
  const lines = await readAll(rows, read);
  const prints = lines.flatMap(({ print }) => print ?? []);
  const known = await knownOf(db, prints);
  await breathe();
  const fresh = prints.filter((print) => !known.has(print.id));
  if (fresh.length > 0) await addPrints(db, fresh, { source: 'list', list: list.name, now });
  await breathe();
  const done = lines.filter(({ print }) => print !== null).map(({ row }) => row.line);
  if (done.length > 0) await db('print_list_lines').where({ list_id: id }).whereIn('line', done).delete();
  await db('print_lists')
    .where({ id })
    .update({
      matched: JSON.stringify(match),
      taken: list.taken + fresh.length,
      known: list.known + prints.length - fresh.length,
    });
  return {
    taken: fresh.length,
    known: prints.length - fresh.length,
    bad: rows.length - prints.length,
    next: rows.length < PART ? null : rows[rows.length - 1]!.line,
  };
}

/** Puts a bad line right. */
export async function fixLine(db: Knex, id: string, line: number, cells: readonly string[]): Promise<void> {
  const changed = await db('print_list_lines')
    .where({ list_id: id, line })
    .update({ cells: JSON.stringify(cells) });
  if (changed === 0) throw notFound('This line');
}

/** Lets go of what still waits of a list; prints that were taken stay. */
export async function dropList(db: Knex, id: string): Promise<void> {
  await needList(db, id);
  await db('print_list_lines').where({ list_id: id }).delete();
}

/** Bad lines as a table, with what is wrong behind them. */
export async function badLines(db: Knex, id: string, now: number): Promise<string[][]> {
  const list = await readList(db, id);
  const { dayFirst, ...match } = list.match;
  if (dayFirst === null) throw atField('match.dayFirst', DAY_OR_MONTH);
  const { read } = await readerFor(db, { ...match, dayFirst }, now);
  const rows = (await db<LineRow>('print_list_lines').where({ list_id: id }).orderBy('line')).map(read);
  return [
    [...list.heads, 'what is wrong'],
    ...rows.map(({ row, line }) => {
      const bad = badOf(row, line);
      const cells = list.heads.map((_, i) => bad.cells[i] ?? '');
      return [...cells, Object.values(bad.faults as Record<PrintColumn, string>).join(' ')];
    }),
  ];
}
