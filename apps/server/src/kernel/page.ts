import type { Page, PageAsk } from '@even-bed/contract';
import type { Knex } from 'knex';
import { Problem } from './problem';

export const noSuchPage = () =>
  new Problem(400, 'no-such-page', 'The list does not go on from there. Ask for it again from its beginning.');

/** A page of what was read one longer than asked; `endOf` names the place after which the next one begins. */
export function pageFrom<T>(rows: readonly T[], limit: number, endOf: (last: T) => string): Page<T> {
  const items = rows.slice(0, limit);
  return { items, next: rows.length > limit ? endOf(items[items.length - 1]!) : null };
}

/** A page of a list that is small enough to be read whole. @throws Problem 400 when `after` is not in it */
export function pageOf<T>(all: readonly T[], { after, limit }: PageAsk, keyOf: (item: T) => string): Page<T> {
  const from = after === undefined ? 0 : all.findIndex((item) => keyOf(item) === after) + 1;
  if (after !== undefined && from === 0) throw noSuchPage();
  return pageFrom(all.slice(from, from + limit + 1), limit, keyOf);
}

/** Columns by which a list runs: the latest first, and by id where times are the same. */
export interface Latest {
  at: string;
  id: string;
}

/** Narrows a query to a page and one row more. @throws Problem 400 when `after` is no place of such a list */
export function latestFirst<T extends Knex.QueryBuilder>(query: T, { at, id }: Latest, { after, limit }: PageAsk): T {
  void query
    .orderBy([
      { column: at, order: 'desc' },
      { column: id, order: 'desc' },
    ])
    .limit(limit + 1);
  if (after !== undefined) {
    const [, time, before] = /^(-?\d{1,16}),([\w-]{1,60})$/.exec(after) ?? [];
    if (before === undefined) throw noSuchPage();
    void query.whereRaw('(??, ??) < (?, ?)', [at, id, Number(time), before]);
  }
  return query;
}

/** The place of a row in such a list. */
export const placeOf = (at: number, id: string): string => `${at},${id}`;
