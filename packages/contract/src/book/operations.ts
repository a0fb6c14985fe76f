import type { Page } from '../kit/fields';
import type { BookCheck, BookEntry } from './records';
import { operations } from '../kit/operation';

export interface BookAnswers {
  book: Page<BookEntry>;
  checkBook: BookCheck;
  entry: BookEntry;
  correct: { written: boolean };
}

export const bookOperations = operations<typeof import('./records'), BookAnswers>()('book', {
  book: {
    method: 'get',
    path: '/book',
    access: 'looker',
    summary: 'Lines of the book, newest first',
    answers: 'A page of entries; next is the "before" of the page that follows.',
    query: 'bookListSchema',
    list: { usual: 50, most: 200 },
    shows: ['Book'],
  },
  checkBook: {
    method: 'get',
    path: '/book/check',
    access: 'lead',
    summary: 'Check that each line of the book follows from the one before',
    answers: 'How many lines there are, whether they are sound, and the hash of the last one.',
  },
  entry: {
    method: 'get',
    path: '/book/:id',
    access: 'looker',
    summary: 'One line of the book',
    answers: 'The entry.',
    shows: ['Book'],
  },
  correct: {
    method: 'post',
    path: '/book/corrections',
    access: 'lead',
    summary: 'Correct a line by a new one that names it',
    answers: 'written.',
    body: 'correctionSchema',
    status: 201,
    refuses: [404],
    touches: ['Book'],
  },
});
