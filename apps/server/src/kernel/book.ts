import type { BookKind } from '@even-bed/contract';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { entryHash, FIRST_HASH, type HashedEntry } from '../db/entryHash';
import { actorOf, writtenAtOf } from './acting';
import { tellWritten } from './changes';

export interface NewEntry {
  at: number;
  kind: BookKind;
  machineId?: string | null | undefined;
  checkId?: string | undefined;
  surfaceId?: string | undefined;
  text: string;
  data?: Record<string, unknown> | undefined;
  corrects?: string | undefined;
}

/** Namespace of the ids of book entries (a fixed, random UUID). */
const NAMESPACE = '6a1c2f0e-7b7d-4f43-9a55-0d1f5f0c9b1e';

/**
 * Writes one line into the book, in the caller's transaction, in the name of whoever acts through it. Its id follows
 * from its place and content, which hold client-made ids: the same history always gives the same book. It carries the
 * hash of the line before.
 */
export async function writeEntry(db: Knex, entry: NewEntry): Promise<void> {
  const { at, kind, machineId, checkId, surfaceId, text, data, corrects } = entry;
  const last = await db<HashedEntry & { hash: string }>('book').select('seq', 'hash').orderBy('seq', 'desc').first();
  const seq = (last?.seq ?? 0) + 1;
  const before = last?.hash ?? FIRST_HASH;
  const row: HashedEntry = {
    seq,
    id: uuidOfName([seq, at, kind, machineId, checkId, text].join('|'), NAMESPACE),
    at,
    kind,
    machine_id: machineId ?? null,
    check_id: checkId ?? null,
    surface_id: surfaceId ?? null,
    person_id: actorOf(db),
    text,
    data: JSON.stringify(data ?? {}),
    corrects: corrects ?? null,
    written_at: writtenAtOf(db),
  };
  await db('book').insert({ ...row, before_hash: before, hash: entryHash(before, row) });
  tellWritten(db);
}
