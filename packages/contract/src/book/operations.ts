import type { Page } from '../kit/fields';
import type { BookCheck, BookEntry } from './records';
import { operations, type FileAnswer } from '../kit/operation';

export interface BookAnswers {
  book: Page<BookEntry>;
  followBook: FileAnswer;
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
  followBook: {
    method: 'get',
    path: '/events',
    access: 'looker',
    fresh: true,
    summary: 'What happens in the shop, as server-sent events: each line of the book as it is written',
    answers:
      'A stream; the id of each event is the running number of its line. Begun again with Last-Event-ID it misses none.',
    query: 'followSchema',
    gives: 'text/event-stream',
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
