import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** A token of no machine is another program's: it may read and nothing else. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('machine_tokens', (t) => {
    t.setNullable('machine_id');
  });
}
