import type { PageAsk, PrintFilter } from '@even-bed/contract';
import { FAILURES, FAILURE_WORDS } from '@even-bed/core';
import type { Knex } from 'knex';
import { latestFirst } from '../kernel/page';

/** Narrows a query over prints to a page of those that a filter asks for, its words apart. */
export function latest<T extends Knex.QueryBuilder>(query: T, filter: PrintFilter & PageAsk): T {
  void latestFirst(query, { at: 'p.ended_at', id: 'p.id' }, filter).whereNull('p.withdrawn_at');
  if (filter.machineId !== undefined) void query.where('p.machine_id', filter.machineId);
  if (filter.surfaceId !== undefined) void query.where('p.surface_id', filter.surfaceId);
  if (filter.held !== undefined) void query.where('p.held', filter.held);
  if (filter.from !== undefined) void query.where('p.ended_at', '>=', filter.from);
  if (filter.to !== undefined) void query.where('p.ended_at', '<', filter.to);
  return query;
}

/** From this many machines, surfaces and materials on, the words are so common that the newest prints hold a page soon. */
const FEW = 60;

/**
 * Narrows a page of prints to those in which the words stand: in the name of the machine, the tag of the surface, the
 * material, how it failed, or the note. Among a million prints it reads only those that an index leads to: each thing
 * that the words name gives its own latest page, and the page is made of these.
 */
export async function matchPrints(db: Knex, query: Knex.QueryBuilder, filter: PrintFilter & PageAsk): Promise<void> {
  const part = `%${filter.search.replace(/[\\%_]/g, '\\$&')}%`;
  const like = (column: string) => db.raw(`?? LIKE ? ESCAPE '\\'`, [column, part]);
  const machines = (await db('machines').whereRaw(like('name')).pluck('id')) as string[];
  const surfaces = (await db('surfaces')
    .whereRaw(like('tag'))
    .whereRaw('prints_a + prints_b > 0')
    .pluck('id')) as string[];
  const materials = (await materialsOf(db)).filter((material) =>
    material.toLowerCase().includes(filter.search.toLowerCase()),
  );
  const failures = FAILURES.filter((failure) =>
    `${failure} ${FAILURE_WORDS[failure]}`.includes(filter.search.toLowerCase()),
  );
  const named = [
    ...machines.map((value) => ['p.machine_id', value] as const),
    ...surfaces.map((value) => ['p.surface_id', value] as const),
    ...materials.map((value) => ['p.material', value] as const),
    ...failures.map((value) => ['p.failure', value] as const),
  ];
  const noted = (prints: Knex.QueryBuilder) => prints.whereRaw(`p.note <> ''`).whereRaw(like('p.note'));
  if (named.length > FEW) {
    void query.where((any) => {
      void any.whereIn('p.machine_id', machines).orWhereIn('p.surface_id', surfaces);
      void any.orWhereIn('p.material', materials).orWhereIn('p.failure', failures).orWhere(noted);
    });
    return;
  }
  const page = (narrow: (prints: Knex.QueryBuilder) => unknown) => {
    const prints = latest(db('prints as p').select('p.id'), filter);
    narrow(prints);
    return db.select('id').from(prints.as('page'));
  };
  const pages = named.map(([column, value]) => page((prints) => prints.where(column, value)));
  void query.whereIn('p.id', page(noted).unionAll(pages));
}

/** Every material once, by steps through the index instead of all prints. */
async function materialsOf(db: Knex): Promise<string[]> {
  const rows = (await db.raw(
    `WITH RECURSIVE known(material) AS (
       SELECT min(material) FROM prints
       UNION ALL
       SELECT (SELECT min(material) FROM prints WHERE prints.material > known.material) FROM known WHERE known.material IS NOT NULL
     ) SELECT material FROM known WHERE material IS NOT NULL`,
  )) as { material: string }[];
  return rows.map(({ material }) => material);
}
