import type { Knex } from 'knex';

export { down } from './forwardOnly';

/**
 * Jobs begun for several machines at once are told apart from others. What shipped with an earlier version of the program is
 * kept, so that a job begun on a device that had not heard of the new one is worked by the document that it was begun with.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (t) => {
    t.string('together', 40).index();
  });
  await db.schema.createTable('procedure_editions', (t) => {
    t.string('procedure_id', 60).notNullable();
    t.string('edition', 40).notNullable();
    t.text('doc').notNullable();
    t.bigInteger('at').notNullable();
    t.primary(['procedure_id', 'edition']);
  });
}
