import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** The heights of a reading small enough for the floor; readings from before have none until the next check. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('level_rounds', (t) => {
    t.text('small_map');
  });
}
