import type { BookEntry, BookKind, Page } from '@even-bed/contract';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { matchBookText } from '../db/searchBook';

interface Row {
  seq: number;
  id: string;
  at: number;
  kind: BookKind;
  machine_id: string | null;
  machine_name: string | null;
  check_id: string | null;
  text: string;
  data: string;
  corrects: string | null;
}

export interface NewEntry {
  at: number;
  kind: BookKind;
  machineId?: string | undefined;
  checkId?: string | undefined;
  text: string;
  data?: Record<string, unknown> | undefined;
  corrects?: string | undefined;
}

/** Namespace of the ids of book entries (a fixed, random UUID). */
const NAMESPACE = '6a1c2f0e-7b7d-4f43-9a55-0d1f5f0c9b1e';

/**
 * Writes one line into the book, in the caller's transaction. Its id follows from its place and content, which hold
 * client-made ids: the same history always gives the same book.
 */
export async function writeEntry(
  db: Knex,
  { at, kind, machineId, checkId, text, data, corrects }: NewEntry,
): Promise<void> {
  const { last } = (await db('book').max('seq as last').first()) as { last: number | null };
  const seq = (last ?? 0) + 1;
  await db('book').insert({
    seq,
    id: uuidOfName([seq, at, kind, machineId, checkId, text].join('|'), NAMESPACE),
    at,
    kind,
    machine_id: machineId ?? null,
    check_id: checkId ?? null,
    text,
    data: JSON.stringify(data ?? {}),
    corrects: corrects ?? null,
  });
}

export interface BookFilter {
  search: string;
  machineId?: string | undefined;
  kind?: BookKind | undefined;
  /** Only lines before this running number. */
  before?: number | undefined;
  from?: number | undefined;
  to?: number | undefined;
  limit: number;
}

/** A page of the book, newest line first. */
export async function listEntries(db: Knex, filter: BookFilter): Promise<Page<BookEntry>> {
  const query = db<Row>('book')
    .orderBy('book.seq', 'desc')
    .limit(filter.limit + 1);
  matchBookText(query, filter.search);
  if (filter.machineId !== undefined) void query.where('book.machine_id', filter.machineId);
  if (filter.kind !== undefined) void query.where('book.kind', filter.kind);
  if (filter.before !== undefined) void query.where('book.seq', '<', filter.before);
  if (filter.from !== undefined) void query.where('book.at', '>=', filter.from);
  if (filter.to !== undefined) void query.where('book.at', '<', filter.to);
  void query.leftJoin('machines', 'machines.id', 'book.machine_id').select('book.*', 'machines.name as machine_name');
  const rows = (await query) as Row[];
  const items = rows.slice(0, filter.limit).map(entryOf);
  const last = items[items.length - 1];
  return { items, next: rows.length > filter.limit && last ? String(last.seq) : null };
}

const entryOf = (row: Row): BookEntry => ({
  id: row.id,
  seq: row.seq,
  at: row.at,
  kind: row.kind,
  machineId: row.machine_id,
  machineName: row.machine_name,
  checkId: row.check_id,
  text: row.text,
  data: JSON.parse(row.data) as Record<string, unknown>,
  corrects: row.corrects,
});
