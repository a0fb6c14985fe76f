import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Who works here, on which devices they are signed in, and which machines may post by themselves. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('people', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    // The name as it is compared: signing in must not hang on capitals.
    t.text('name_key').notNullable().unique();
    t.text('role').notNullable().checkIn(['looker', 'technician', 'lead']);
    t.text('secret').notNullable();
    t.text('secret_kind').notNullable().checkIn(['passphrase', 'pin']);
    t.boolean('active').notNullable();
    t.integer('version').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('updated_at').notNullable();
  });
  await db.schema.createTable('sessions', (t) => {
    t.text('id').primary();
    t.text('token_hash').notNullable().unique();
    t.text('person_id').notNullable().references('people.id');
    t.text('device').notNullable();
    t.boolean('shared').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('last_seen_at').notNullable();
    t.bigInteger('locked_at');
    t.bigInteger('ended_at');
    t.index(['person_id', 'ended_at']);
  });
  // By the name as typed, known or not: a guesser learns nothing from it.
  await db.schema.createTable('sign_in_failures', (t) => {
    t.text('name_key').primary();
    t.integer('failures').notNullable();
    t.bigInteger('last_at').notNullable();
    t.bigInteger('locked_until').notNullable();
  });
  await db.schema.createTable('machine_tokens', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('name').notNullable();
    t.text('token_hash').notNullable().unique();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('last_used_at');
    t.bigInteger('revoked_at');
    t.index(['machine_id']);
  });
  await db.schema.createTable('settings', (t) => {
    t.text('key').primary();
    t.text('value').notNullable();
    t.integer('version').notNullable();
    t.bigInteger('updated_at').notNullable();
  });
}
