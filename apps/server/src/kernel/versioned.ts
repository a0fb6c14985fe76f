import type { Knex } from 'knex';

interface Versioned {
  id: string;
  version: number;
}

/**
 * Writes a row as the version after the one that its writer saw, in one statement: a new row as version 1, a known one
 * only while it still stands at the version before. Who else writes at the same time can't be overwritten, whatever was
 * read before.
 * @returns false when somebody was faster, or the id is taken: nothing was written
 */
export async function writeVersion(db: Knex, table: string, row: Versioned): Promise<boolean> {
  if (row.version === 1) {
    const added = (await db(table).insert(row).onConflict('id').ignore().returning('id')) as unknown[];
    return added.length === 1;
  }
  const { id, ...rest } = row;
  const changed: number = await db(table)
    .where({ id, version: row.version - 1 })
    .update(rest);
  return changed === 1;
}
