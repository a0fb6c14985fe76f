import knex, { type Knex } from 'knex';
import { latestFirst, pageFrom, pageOf, placeOf } from './page';

const items = ['a', 'b', 'c', 'd', 'e'];

test('pages of a small list follow each other and end', () => {
  const first = pageOf(items, { limit: 2 }, String);
  expect(first).toEqual({ items: ['a', 'b'], next: 'b' });
  const second = pageOf(items, { limit: 2, after: first.next! }, String);
  expect(second).toEqual({ items: ['c', 'd'], next: 'd' });
  expect(pageOf(items, { limit: 2, after: second.next! }, String)).toEqual({ items: ['e'], next: null });
  expect(pageOf([], { limit: 2 }, String)).toEqual({ items: [], next: null });
});

test('a place that is not in the list is refused, not read as the beginning', () => {
  expect(() => pageOf(items, { limit: 2, after: 'z' }, String)).toThrow('from its beginning');
});

describe('the latest first', () => {
  let db: Knex;
  beforeAll(async () => {
    db = knex({ client: 'better-sqlite3', connection: ':memory:', useNullAsDefault: true });
    await db.schema.createTable('t', (table) => {
      table.string('id');
      table.integer('at');
    });
    // Three at the same time: the id decides.
    for (const [id, at] of [
      ['a', 1],
      ['b', 5],
      ['c', 5],
      ['d', 5],
      ['e', 9],
    ] as const)
      await db('t').insert({ id, at });
  });
  afterAll(() => db.destroy());

  test.each([1, 2, 3, 5])('in pages of %p every row comes once', async (limit) => {
    const seen: string[] = [];
    for (let after: string | undefined; ;) {
      const rows = (await latestFirst(db('t'), { at: 't.at', id: 't.id' }, { limit, ...(after ? { after } : {}) })) as {
        id: string;
        at: number;
      }[];
      const page = pageFrom(rows, limit, (row) => placeOf(row.at, row.id));
      seen.push(...page.items.map(({ id }) => id));
      if (page.next === null) break;
      after = page.next;
    }
    expect(seen).toEqual(['e', 'd', 'c', 'b', 'a']);
  });

  test.each(['x', '5', ',a', '5,', "5,a' OR 1=1", '99999999999999999999,a'])('%p is no place of it', (after) => {
    expect(() => latestFirst(db('t'), { at: 'at', id: 'id' }, { limit: 1, after })).toThrow('from its beginning');
  });
});
