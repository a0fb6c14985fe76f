import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Where on the plate a print failed, and photos of a print. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('prints', (t) => {
    t.text('places').notNullable().defaultTo('[]');
  });
  await db.schema.alterTable('photos', (t) => {
    t.text('print_id');
    t.index(['print_id']);
  });
}
