import type { Knex } from 'knex';

export { down } from './forwardOnly';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('areas', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    t.integer('position').notNullable();
    t.integer('version').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('updated_at').notNullable();
  });
  await db.schema.createTable('machines', (t) => {
    t.text('id').primary();
    t.text('area_id').notNullable().references('areas.id');
    t.text('name').notNullable();
    t.text('shelf').notNullable();
    t.text('model').notNullable();
    t.text('family').notNullable().checkIn(['filament', 'resin']);
    for (const column of [
      'plate_width',
      'plate_depth',
      'print_width',
      'print_depth',
      'origin_x',
      'origin_y',
      'first_layer',
    ]) {
      t.double(column).notNullable();
    }
    t.text('seen_from').notNullable().checkIn(['above', 'below']);
    t.boolean('compensation').notNullable();
    t.double('aim');
    t.text('finding').notNullable();
    t.text('plus').notNullable().checkIn(['higher', 'lower']);
    t.text('map_extent');
    t.text('map_first_row');
    t.text('console');
    t.text('note').notNullable();
    t.integer('version').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('updated_at').notNullable();
    t.index(['area_id', 'name']);
    t.index(['name']);
  });
  await db.schema.createTable('adjusters', (t) => {
    t.text('machine_id').notNullable().references('machines.id');
    t.text('id').notNullable();
    t.integer('position').notNullable();
    t.text('name').notNullable();
    t.double('x').notNullable();
    t.double('y').notNullable();
    t.text('thread').notNullable();
    t.double('pitch').notNullable();
    t.text('clockwise').notNullable().checkIn(['raises', 'lowers']);
    t.primary(['machine_id', 'id']);
  });
  await db.schema.createTable('rules', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('kind').notNullable();
    t.integer('every_days').notNullable();
    t.bigInteger('last_done_at');
    t.bigInteger('next_due_at').notNullable();
    t.integer('version').notNullable();
    t.unique(['machine_id', 'kind']);
    t.index(['next_due_at']);
  });
}
