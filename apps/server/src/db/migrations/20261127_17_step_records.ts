import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** A step of a job keeps what it changed in the records, so that its undoing takes back just that. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('job_events', (t) => {
    t.text('recorded');
  });
}
