import type { Knex } from 'knex';

export { down } from './forwardOnly';

/**
 * A line keeps what happened, as kind and payload, and its sentence is made when it is read; the words that it is found by
 * stand beside it, outside its hash. Lines already written keep their text, and are found by it.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE book ADD COLUMN words TEXT NOT NULL DEFAULT ''`);
  await db.raw('DROP TRIGGER book_no_update');
  await db.raw('UPDATE book SET words = text');
  await db.raw(
    `CREATE TRIGGER book_no_update BEFORE UPDATE ON book ` +
      `BEGIN SELECT RAISE(ABORT, 'The book is append-only: write a correction.'); END`,
  );
  await db.raw('DROP TRIGGER book_indexed');
  await db.raw('DROP TABLE book_text');
  await db.raw(
    `CREATE VIRTUAL TABLE book_text USING fts5(words, content='book', content_rowid='seq', tokenize='unicode61 remove_diacritics 2', prefix='2 3')`,
  );
  await db.raw(
    `CREATE TRIGGER book_indexed AFTER INSERT ON book BEGIN INSERT INTO book_text(rowid, words) VALUES (new.seq, new.words); END`,
  );
  await db.raw(`INSERT INTO book_text(book_text) VALUES ('rebuild')`);
}
