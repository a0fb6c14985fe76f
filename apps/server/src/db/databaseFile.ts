import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import type { Knex } from 'knex';

// What is done with a database as a file, as only SQLite does it.

/**
 * Copies a database that may be in use into one new file: what was committed before this call is in it. One reading
 * transaction (VACUUM INTO), so that writers neither wait for it nor make it begin anew.
 */
export function copyDatabase(from: string, to: string): void {
  fs.mkdirSync(path.dirname(to), { recursive: true });
  const source = new Database(from, { fileMustExist: true });
  try {
    source.pragma('busy_timeout = 10000');
    source.prepare('VACUUM INTO ?').run(to);
  } finally {
    source.close();
  }
}

/** What is wrong with a database's file by SQLite's own check, or with what its rows lead to; null: nothing. */
export function faultOfFile(file: string): string | null {
  try {
    const copy = new Database(file, { fileMustExist: true, readonly: true });
    try {
      const whole = copy.pragma('integrity_check', { simple: true }) as string;
      if (whole !== 'ok') return whole;
      return (copy.pragma('foreign_key_check') as unknown[]).length > 0 ? 'rows that lead nowhere' : null;
    } finally {
      copy.close();
    }
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** Brings everything into the one file, so that it can be moved by itself. */
export const emptyWriteAhead = (db: Knex): Promise<unknown> =>
  Promise.resolve(db.raw('PRAGMA wal_checkpoint(TRUNCATE)'));
