import { bookListSchema } from '@even-bed/contract';
import type { Route } from '../http/route';
import { listEntries, type BookFilter } from './store';

export const bookRoutes: Route[] = [
  {
    method: 'get',
    path: '/book',
    area: 'book',
    summary: 'Lines of the book, newest first',
    answers: 'A page of entries; next is the "before" of the page that follows.',
    query: bookListSchema,
    handle: async ({ db, query }) => ({ body: await listEntries(db, query as unknown as BookFilter) }),
  },
];
