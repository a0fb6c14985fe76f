import type { Knex } from 'knex';

export { down } from './forwardOnly';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('book', (t) => {
    t.increments('seq');
    t.text('id').notNullable().unique();
    t.bigInteger('at').notNullable();
    t.text('kind').notNullable();
    t.text('machine_id').references('machines.id');
    t.text('check_id').references('level_checks.id');
    t.text('text').notNullable();
    t.text('data').notNullable();
    t.text('corrects').references('book.id');
    t.index(['machine_id', 'seq']);
    t.index(['kind', 'seq']);
    t.index(['at']);
  });
  // Append-only, whoever holds the file: changing or taking out a line is refused by the database itself.
  for (const action of ['UPDATE', 'DELETE']) {
    await db.raw(
      `CREATE TRIGGER book_no_${action.toLowerCase()} BEFORE ${action} ON book ` +
        `BEGIN SELECT RAISE(ABORT, 'The book is append-only: write a correction.'); END`,
    );
  }
  await db.raw(
    `CREATE VIRTUAL TABLE book_text USING fts5(text, content='book', content_rowid='seq', tokenize='unicode61 remove_diacritics 2', prefix='2 3')`,
  );
  await db.raw(
    `CREATE TRIGGER book_indexed AFTER INSERT ON book BEGIN INSERT INTO book_text(rowid, text) VALUES (new.seq, new.text); END`,
  );
}
