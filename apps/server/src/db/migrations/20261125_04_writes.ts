import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Answers to writes by their client-made key, so that a write sent twice is answered twice and done once. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('writes', (t) => {
    t.text('key').primary();
    t.text('fingerprint').notNullable();
    t.integer('status').notNullable();
    t.text('answer').notNullable();
    t.bigInteger('at').notNullable();
    t.index(['at']);
  });
}
