import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** A shop's own procedures, each version kept, and jobs under way and done, as the events that made them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('procedures', (t) => {
    t.text('id').notNullable();
    t.integer('version').notNullable();
    t.text('title').notNullable();
    t.text('based_on');
    t.text('doc').notNullable();
    t.bigInteger('at').notNullable();
    t.text('person_id').references('people.id');
    t.primary(['id', 'version']);
  });
  await db.schema.createTable('jobs', (t) => {
    t.text('id').primary();
    t.text('procedure_id').notNullable();
    t.integer('procedure_version').notNullable();
    // The document itself, so that a job goes on with what it began with, whatever ships later.
    t.text('doc').notNullable();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('choices').notNullable();
    t.text('parts').notNullable();
    t.text('stack_before').notNullable();
    t.bigInteger('started_at').notNullable();
    t.text('person_id').references('people.id');
    // As the events have left it: only the store of jobs writes these.
    t.text('holder_id').references('people.id');
    t.text('step_title');
    t.integer('step').notNullable();
    t.integer('steps').notNullable();
    t.bigInteger('entered_at').notNullable();
    t.bigInteger('wait_until');
    t.text('ended');
    t.bigInteger('ended_at');
    t.index(['machine_id', 'started_at']);
    t.index(['ended', 'started_at']);
  });
  await db.schema.createTable('job_events', (t) => {
    t.text('id').primary();
    t.text('job_id').notNullable().references('jobs.id');
    t.integer('seq').notNullable();
    t.text('event').notNullable();
    t.bigInteger('received_at').notNullable();
    t.text('person_id').references('people.id');
    t.unique(['job_id', 'seq']);
  });
}
