import type { BookEvent } from '@even-bed/contract';
import { bookSentence, type Reader } from '@even-bed/words';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { entryHash, FIRST_HASH, type HashedEntry } from '../db/entryHash';
import { actorOf, writtenAtOf } from './acting';
import { hear } from './bus';
import { tellWritten } from './changes';

export type NewEntry = BookEvent & {
  at: number;
  machineId?: string | null | undefined;
  checkId?: string | undefined;
  surfaceId?: string | null | undefined;
  corrects?: string | undefined;
};

/** Namespace of the ids of book entries (a fixed, random UUID). */
const NAMESPACE = '6a1c2f0e-7b7d-4f43-9a55-0d1f5f0c9b1e';

/** How the words are written by which a line is found; it is read in the shop's own units. */
const FOUND_BY: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };

/**
 * Writes down what happened: one line of the book, in the caller's transaction, in the name of whoever acts through it, and
 * lets the rooms hear of it that keep something by it. The line's id follows from its place and content, which hold
 * client-made ids: the same history always gives the same book. It carries the hash of the line before. Its sentence is made
 * when it is read; the words it is found by are kept beside it.
 */
export async function writeEntry(db: Knex, entry: NewEntry): Promise<void> {
  const { at, kind, machineId, checkId, surfaceId, data: payload, corrects } = entry;
  const last = await db<HashedEntry & { hash: string }>('book').select('seq', 'hash').orderBy('seq', 'desc').first();
  const seq = (last?.seq ?? 0) + 1;
  const before = last?.hash ?? FIRST_HASH;
  const data = JSON.stringify(payload);
  const row: HashedEntry = {
    seq,
    id: uuidOfName([seq, at, kind, machineId, checkId, data].join('|'), NAMESPACE),
    at,
    kind,
    machine_id: machineId ?? null,
    check_id: checkId ?? null,
    surface_id: surfaceId ?? null,
    person_id: actorOf(db),
    text: '',
    data,
    corrects: corrects ?? null,
    written_at: writtenAtOf(db),
  };
  const names = {
    machine: await nameOf(db, 'machines', 'name', machineId),
    surface: await nameOf(db, 'surfaces', 'tag', surfaceId),
  };
  const words = bookSentence(entry, names, FOUND_BY);
  await db('book').insert({ ...row, words, before_hash: before, hash: entryHash(before, row) });
  await hear(db, entry);
  tellWritten(db);
}

async function nameOf(
  db: Knex,
  table: 'machines' | 'surfaces',
  column: string,
  id: string | null | undefined,
): Promise<string | null> {
  if (id === null || id === undefined) return null;
  const row = (await db(table).where({ id }).first(`${column} as name`)) as { name: string } | undefined;
  return row?.name ?? null;
}
