import type { BookCheck } from '@even-bed/contract';
import { verifyBook } from '../book/store';
import { connect } from '../db/connect';
import { faultOfFile } from '../db/databaseFile';

/** Opens a copy and checks it: the file itself, what its rows lead to, and the chain of the book. */
export async function checkDatabase(
  file: string,
): Promise<{ sound: boolean; message: string; book: BookCheck | null }> {
  const fault = faultOfFile(file);
  if (fault !== null) return { sound: false, message: `The database is damaged: ${fault}.`, book: null };
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
