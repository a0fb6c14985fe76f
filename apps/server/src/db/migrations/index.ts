import type { Knex } from 'knex';
import * as fleet from './20261125_01_fleet';
import * as level from './20261125_02_level';
import * as book from './20261125_03_book';
import * as writes from './20261125_04_writes';

/** All migrations by name; the date in the name is their order. */
export const migrations: Record<string, Knex.Migration> = {
  '20261125_01_fleet': fleet,
  '20261125_02_level': level,
  '20261125_03_book': book,
  '20261125_04_writes': writes,
};
