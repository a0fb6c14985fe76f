import type { Knex } from 'knex';
import { entryHash, FIRST_HASH, type HashedEntry } from '../entryHash';

export { down } from './forwardOnly';

/** Who wrote each line and of which surface, and the chain: each line carries the hash of the one before. */
export async function up(db: Knex): Promise<void> {
  await db.raw('ALTER TABLE book ADD COLUMN person_id TEXT REFERENCES people(id)');
  await db.raw('ALTER TABLE book ADD COLUMN surface_id TEXT REFERENCES surfaces(id)');
  await db.raw(`ALTER TABLE book ADD COLUMN before_hash TEXT NOT NULL DEFAULT ''`);
  await db.raw(`ALTER TABLE book ADD COLUMN hash TEXT NOT NULL DEFAULT ''`);
  await db.raw('CREATE INDEX book_surface_seq ON book (surface_id, seq)');
  await db.raw('CREATE INDEX book_person_seq ON book (person_id, seq)');
  await db.raw('CREATE INDEX book_corrects ON book (corrects) WHERE corrects IS NOT NULL');
  // Lines written before there was a chain are chained now; then the book is closed to changes again.
  await db.raw('DROP TRIGGER book_no_update');
  let before = FIRST_HASH;
  for (let last = 0; ;) {
    const rows = (await db('book').where('seq', '>', last).orderBy('seq').limit(2000)) as HashedEntry[];
    if (rows.length === 0) break;
    for (const row of rows) {
      const hash = entryHash(before, row);
      await db('book').where({ seq: row.seq }).update({ before_hash: before, hash });
      before = hash;
      last = row.seq;
    }
  }
  await db.raw(
    `CREATE TRIGGER book_no_update BEFORE UPDATE ON book ` +
      `BEGIN SELECT RAISE(ABORT, 'The book is append-only: write a correction.'); END`,
  );
}
