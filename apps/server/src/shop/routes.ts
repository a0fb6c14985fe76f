import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import Joi from 'joi';
import { v7 as uuid } from 'uuid';
import { notFound, Problem } from '../kernel/problem';
import type { Answer, BeforeCall, Call, Route } from '../kernel/route';
import { countPeople } from '../people/store';
import { exportShop } from './exportShop';
import { importShop } from './importShop';
import { CSV_LISTS, csvOf, type CsvList } from './lists';

const EXPORT_LIMIT = 4 * 1024 * 1024 * 1024;

async function takeAlong({ db, photoFolder, now }: Call): Promise<Answer> {
  const file = path.join(os.tmpdir(), `even-bed-${uuid()}.zip`);
  await exportShop(db, { file, photoFolder, at: now });
  // The file has no name from here on: it is gone when it has been read, or when the reader goes.
  const stream = fs.createReadStream(file, { fd: fs.openSync(file, 'r') });
  fs.unlinkSync(file);
  const day = new Date(now).toISOString().slice(0, 10);
  return { body: stream, file: { type: 'application/zip', name: `even-bed-${day}.zip` } };
}

/** An import under way: one at a time, and none into a shop that has people. */
let importing = false;

async function mayBringAlong({ db, firstCode, query }: BeforeCall): Promise<void> {
  if ((await countPeople(db)) > 0)
    throw new Problem(409, 'not-empty', 'This shop is not empty. An export is read into an empty one.');
  if (firstCode !== null && query['code'] !== firstCode)
    throw new Problem(403, 'wrong-code', 'This is not the code that stands on the server’s terminal.');
  if (importing) throw new Problem(429, 'busy', 'An export is being read in already. Wait for it.');
}

async function bringAlong({ db, photoFolder, uploadFile }: Call): Promise<Answer> {
  if (importing) throw new Problem(429, 'busy', 'An export is being read in already. Wait for it.');
  importing = true;
  try {
    return { body: { rows: await importShop(db, { file: uploadFile!, photoFolder }) } };
  } finally {
    importing = false;
  }
}

export const shopRoutes: Route[] = [
  {
    method: 'get',
    path: '/backups/last',
    area: 'shop',
    access: 'lead',
    summary: 'When the last backup was made',
    answers: 'at: epoch ms; null when there is none, or none is made here.',
    handle: ({ lastBackup }) => Promise.resolve({ body: { at: lastBackup() } }),
  },
  {
    method: 'get',
    path: '/export',
    area: 'shop',
    access: 'lead',
    summary: 'Everything the shop has in one zip',
    answers: 'A zip file; its README says what is in it.',
    handle: takeAlong,
  },
  {
    method: 'put',
    path: '/import/:id',
    area: 'shop',
    access: 'anyone',
    alone: true,
    summary: 'Read an export into an empty shop; only while there is no account',
    answers: 'rows: how many each table has.',
    upload: {
      types: ['application/zip', 'application/octet-stream', 'application/x-zip-compressed'],
      limit: EXPORT_LIMIT,
      tooLarge: 'An export may have at most 4 GB.',
      toFile: true,
    },
    query: Joi.object({ code: Joi.string().max(20).label('Code') }),
    before: mayBringAlong,
    handle: bringAlong,
  },
  {
    method: 'get',
    path: '/csv/:list',
    area: 'shop',
    access: 'looker',
    summary: 'A list as CSV: machines, surfaces, kinds, prints, offsets, inspections, people or book',
    answers: 'A CSV file.',
    handle: ({ db, params, now }) => {
      const list = CSV_LISTS.find((known) => known === params['list']) as CsvList | undefined;
      if (!list) throw notFound('This list');
      return Promise.resolve({
        body: Readable.from(csvOf(db, list, now)),
        file: { type: 'text/csv; charset=utf-8', name: `${list}.csv` },
      });
    },
  },
];
