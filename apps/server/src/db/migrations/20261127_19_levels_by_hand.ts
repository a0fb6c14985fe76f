import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Levels by hand, raw; home and zero, which are two facts of a machine; and when what was learned of it was set back; what a shop feels gaps with. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('level_notes', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.bigInteger('at').notNullable();
    t.text('way').notNullable();
    t.text('raw').notNullable();
    t.text('result').notNullable();
    t.text('job_id');
    t.text('person_id').references('people.id');
    t.text('core_version').notNullable();
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'at']);
  });
  await db.schema.createTable('z_marks', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('kind').notNullable().checkIn(['home', 'zero', 'learn-anew']);
    t.bigInteger('at').notNullable();
    t.text('job_id');
    t.text('person_id').references('people.id');
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'kind', 'at']);
  });
  await db.schema.createTable('gauges', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    t.text('kind').notNullable();
    t.integer('pieces');
    t.double('reading');
    t.integer('layers').notNullable();
    t.bigInteger('at').notNullable();
    t.text('person_id').references('people.id');
    t.bigInteger('withdrawn_at');
  });
  // Key that the screws of a resin machine's platform take, mm.
  await db.raw('ALTER TABLE machines ADD COLUMN platform_key REAL');
}
