import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Sums that were kept for a machine: what was asked, and what was answered then. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('plans', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('tool').notNullable();
    t.text('title').notNullable();
    t.text('input').notNullable();
    t.text('sentence').notNullable();
    t.text('core_version').notNullable();
    t.bigInteger('at').notNullable();
    t.text('person_id').references('people.id');
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'at']);
    t.index(['at']);
  });
}
