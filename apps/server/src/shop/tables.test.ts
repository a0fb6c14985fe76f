import { connect, migrate } from '../db/connect';
import { LEFT_TABLES, TAKEN_TABLES } from './tables';

test('every table of a shop is taken along, or said to stay with why; what is sorted by is a column', async () => {
  const db = connect(':memory:');
  await migrate(db);
  try {
    const rows = (await db('sqlite_master').where({ type: 'table' }).pluck('name')) as string[];
    // What the search index and the database keep beside their own tables.
    const there = rows.filter((name) => !name.startsWith('sqlite_') && !/^book_text_/.test(name));
    const named = [...TAKEN_TABLES.map(({ name }) => name), ...Object.keys(LEFT_TABLES)];
    expect([...named].sort()).toEqual([...there].sort());
    for (const { name, order, secret = [], without } of TAKEN_TABLES) {
      const columns = Object.keys(await db(name).columnInfo());
      expect(columns).toEqual(expect.arrayContaining([...order, ...secret, ...(without ? [without.column] : [])]));
    }
  } finally {
    await db.destroy();
  }
});
