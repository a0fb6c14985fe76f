import fs from 'node:fs';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { migrations } from './migrations';

/** What better-sqlite3 gives; only what is used here. */
interface RawConnection {
  pragma(text: string): unknown;
}

/**
 * Opens a shop's database, making the file and its folder when they are not there. One connection: SQLite writes
 * one at a time anyway, and a pool of one makes the order plain.
 * @param file path, or ":memory:"
 */
export function connect(file: string): Knex {
  if (file !== ':memory:') fs.mkdirSync(path.dirname(file), { recursive: true });
  return knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: RawConnection, done: (error: Error | null, connection: RawConnection) => void) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('foreign_keys = ON');
        // FULL: what was acknowledged survives a power cut, not only a killed process.
        connection.pragma('synchronous = FULL');
        connection.pragma('busy_timeout = 5000');
        done(null, connection);
      },
    },
  });
}

/** Brings a database to the newest schema. Forward only. */
export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(migrations[name]!),
    },
  });
}
