import type { Knex } from 'knex';

// Tags are the same in either case: compared and sorted as only SQLite knows it, in this one place.

/** Only rows with a tag. */
export const whereTag = <T extends Knex.QueryBuilder>(query: T, column: string, tag: string): T =>
  query.whereRaw('?? = ? COLLATE NOCASE', [column, tag]) as T;

/** By tag, from after one on. */
export function byTag<T extends Knex.QueryBuilder>(query: T, column: string, after: string | undefined): T {
  void query.orderByRaw('?? COLLATE NOCASE', [column]);
  if (after !== undefined) void query.whereRaw('?? COLLATE NOCASE > ?', [column, after]);
  return query;
}

/** The highest tag of a letter, or null: sorted by length first, so that S-1000 follows S-999. */
export async function highestTag(db: Knex, table: 'surfaces' | 'machines', letter: string): Promise<string | null> {
  const [highest] = (await db(table)
    .select('tag')
    .whereRaw(`substr(tag, 1, instr(tag, '-')) = ?`, [`${letter}-`])
    .orderByRaw('length(tag) DESC, tag DESC')
    .limit(1)) as { tag: string }[];
  return highest?.tag ?? null;
}
