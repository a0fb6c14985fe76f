import type { Page } from '../kit/fields';
import type { ListPreview, ListTaken, Print, PrintList } from './records';
import { operations, type FileAnswer } from '../kit/operation';

export interface WearAnswers {
  prints: Page<Print>;
  print: Print;
  logPrint: Print;
  describePrint: Print;
  addPrints: { added: number };
  withdrawPrint: Print;
  printLists: Page<PrintList>;
  sendList: PrintList;
  printList: PrintList;
  previewList: ListPreview;
  takeList: ListTaken;
  fixLine: { fixed: boolean };
  dropList: { dropped: boolean };
  badLines: FileAnswer;
}

export const wearOperations = operations<typeof import('./records'), WearAnswers>()('wear', {
  prints: {
    method: 'get',
    path: '/prints',
    access: 'looker',
    summary: 'Prints, the latest first',
    answers: 'A page of prints; next is the "after" of the page that follows.',
    query: 'printListSchema',
    list: { usual: 50, most: 500 },
    shows: ['Print'],
  },
  print: {
    method: 'get',
    path: '/prints/:id',
    access: 'looker',
    summary: 'One print',
    answers: 'The print.',
    shows: ['Print'],
  },
  logPrint: {
    method: 'put',
    path: '/prints/:id',
    access: 'technician',
    token: true,
    summary: 'Write a print down; surface and side are what lay there when it ended',
    answers: 'The print.',
    body: 'printWriteSchema',
    touches: ['Print', 'Surface', 'Book'],
    waits: { of: 'id' },
  },
  describePrint: {
    method: 'put',
    path: '/prints/:id/words',
    access: 'technician',
    summary: 'Add details to a print: how it failed, where on the plate, how it came off, a note',
    answers: 'The print.',
    body: 'printWordsSchema',
    touches: ['Print', 'Book'],
    waits: { of: 'id' },
    refuses: [404, 409],
  },
  addPrints: {
    method: 'post',
    path: '/prints',
    access: 'technician',
    summary: 'Write several prints down, all or none',
    answers: 'added: how many were new.',
    body: 'printsWriteSchema',
    bodyLimit: 512 * 1024,
    nodes: 10_000,
    touches: ['Print', 'Surface', 'Book'],
    refuses: [404],
  },
  withdrawPrint: {
    method: 'post',
    path: '/prints/:id/withdraw',
    access: 'technician',
    summary: 'Take a print back that was written down by mistake',
    answers: 'The print.',
    touches: ['Print', 'Surface', 'Book'],
  },
  printLists: {
    method: 'get',
    path: '/print-lists',
    access: 'technician',
    summary: 'Lists of prints with lines that still wait',
    answers: 'items: the lists.',
    list: { usual: 200, most: 500 },
    shows: ['List'],
  },
  sendList: {
    method: 'put',
    path: '/print-lists/:id',
    access: 'technician',
    summary: 'Send a list of prints (CSV); nothing is taken yet',
    answers: 'The list with a guess of what its columns hold.',
    query: 'listUploadSchema',
    takes: {
      types: ['text/csv', 'text/plain', 'application/vnd.ms-excel', 'application/octet-stream'],
      limit: 40 * 1024 * 1024,
      tooLarge: 'A list may have at most 40 MB. Cut it in two.',
    },
    touches: ['List'],
  },
  printList: {
    method: 'get',
    path: '/print-lists/:id',
    access: 'technician',
    summary: 'One list as it stands',
    answers: 'The list.',
    shows: ['List'],
  },
  previewList: {
    method: 'post',
    path: '/print-lists/:id/preview',
    access: 'technician',
    summary: 'What would become of a list with columns matched so',
    answers: 'How many lines are good, known and bad, with the first of each.',
    body: 'listPreviewSchema',
    alone: true,
  },
  takeList: {
    method: 'post',
    path: '/print-lists/:id/take',
    access: 'technician',
    summary: 'Take the next part of a list: good lines once each, bad ones stay',
    answers: 'taken, known, bad; next is the "from" of the part that follows, null at the end.',
    body: 'listTakeSchema',
    touches: ['List', 'Print', 'Surface', 'Book'],
  },
  fixLine: {
    method: 'put',
    path: '/print-lists/:id/lines/:line',
    access: 'technician',
    summary: 'Put a bad line of a list right',
    answers: 'fixed.',
    body: 'listLineSchema',
    touches: ['List'],
  },
  dropList: {
    method: 'post',
    path: '/print-lists/:id/drop',
    access: 'technician',
    summary: 'Let go of the lines of a list that still wait',
    answers: 'dropped.',
    touches: ['List'],
  },
  badLines: {
    method: 'get',
    path: '/print-lists/:id/bad',
    access: 'technician',
    fresh: true,
    summary: 'The bad lines of a list as CSV, with what is wrong',
    answers: 'A CSV file.',
    gives: 'text/csv',
    refuses: [422],
  },
});
