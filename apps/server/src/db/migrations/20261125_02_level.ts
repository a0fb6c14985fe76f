import type { Knex } from 'knex';

export { down } from './forwardOnly';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('level_checks', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.bigInteger('started_at').notNullable();
    t.bigInteger('ended_at');
    t.text('outcome').checkIn(['finished', 'dropped']);
    t.text('note').notNullable();
    t.text('setup').notNullable();
    t.double('aim').notNullable();
    t.double('before_range');
    t.double('after_range');
    t.integer('rounds').notNullable();
    t.index(['machine_id', 'started_at']);
    t.index(['machine_id', 'outcome', 'ended_at']);
    t.index(['outcome', 'started_at']);
    t.index(['started_at']);
  });
  await db.schema.createTable('level_rounds', (t) => {
    t.text('id').primary();
    t.text('check_id').notNullable().references('level_checks.id');
    t.integer('seq').notNullable();
    t.bigInteger('taken_at').notNullable();
    t.text('source').notNullable();
    t.text('raw').notNullable();
    t.text('reading').notNullable();
    t.text('plan').notNullable();
    t.integer('points').notNullable();
    t.text('core_version').notNullable();
    t.bigInteger('made_at');
    // Set when a simulated machine has been told of the turns; a real one feels them.
    t.boolean('hand_told').notNullable().defaultTo(false);
    t.unique(['check_id', 'seq']);
  });
  await db.schema.createTable('made_turns', (t) => {
    t.text('round_id').notNullable().references('level_rounds.id');
    t.text('adjuster_id').notNullable();
    t.double('turns').notNullable();
    t.primary(['round_id', 'adjuster_id']);
  });
}
