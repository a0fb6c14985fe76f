import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Prints with a note in the order of every list: without the id in it, a search read all prints instead. */
export async function up(db: Knex): Promise<void> {
  await db.raw('DROP INDEX prints_noted');
  await db.raw(`CREATE INDEX prints_noted ON prints (ended_at, id) WHERE note <> ''`);
}
