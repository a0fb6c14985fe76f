import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** What was looked at, laid, lapped or measured of the shape of a bed, plate or platform: raw, and what it came to. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('shape_records', (t) => {
    t.text('id').primary();
    t.text('kind').notNullable().checkIn(['light', 'strips', 'lap', 'layer']);
    t.text('machine_id').references('machines.id');
    t.text('surface_id').references('surfaces.id');
    t.bigInteger('at').notNullable();
    t.text('raw').notNullable();
    t.text('result').notNullable();
    t.text('job_id');
    t.text('person_id').references('people.id');
    t.text('core_version').notNullable();
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'at']);
    t.index(['surface_id', 'at']);
  });
}
