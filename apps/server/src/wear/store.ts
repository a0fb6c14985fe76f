import type { Page, PageAsk, Print, PrintFacts, PrintFilter, PrintWords } from '@even-bed/contract';
import { type Side, type Slot } from '@even-bed/core';
import type { Knex } from 'knex';
import { pageFrom, placeOf } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { latest, matchPrints } from './searchPrints';
import { actorOf } from '../kernel/acting';
import { atField, idTaken, notFound, Problem } from '../kernel/problem';

export interface PrintRow {
  id: string;
  machine_id: string;
  surface_id: string | null;
  side: Side | null;
  material: string;
  ended_at: number;
  duration: number | null;
  grams: number | null;
  held: number | boolean;
  failure: Print['failure'];
  release: Print['release'];
  places: string;
  note: string;
  source: Print['source'];
  person_id: string | null;
  created_at: number;
  withdrawn_at: number | null;
}

export type NewPrint = PrintFacts & { id: string };

interface MountRow {
  machine_id: string;
  surface_id: string;
  tag: string;
  slot: Slot;
  side_up: Side;
  from_at: number;
  to_at: number | null;
}

/** What lay in machines at any time: what was printed on with the side that was up, and the film in the vat. */
async function laidIn(db: Knex, machineIds: readonly string[]) {
  const rows = (await db('mounts as t')
    .join('surfaces as s', 's.id', 't.surface_id')
    .select('t.*', 's.tag')
    .whereIn('t.machine_id', machineIds)
    .whereNot('t.slot', 'base')
    .orderBy(['t.from_at', 't.seq'])) as MountRow[];
  const last = (machineId: string, slot: Slot, at: number) =>
    rows.findLast(
      (row) =>
        row.machine_id === machineId &&
        row.slot === slot &&
        row.from_at <= at &&
        (row.to_at === null || row.to_at > at),
    );
  return (machineId: string, at: number) => {
    const top = last(machineId, 'top', at) ?? last(machineId, 'platform', at);
    return { top: top ?? null, film: last(machineId, 'film', at) ?? null };
  };
}

/** Rows in one insert: the query builder writes them as a compound SELECT, of which SQLite takes 500 terms. */
export const ROWS_AT_ONCE = 400;

/**
 * Writes prints down, each once by its id, with the surface that lay there when it ended, and counts them on it.
 * @returns those that were new
 */
/** Clocks and zones differ by up to a day. */
const DAY_MS = 86_400_000;

async function insertPrints(
  db: Knex,
  prints: readonly NewPrint[],
  { source, now }: { source: Print['source']; now: number },
): Promise<NewRow[]> {
  const late = prints.findIndex(({ endedAt }) => endedAt > now + DAY_MS);
  if (late >= 0)
    throw atField(prints.length === 1 ? 'endedAt' : `prints.${late}.endedAt`, 'This time lies in the future.');
  const lay = await laidIn(db, [...new Set(prints.map(({ machineId }) => machineId))]);
  const rows = prints.map(({ id, machineId, endedAt, places = [], ...print }): PrintRow => {
    const { top } = lay(machineId, endedAt);
    return {
      ...print,
      places: JSON.stringify(places),
      id,
      machine_id: machineId,
      surface_id: top?.surface_id ?? null,
      side: top?.side_up ?? null,
      ended_at: endedAt,
      source,
      person_id: actorOf(db),
      created_at: now,
      withdrawn_at: null,
    };
  });
  const added = new Set<string>();
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
    const insert = db('prints')
      .insert(rows.slice(i, i + ROWS_AT_ONCE))
      .onConflict('id')
      .ignore()
      .returning('id');
    for (const { id } of (await insert) as { id: string }[]) added.add(id);
  }
  const counts = new Map<string, Count>();
  const fresh = rows
    .filter(({ id }) => added.has(id))
    .map((row): NewRow => {
      const { top, film } = lay(row.machine_id, row.ended_at);
      const print = { grams: row.grams, held: Boolean(row.held) };
      if (top) count(counts, top.surface_id, top.side_up, print);
      if (film) count(counts, film.surface_id, film.side_up, print);
      return { ...row, tag: top?.tag ?? null };
    });
  await addCounts(db, counts, 1);
  return fresh;
}

/** A print that was new, with the tag of the surface that lay there. */
type NewRow = PrintRow & { tag: string | null };

interface Count {
  A: number;
  B: number;
  gramsA: number;
  gramsB: number;
  failures: number;
}

function count(
  counts: Map<string, Count>,
  surfaceId: string,
  side: Side,
  { grams, held }: Pick<PrintFacts, 'grams' | 'held'>,
): void {
  const sum = counts.get(surfaceId) ?? { A: 0, B: 0, gramsA: 0, gramsB: 0, failures: 0 };
  sum[side]++;
  sum[side === 'A' ? 'gramsA' : 'gramsB'] += grams ?? 0;
  if (!held) sum.failures++;
  counts.set(surfaceId, sum);
}

async function addCounts(db: Knex, counts: Map<string, Count>, sign: 1 | -1): Promise<void> {
  for (const [id, { A, B, gramsA, gramsB, failures }] of counts) {
    await db('surfaces')
      .where({ id })
      .update({
        prints_a: db.raw('prints_a + ?', [sign * A]),
        prints_b: db.raw('prints_b + ?', [sign * B]),
        grams_a: db.raw('grams_a + ?', [sign * gramsA]),
        grams_b: db.raw('grams_b + ?', [sign * gramsB]),
        failures: db.raw('failures + ?', [sign * failures]),
      });
  }
}

/** One print, by a person's two taps or by a machine itself. The same again changes nothing. */
export async function logPrint(
  db: Knex,
  print: NewPrint,
  { source, now }: { source: 'tap' | 'machine'; now: number },
): Promise<Print> {
  const machine = (await db('machines').where({ id: print.machineId }).first()) as { name: string } | undefined;
  if (!machine) throw atField('machineId', 'This machine is not here.');
  const [row] = await insertPrints(db, [print], { source, now });
  if (row) {
    await writeEntry(db, {
      at: print.endedAt,
      kind: 'print-logged',
      machineId: print.machineId,
      surfaceId: row.surface_id ?? undefined,
      data: {
        printId: print.id,
        held: print.held,
        failure: print.failure,
        release: print.release,
        material: print.material,
      },
    });
  }
  const known = await findPrint(db, print.id);
  if (known!.machineId !== print.machineId) throw idTaken('print');
  return known!;
}

/** Several prints with one line in the book. @returns how many were new */
export async function addPrints(
  db: Knex,
  prints: readonly NewPrint[],
  { source, list, now }: { source: 'grid' | 'list'; list: string | null; now: number },
): Promise<number> {
  const ids = [...new Set(prints.map(({ machineId }) => machineId))];
  const machines = (await db('machines').whereIn('id', ids)) as { id: string; name: string }[];
  const strange = prints.findIndex(({ machineId }) => !machines.some(({ id }) => id === machineId));
  if (strange >= 0) throw atField(`prints.${strange}.machineId`, 'This machine is not here.');
  const rows = await insertPrints(db, prints, { source, now });
  if (rows.length === 0) return 0;
  const failed = rows.filter(({ held }) => !held).length;
  const names = machines.map(({ name }) => name).sort();
  await writeEntry(db, {
    at: now,
    kind: 'prints-added',
    machineId: machines.length === 1 ? machines[0]!.id : null,
    data: {
      count: rows.length,
      failed,
      first: rows[0]!.id,
      last: rows[rows.length - 1]!.id,
      list,
      machines: names,
    },
  });
  return rows.length;
}

const saidOf = ({ failure, release, places, note }: Print) => ({ failure, release, places, note });

/**
 * Says more of a print. What isn't named stays as it was; the book tells both.
 * @throws Problem 404, 409 it is withdrawn, at the field: a print that held has not failed
 */
export async function describePrint(db: Knex, id: string, { at, ...words }: PrintWords): Promise<Print> {
  const print = await findPrint(db, id);
  if (!print) throw notFound('This print');
  if (print.withdrawnAt !== null)
    throw new Problem(409, 'withdrawn', 'This print was withdrawn: nothing can be added to it.');
  if (print.held && words.failure) throw atField('failure', 'This print held. Withdraw it if it failed after all.');
  const [was, said] = [saidOf(print), { ...saidOf(print), ...words }];
  if (JSON.stringify(was) === JSON.stringify(said)) return print;
  await db('prints')
    .where({ id })
    .update({ ...said, places: JSON.stringify(said.places) });
  await writeEntry(db, {
    at,
    kind: 'print-described',
    machineId: print.machineId,
    surfaceId: print.surfaceId ?? undefined,
    data: { printId: id, held: print.held, was, now: said },
  });
  return (await findPrint(db, id))!;
}

/** Takes a print back that was written down by mistake; the line in the book stays and another one says so. */
export async function withdrawPrint(db: Knex, id: string, now: number): Promise<Print> {
  const print = await findPrint(db, id);
  if (!print) throw notFound('This print');
  if (print.withdrawnAt !== null) return print;
  await db('prints').where({ id }).update({ withdrawn_at: now });
  const lay = (await laidIn(db, [print.machineId]))(print.machineId, print.endedAt);
  const counts = new Map<string, Count>();
  if (print.surfaceId) count(counts, print.surfaceId, print.side!, print);
  if (lay.film) count(counts, lay.film.surface_id, lay.film.side_up, print);
  await addCounts(db, counts, -1);
  await writeEntry(db, {
    at: now,
    kind: 'print-withdrawn',
    machineId: print.machineId,
    surfaceId: print.surfaceId ?? undefined,
    data: { printId: id, held: print.held, failure: print.failure },
  });
  return (await findPrint(db, id))!;
}

// Left joins, though there always is a machine: the planner then begins with the prints, in their order.
const listed = (db: Knex) =>
  db('prints as p')
    .leftJoin('machines as m', 'm.id', 'p.machine_id')
    .leftJoin('surfaces as s', 's.id', 'p.surface_id')
    .leftJoin('people as w', 'w.id', 'p.person_id')
    .select('p.*', 'm.name as machine_name', 's.tag as surface_tag', 'w.name as person_name');

type ListedRow = PrintRow & { machine_name: string; surface_tag: string | null; person_name: string | null };

export async function findPrint(db: Knex, id: string): Promise<Print | null> {
  const row = (await listed(db).where('p.id', id).first()) as ListedRow | undefined;
  return row ? printOf(row) : null;
}

/** So many prints say what a machine is printing these days. */
const LATELY = 10;

/** What a machine printed lately, each material once, the latest first. */
export async function materialsLately(db: Knex, machineId: string): Promise<string[]> {
  const rows = (await db('prints')
    .where('machine_id', machineId)
    .whereNull('withdrawn_at')
    .orderBy('ended_at', 'desc')
    .limit(LATELY)
    .select('material')) as { material: string }[];
  return [...new Set(rows.map(({ material }) => material))];
}

/** Prints, the latest first, a page at a time. Withdrawn ones are left out. */
export async function listPrints(db: Knex, filter: PrintFilter & PageAsk): Promise<Page<Print>> {
  const query = latest(listed(db), filter);
  if (filter.search !== '') await matchPrints(db, query, filter);
  const rows = (await query) as ListedRow[];
  return pageFrom(rows.map(printOf), filter.limit, ({ endedAt, id }) => placeOf(endedAt, id));
}

const printOf = (row: ListedRow): Print => ({
  id: row.id,
  machineId: row.machine_id,
  machineName: row.machine_name,
  surfaceId: row.surface_id,
  surfaceTag: row.surface_tag,
  side: row.side,
  material: row.material,
  endedAt: row.ended_at,
  duration: row.duration,
  grams: row.grams,
  held: Boolean(row.held),
  failure: row.failure,
  release: row.release,
  places: JSON.parse(row.places) as Print['places'],
  note: row.note,
  source: row.source,
  personName: row.person_name,
  withdrawnAt: row.withdrawn_at,
});
