import {
  listLineSchema,
  listPreviewSchema,
  listTakeSchema,
  listUploadSchema,
  printListSchema,
  printsWriteSchema,
  printWriteSchema,
  type ListTake,
  type PrintFacts,
  type PrintsWrite,
} from '@even-bed/contract';
import Joi from 'joi';
import { csv } from '../kernel/csv';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { heavy } from '../kernel/heavy';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { badLines, dropList, fixLine, keepList, openLists, previewList, readList, takePart } from './lists';
import { READ_CSV, type readCsv } from './readCsv';
import type { PrintFilter } from './searchPrints';
import { addPrints, findPrint, listPrints, logPrint, withdrawPrint } from './store';

const LIST_LIMIT = 40 * 1024 * 1024;
type CsvFile = ReturnType<typeof readCsv>;

export const wearRoutes: Route[] = [
  {
    method: 'get',
    path: '/prints',
    area: 'wear',
    access: 'looker',
    summary: 'Prints, the latest first',
    answers: 'A page of prints; next is the "after" of the page that follows.',
    query: printListSchema,
    handle: async ({ db, query }) => ({ body: await listPrints(db, query as unknown as PrintFilter) }),
  },
  {
    method: 'get',
    path: '/prints/:id',
    area: 'wear',
    access: 'looker',
    summary: 'One print',
    answers: 'The print.',
    handle: async ({ db, params }) => {
      const print = await findPrint(db, params['id']!);
      if (!print) throw notFound('This print');
      return { body: print };
    },
  },
  {
    method: 'put',
    path: '/prints/:id',
    area: 'wear',
    access: 'technician',
    token: true,
    summary: 'Write a print down; surface and side are what lay there when it ended',
    answers: 'The print.',
    body: printWriteSchema,
    handle: async (call) => {
      const facts = call.body as PrintFacts;
      refuseOtherMachine(call, facts.machineId);
      const source = call.tokenMachineId === null ? 'tap' : 'machine';
      return { body: await logPrint(call.db, { ...facts, id: call.params['id']! }, { source, now: call.now }) };
    },
  },
  {
    method: 'post',
    path: '/prints',
    area: 'wear',
    access: 'technician',
    summary: 'Write several prints down, all or none',
    answers: 'added: how many were new.',
    body: printsWriteSchema,
    bodyLimit: 512 * 1024,
    nodes: 10_000,
    handle: async ({ db, body, now }) => ({
      body: { added: await addPrints(db, (body as PrintsWrite).prints, { source: 'grid', from: 'the grid', now }) },
    }),
  },
  {
    method: 'post',
    path: '/prints/:id/withdraw',
    area: 'wear',
    access: 'technician',
    summary: 'Take a print back that was written down by mistake',
    answers: 'The print.',
    body: Joi.object({}),
    handle: async ({ db, params, now }) => ({ body: await withdrawPrint(db, params['id']!, now) }),
  },
  {
    method: 'get',
    path: '/print-lists',
    area: 'wear',
    access: 'technician',
    summary: 'Lists of prints with lines that still wait',
    answers: 'items: the lists.',
    handle: async ({ db }) => ({ body: { items: await openLists(db) } }),
  },
  {
    method: 'put',
    path: '/print-lists/:id',
    area: 'wear',
    access: 'technician',
    summary: 'Send a list of prints (CSV); nothing is taken yet',
    answers: 'The list with a guess of what its columns hold.',
    query: listUploadSchema,
    upload: {
      types: ['text/csv', 'text/plain', 'application/vnd.ms-excel', 'application/octet-stream'],
      limit: LIST_LIMIT,
      tooLarge: 'A list may have at most 40 MB. Cut it in two.',
    },
    prepare: ({ upload, signal }) => heavy(READ_CSV, upload!, signal),
    handle: async ({ db, params, query, prepared, now }) => {
      const { name } = query as { name: string };
      return { body: await keepList(db, params['id']!, { name, file: prepared as CsvFile, at: now }) };
    },
  },
  {
    method: 'get',
    path: '/print-lists/:id',
    area: 'wear',
    access: 'technician',
    summary: 'One list as it stands',
    answers: 'The list.',
    handle: async ({ db, params }) => ({ body: await readList(db, params['id']!) }),
  },
  {
    method: 'post',
    path: '/print-lists/:id/preview',
    area: 'wear',
    access: 'technician',
    alone: true,
    summary: 'What would become of a list with columns matched so',
    answers: 'How many lines are good, known and bad, with the first of each.',
    body: listPreviewSchema,
    handle: async ({ db, params, body, now }) => ({
      body: await previewList(db, params['id']!, { match: (body as ListTake).match, now }),
    }),
  },
  {
    method: 'post',
    path: '/print-lists/:id/take',
    area: 'wear',
    access: 'technician',
    summary: 'Take the next part of a list: good lines once each, bad ones stay',
    answers: 'taken, known, bad; next is the "from" of the part that follows, null at the end.',
    body: listTakeSchema,
    handle: async ({ db, params, body, now }) => ({ body: await takePart(db, params['id']!, body as ListTake, now) }),
  },
  {
    method: 'put',
    path: '/print-lists/:id/lines/:line',
    area: 'wear',
    access: 'technician',
    summary: 'Put a bad line of a list right',
    answers: 'fixed.',
    body: listLineSchema,
    handle: async ({ db, params, body }) => {
      await fixLine(db, params['id']!, Number(params['line']), (body as { cells: string[] }).cells);
      return { body: { fixed: true } };
    },
  },
  {
    method: 'post',
    path: '/print-lists/:id/drop',
    area: 'wear',
    access: 'technician',
    summary: 'Let go of the lines of a list that still wait',
    answers: 'dropped.',
    body: Joi.object({}),
    handle: async ({ db, params }) => {
      await dropList(db, params['id']!);
      return { body: { dropped: true } };
    },
  },
  {
    method: 'get',
    path: '/print-lists/:id/bad',
    area: 'wear',
    access: 'technician',
    summary: 'The bad lines of a list as CSV, with what is wrong',
    answers: 'A CSV file.',
    handle: async ({ db, params, now }) => ({
      body: csv(await badLines(db, params['id']!, now)),
      file: { type: 'text/csv; charset=utf-8', name: 'lines-to-put-right.csv' },
    }),
  },
];
