import type { Knex } from 'knex';

export { down } from './forwardOnly';

/** Prints as far as surfaces need them, offsets that worked, inspections and photos, and lists being read in. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('prints', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('surface_id').references('surfaces.id');
    t.text('side');
    t.text('material').notNullable();
    t.bigInteger('ended_at').notNullable();
    t.integer('duration');
    t.double('grams');
    t.boolean('held').notNullable();
    t.text('failure');
    t.text('release');
    t.text('note').notNullable();
    t.text('source').notNullable().checkIn(['tap', 'grid', 'list', 'machine']);
    t.text('person_id').references('people.id');
    t.bigInteger('created_at').notNullable();
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'ended_at']);
    t.index(['surface_id', 'ended_at']);
    t.index(['ended_at', 'id']);
    t.index(['material', 'ended_at']);
  });
  // Few prints failed, and few have a note: a search for either reads those alone.
  await db.raw('CREATE INDEX prints_failed ON prints (failure, ended_at) WHERE failure IS NOT NULL');
  await db.raw(`CREATE INDEX prints_noted ON prints (ended_at) WHERE note <> ''`);
  await db.schema.createTable('offsets', (t) => {
    t.text('id').primary();
    t.text('machine_id').notNullable().references('machines.id');
    t.text('surface_id').notNullable().references('surfaces.id');
    t.double('offset').notNullable();
    t.double('weight').notNullable();
    t.bigInteger('at').notNullable();
    t.text('note').notNullable();
    t.text('person_id').references('people.id');
    t.bigInteger('withdrawn_at');
    t.index(['machine_id', 'at']);
    t.index(['surface_id', 'at']);
  });
  await db.schema.createTable('inspections', (t) => {
    t.text('id').primary();
    t.text('surface_id').references('surfaces.id');
    t.text('machine_id').references('machines.id');
    t.text('card').notNullable();
    t.text('code').notNullable();
    t.text('numbers').notNullable();
    t.text('note').notNullable();
    t.bigInteger('at').notNullable();
    t.text('person_id').references('people.id');
    t.index(['surface_id', 'at']);
    t.index(['machine_id', 'at']);
  });
  await db.schema.createTable('photos', (t) => {
    t.text('id').primary();
    t.text('surface_id').references('surfaces.id');
    t.text('machine_id').references('machines.id');
    t.text('inspection_id');
    t.bigInteger('at').notNullable();
    t.text('note').notNullable();
    t.integer('width').notNullable();
    t.integer('height').notNullable();
    t.integer('bytes').notNullable();
    t.text('sha256').notNullable();
    t.text('person_id').references('people.id');
    t.index(['surface_id', 'at']);
    t.index(['machine_id', 'at']);
    t.index(['inspection_id']);
  });
  // A list that is being read in: its lines wait here until the good ones are taken; bad ones stay to be put right.
  await db.schema.createTable('print_lists', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    t.text('columns').notNullable();
    t.text('matched');
    t.integer('lines').notNullable();
    t.integer('taken').notNullable().defaultTo(0);
    t.integer('known').notNullable().defaultTo(0);
    t.bigInteger('at').notNullable();
    t.text('person_id').references('people.id');
    t.index(['at']);
  });
  await db.schema.createTable('print_list_lines', (t) => {
    t.text('list_id').notNullable().references('print_lists.id');
    t.integer('line').notNullable();
    t.text('cells').notNullable();
    // Which time in its list the same line stands there: two prints may look alike.
    t.integer('repeat').notNullable();
    t.primary(['list_id', 'line']);
  });
}
