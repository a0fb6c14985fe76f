import type { Knex } from 'knex';

export { down } from './forwardOnly';

/**
 * A step of a job keeps what it changed in the records, so that its undoing takes back just that. A plan keeps what its
 * tool answered, so that its sentence reads in the units of today; those from before keep their sentence.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('job_events', (t) => {
    t.text('recorded');
  });
  await db.schema.alterTable('plans', (t) => {
    t.text('answer');
  });
}
