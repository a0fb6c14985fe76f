import type { Knex } from 'knex';
import { notFound } from './problem';

/**
 * Marks a row of a table with `withdrawn_at` as taken back, once.
 * @param what how it is called when there is none: "This gauge"
 * @returns the row; null: it was taken back before
 * @throws Problem 404 there is no such row
 */
export async function takeBack<Row extends { withdrawn_at: number | null }>(
  db: Knex,
  table: string,
  { id, at, what }: { id: string; at: number; what: string },
): Promise<Row | null> {
  const row = (await db(table).where({ id }).first()) as Row | undefined;
  if (!row) throw notFound(what);
  if (row.withdrawn_at !== null) return null;
  await db(table).where({ id }).update({ withdrawn_at: at });
  return row;
}
