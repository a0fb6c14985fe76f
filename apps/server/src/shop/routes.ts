import { shopOperations } from '@even-bed/contract/shop/operations';
import * as schemas from '@even-bed/contract/shop/records';
import { CSV_LISTS, type ImportAsk } from '@even-bed/contract';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { v7 as uuid } from 'uuid';
import { notFound, Problem } from '../kernel/problem';
import { routesOf, type Answer, type AnswerOf, type BeforeCall, type CallOf } from '../kernel/route';
import { countPeople } from '../people/store';
import { exportShop } from './exportShop';
import { importShop } from './importShop';
import { csvOf } from './lists';

async function takeAlong({ db, photoFolder, now }: CallOf<typeof shopOperations.exportShop>): Promise<Answer> {
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

async function mayBringAlong({ db, firstCode, who, query }: BeforeCall<ImportAsk>): Promise<void> {
  if ((await countPeople(db)) > 0)
    throw new Problem(409, 'not-empty', 'This shop is not empty. An export is read into an empty one.');
  if (!firstCode.is(query.code, who))
    throw new Problem(403, 'wrong-code', 'This is not the code that stands on the server’s terminal.');
  if (importing) throw new Problem(429, 'busy', 'An export is being read in already. Wait for it.');
}

async function bringAlong({
  db,
  photoFolder,
  uploadFile,
}: CallOf<typeof shopOperations.importShop>): Promise<AnswerOf<typeof shopOperations.importShop>> {
  if (importing) throw new Problem(429, 'busy', 'An export is being read in already. Wait for it.');
  importing = true;
  try {
    return { body: { rows: await importShop(db, { file: uploadFile!, photoFolder }) } };
  } finally {
    importing = false;
  }
}

export const shopRoutes = routesOf(shopOperations, schemas, {
  reach: ({ reach }) => Promise.resolve({ body: reach() }),
  lastBackup: ({ lastBackup, damage }) => Promise.resolve({ body: { at: lastBackup(), damage: damage() } }),
  exportShop: takeAlong,
  importShop: {
    before: mayBringAlong,
    handle: bringAlong,
  },
  listAsCsv: ({ db, params, now }) => {
    const list = CSV_LISTS.find((known) => known === params.list);
    if (!list) throw notFound('This list');
    return Promise.resolve({
      body: Readable.from(csvOf(db, list, now)),
      file: { type: 'text/csv; charset=utf-8', name: `${list}.csv` },
    });
  },
});
