import type { Knex } from 'knex';
import { connect } from './connect';

const fileOf = (db: Knex) => (db.client as { config: { connection: { filename: string } } }).config.connection.filename;

/**
 * Runs work that only reads on the database as it stands now, however long it takes and whatever is written meanwhile:
 * on a connection of its own, in one transaction (SQLite's snapshot in WAL mode). A database in memory has no second
 * connection and is read as it is.
 */
export async function onSnapshot<T>(db: Knex, work: (frozen: Knex) => Promise<T>): Promise<T> {
  const file = fileOf(db);
  if (file === ':memory:') return work(db);
  const own = connect(file);
  try {
    return await own.transaction(async (trx) => {
      // The snapshot begins with the first read.
      await trx.raw('SELECT 1 FROM settings LIMIT 1');
      return work(trx);
    });
  } finally {
    await own.destroy();
  }
}

/** Names of a table's columns. */
export async function columnsOf(db: Knex, table: string): Promise<string[]> {
  const info = (await db.raw('SELECT name FROM pragma_table_info(?)', [table])) as { name: string }[];
  return info.map(({ name }) => name);
}

/** Foreign keys wait until the end of this transaction instead of being checked at each row. */
export const checkKeysLater = (trx: Knex.Transaction) => trx.raw('PRAGMA defer_foreign_keys = ON');

/** Tables with rows that lead nowhere. To be asked before a transaction with waiting keys ends. */
export async function brokenKeys(trx: Knex.Transaction): Promise<string[]> {
  const rows = (await trx.raw('SELECT DISTINCT "table" AS name FROM pragma_foreign_key_check')) as { name: string }[];
  return rows.map(({ name }) => name);
}
