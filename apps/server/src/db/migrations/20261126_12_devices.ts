import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Devices on which somebody has signed in: guessing from elsewhere can't lock them out. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('known_devices', (t) => {
    t.text('fingerprint').notNullable();
    t.text('person_id').notNullable().references('people.id');
    t.bigInteger('last_at').notNullable();
    t.primary(['fingerprint', 'person_id']);
  });
}
