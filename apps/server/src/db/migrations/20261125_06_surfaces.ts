import type { Knex } from 'knex';

import { STARTING_KINDS } from './startingKinds';

export { down } from './forwardOnly';

/** What prints stick to: kinds, surfaces, where each lies and lay, and the plain layers of machines' stacks. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('surface_kinds', (t) => {
    t.text('id').primary();
    t.text('name').notNullable().unique();
    t.text('group').notNullable();
    t.double('thickness').notNullable();
    t.double('temperature_limit');
    t.boolean('directional').notNullable();
    t.text('sides').notNullable();
    t.text('life');
    t.text('care').notNullable();
    t.text('note').notNullable();
    t.integer('version').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('updated_at').notNullable();
  });
  await db('surface_kinds').insert(
    STARTING_KINDS.map(({ limit, sides, life, care, ...kind }) => ({
      ...kind,
      temperature_limit: limit,
      sides: JSON.stringify(sides),
      life: life === null ? null : JSON.stringify(life),
      care: JSON.stringify(care),
      version: 1,
      created_at: 0,
      updated_at: 0,
    })),
  );
  await db.schema.createTable('surfaces', (t) => {
    t.text('id').primary();
    t.text('tag').notNullable();
    t.text('kind_id').notNullable().references('surface_kinds.id');
    t.double('width').notNullable();
    t.double('depth').notNullable();
    t.double('thickness');
    t.bigInteger('bought_at');
    t.double('price');
    t.text('note').notNullable();
    // The state as its events have left it: only the store of surfaces writes these.
    t.text('machine_id').references('machines.id');
    t.text('slot');
    t.text('side_up');
    t.integer('turned');
    t.text('place').notNullable();
    t.text('hold_kind');
    t.bigInteger('hold_since');
    t.bigInteger('hold_until');
    t.text('hold_reason');
    t.text('awaiting');
    t.text('retired');
    t.bigInteger('changed_at').notNullable();
    // Counted as prints are written down, so that a rack of thousands need not add them up.
    for (const column of ['prints_a', 'prints_b', 'renewed_a', 'renewed_b', 'failures', 'failures_renewed']) {
      t.integer(column).notNullable().defaultTo(0);
    }
    for (const column of ['grams_a', 'grams_b', 'grams_renewed_a', 'grams_renewed_b']) {
      t.double(column).notNullable().defaultTo(0);
    }
    t.bigInteger('renewed_at');
    t.integer('version').notNullable();
    t.bigInteger('created_at').notNullable();
    t.bigInteger('updated_at').notNullable();
    t.index(['kind_id']);
    t.index(['place']);
    t.index(['hold_until']);
  });
  await db.raw('CREATE UNIQUE INDEX surfaces_tag ON surfaces (tag COLLATE NOCASE)');
  // For finding the next free number of a letter.
  await db.raw(`CREATE INDEX surfaces_tag_number ON surfaces (substr(tag, 1, instr(tag, '-')), length(tag), tag)`);
  // One place at a time, and one surface in each slot of a machine: refused by the database itself.
  await db.raw(
    'CREATE UNIQUE INDEX surfaces_one_in_a_slot ON surfaces (machine_id, slot) WHERE machine_id IS NOT NULL',
  );
  await db.schema.createTable('mounts', (t) => {
    t.increments('seq');
    t.text('surface_id').notNullable().references('surfaces.id');
    t.text('machine_id').notNullable().references('machines.id');
    t.text('slot').notNullable();
    t.text('side_up').notNullable();
    t.integer('turned').notNullable();
    t.bigInteger('from_at').notNullable();
    t.bigInteger('to_at');
    // When and by whom it was put on: turning it over begins another span and changes neither.
    t.bigInteger('fitted_at').notNullable();
    t.text('fitted_by').references('people.id');
    t.index(['machine_id', 'slot', 'from_at']);
    t.index(['surface_id', 'from_at']);
  });
  await db.raw('CREATE UNIQUE INDEX mounts_one_place ON mounts (surface_id) WHERE to_at IS NULL');
  await db.raw('CREATE UNIQUE INDEX mounts_one_in_a_slot ON mounts (machine_id, slot) WHERE to_at IS NULL');
  await db.schema.createTable('stack_layers', (t) => {
    t.text('machine_id').notNullable().references('machines.id');
    t.integer('position').notNullable();
    t.text('name').notNullable();
    t.text('under').notNullable().checkIn(['platform', 'base', 'top']);
    t.double('thickness').notNullable();
    t.boolean('measured').notNullable();
    t.double('temperature_limit');
    t.bigInteger('fitted_at').notNullable();
    t.text('fitted_by').references('people.id');
    t.primary(['machine_id', 'position']);
  });
  await db.raw('ALTER TABLE machines ADD COLUMN tag TEXT');
  await db.raw('ALTER TABLE machines ADD COLUMN hottest REAL');
  await db.raw('ALTER TABLE machines ADD COLUMN stack_version INTEGER NOT NULL DEFAULT 0');
  const machines = (await db('machines').select('id').orderBy(['created_at', 'id'])) as { id: string }[];
  for (const [i, { id }] of machines.entries()) {
    await db('machines')
      .where({ id })
      .update({ tag: `M-${String(i + 1).padStart(3, '0')}` });
  }
  await db.raw('CREATE UNIQUE INDEX machines_tag ON machines (tag COLLATE NOCASE)');
}
