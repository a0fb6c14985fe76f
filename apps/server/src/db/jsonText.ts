import type { Knex } from 'knex';

/** A text within a column of JSON, as SQLite reads it. @param key of the outermost object */
export const jsonText = (db: Knex, column: string, key: string): Knex.Raw =>
  db.raw('json_extract(??, ?)', [column, `$.${key}`]);
