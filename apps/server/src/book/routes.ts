import { bookListSchema, correctionSchema, type CorrectionWrite } from '@even-bed/contract';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { findEntry, listEntries, verifyBook, writeCorrection, type BookFilter } from './store';

export const bookRoutes: Route[] = [
  {
    method: 'get',
    path: '/book',
    area: 'book',
    access: 'looker',
    summary: 'Lines of the book, newest first',
    answers: 'A page of entries; next is the "before" of the page that follows.',
    query: bookListSchema,
    handle: async ({ db, query }) => ({ body: await listEntries(db, query as unknown as BookFilter) }),
  },
  {
    method: 'get',
    path: '/book/check',
    area: 'book',
    access: 'lead',
    summary: 'Check that each line of the book follows from the one before',
    answers: 'How many lines there are, whether they are sound, and the hash of the last one.',
    handle: async ({ db }) => ({ body: await verifyBook(db) }),
  },
  {
    method: 'get',
    path: '/book/:id',
    area: 'book',
    access: 'looker',
    summary: 'One line of the book',
    answers: 'The entry.',
    handle: async ({ db, params }) => {
      const entry = await findEntry(db, params['id']!);
      if (!entry) throw notFound('This entry');
      return { body: entry };
    },
  },
  {
    method: 'post',
    path: '/book/corrections',
    area: 'book',
    access: 'lead',
    summary: 'Correct a line by a new one that names it',
    answers: 'written.',
    body: correctionSchema,
    handle: async ({ db, body }) => {
      await writeCorrection(db, body as CorrectionWrite);
      return { status: 201, body: { written: true } };
    },
  },
];
