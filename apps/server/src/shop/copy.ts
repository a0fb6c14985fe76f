import fs from 'node:fs';
import path from 'node:path';
import type { BookCheck } from '@even-bed/contract';
import Database from 'better-sqlite3';
import { verifyBook } from '../book/store';
import { connect } from '../db/connect';

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

/** Opens a copy and checks it: SQLite's own check of the file, its foreign keys, and the chain of the book. */
export async function checkDatabase(
  file: string,
): Promise<{ sound: boolean; message: string; book: BookCheck | null }> {
  let whole: string;
  try {
    const copy = new Database(file, { fileMustExist: true, readonly: true });
    try {
      whole = copy.pragma('integrity_check', { simple: true }) as string;
      if (whole === 'ok' && (copy.pragma('foreign_key_check') as unknown[]).length > 0)
        whole = 'rows that lead nowhere';
    } finally {
      copy.close();
    }
  } catch (error) {
    whole = error instanceof Error ? error.message : String(error);
  }
  if (whole !== 'ok') return { sound: false, message: `The database is damaged: ${whole}.`, book: null };
  const db = connect(file);
  try {
    const book = await verifyBook(db);
    const message = book.sound
      ? `${book.entries} lines in the book, each follows from the one before.`
      : `The book is broken at line ${book.fault!.seq}: ${book.fault!.reason}.`;
    return { sound: book.sound, message, book };
  } finally {
    await db.destroy();
  }
}
