import type { Knex } from 'knex';
import { connect, migrate } from '../db/connect';
import { writeVersion } from './versioned';

let db: Knex;
beforeEach(async () => {
  db = connect(':memory:');
  await migrate(db);
});
afterEach(() => db.destroy());

const area = (version: number, name: string) => ({
  id: 'a',
  name,
  position: 0,
  version,
  created_at: 1,
  updated_at: version,
});
const kept = () => db('areas').where({ id: 'a' }).first('name', 'version') as Promise<unknown>;

test('of two that saw the same version the second writes nothing', async () => {
  expect(await writeVersion(db, 'areas', area(1, 'Loft'))).toBe(true);
  expect(await writeVersion(db, 'areas', area(1, 'Attic'))).toBe(false);
  expect(await kept()).toEqual({ name: 'Loft', version: 1 });
  expect(await writeVersion(db, 'areas', area(2, 'Long Room'))).toBe(true);
  expect(await writeVersion(db, 'areas', area(2, 'Wet Room'))).toBe(false);
  expect(await writeVersion(db, 'areas', area(7, 'Cellar'))).toBe(false);
  expect(await kept()).toEqual({ name: 'Long Room', version: 2 });
});

test('a version of what is not there is written by nobody', async () => {
  expect(await writeVersion(db, 'areas', area(2, 'Loft'))).toBe(false);
  expect(await kept()).toBeUndefined();
});
