import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** When the server wrote a line, beside when it is told to have happened; lines from before have none. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('book', (t) => {
    t.integer('written_at');
  });
}
