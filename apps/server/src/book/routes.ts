import { bookOperations } from '@even-bed/contract/book/operations';
import * as schemas from '@even-bed/contract/book/records';
import { followBook } from './follow';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { findEntry, listEntries, verifyBook, writeCorrection } from './store';

export const bookRoutes = routesOf(bookOperations, schemas, {
  book: async ({ db, query }) => ({ body: await listEntries(db, query) }),
  followBook: { stream: followBook },
  checkBook: async ({ db }) => ({ body: await verifyBook(db) }),
  entry: async ({ db, params }) => {
    const entry = await findEntry(db, params.id);
    if (!entry) throw notFound('This entry');
    return { body: entry };
  },
  correct: async ({ db, body }) => {
    await writeCorrection(db, body);
    return { body: { written: true } };
  },
});
