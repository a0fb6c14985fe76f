import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { breatheNowAndThen } from './breathe';
import { migrations } from './migrations';
import { holdsWords } from './searchBook';

/** What better-sqlite3 gives; only what is used here. */
interface RawConnection {
  pragma(text: string): unknown;
  prepare(text: string): unknown;
  function(name: string, options: object, work: (...values: never[]) => unknown): unknown;
}

/** The query builder's own way to SQLite: each query passes here. */
const Dialect = createRequire(__filename)('knex/lib/dialects/better-sqlite3') as new (config: Knex.Config) => {
  _query(connection: RawConnection, query: object): Promise<object>;
};

/**
 * SQLite answers at once, so that queries that wait for the one connection would run one after the other until none is
 * left, and nobody else would be heard: between them others get their turn.
 */
class Polite extends Dialect {
  override async _query(connection: RawConnection, query: object): Promise<object> {
    await breatheNowAndThen();
    return super._query(connection, query);
  }
}

/** Statements kept ready, the least used thrown out first. */
const KEPT_STATEMENTS = 400;

/**
 * Keeps prepared statements of a connection for the next time: the query builder writes the same text for the same
 * query, and preparing it costs as much as running it. SQLite itself prepares a statement anew when the schema changes.
 */
function keepStatements(connection: RawConnection): void {
  const kept = new Map<string, unknown>();
  const prepare = connection.prepare.bind(connection);
  connection.prepare = (text) => {
    const statement = kept.get(text) ?? prepare(text);
    kept.delete(text);
    kept.set(text, statement);
    if (kept.size > KEPT_STATEMENTS) kept.delete(kept.keys().next().value!);
    return statement;
  };
}

/**
 * Opens a shop's database, making the file and its folder when they are not there. One connection: SQLite writes
 * one at a time anyway, and a pool of one makes the order plain.
 * @param file path, or ":memory:"
 */
export function connect(file: string): Knex {
  if (file !== ':memory:') fs.mkdirSync(path.dirname(file), { recursive: true });
  return knex({
    client: Polite as unknown as typeof Knex.Client,
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
        connection.function('holds_words', { deterministic: true }, (text: string, words: string) =>
          Number(holdsWords(text, words)),
        );
        keepStatements(connection);
        done(null, connection);
      },
    },
  });
}

/** What a database has been brought to, beside what this program knows. `known`: it is a shop's database already. */
export async function pendingMigrations(db: Knex): Promise<{ known: boolean; missing: string[]; newer: string[] }> {
  if (!(await db.schema.hasTable('knex_migrations')))
    return { known: false, missing: Object.keys(migrations), newer: [] };
  const done = ((await db('knex_migrations').select('name')) as { name: string }[]).map(({ name }) => name);
  return {
    known: done.length > 0,
    missing: Object.keys(migrations).filter((name) => !done.includes(name)),
    newer: done.filter((name) => migrations[name] === undefined),
  };
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
