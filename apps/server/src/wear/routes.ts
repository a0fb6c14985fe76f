import { wearOperations } from '@even-bed/contract/wear/operations';
import * as schemas from '@even-bed/contract/wear/records';
import { csv } from '../kernel/csv';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { heavy } from '../kernel/heavy';
import { pageOf } from '../kernel/page';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { badLines, dropList, fixLine, keepList, openLists, previewList, readList, takePart } from './lists';
import { READ_CSV, type CsvFile } from './readCsv';
import { addPrints, describePrint, findPrint, listPrints, logPrint, withdrawPrint } from './store';

export const wearRoutes = routesOf(wearOperations, schemas, {
  prints: async ({ db, query }) => ({ body: await listPrints(db, query) }),
  print: async ({ db, params }) => {
    const print = await findPrint(db, params.id);
    if (!print) throw notFound('This print');
    return { body: print };
  },
  logPrint: async (call) => {
    const facts = call.body;
    refuseOtherMachine(call, facts.machineId);
    const source = call.tokenMachineId === null ? 'tap' : 'machine';
    return { body: await logPrint(call.db, { ...facts, id: call.params.id }, { source, now: call.now }) };
  },
  describePrint: async ({ db, params, body }) => ({ body: await describePrint(db, params.id, body) }),
  addPrints: async ({ db, body, now }) => ({
    body: { added: await addPrints(db, body.prints, { source: 'grid', list: null, now }) },
  }),
  withdrawPrint: async ({ db, params, now }) => ({ body: await withdrawPrint(db, params.id, now) }),
  printLists: async ({ db, query }) => ({ body: pageOf(await openLists(db), query, ({ id }) => id) }),
  sendList: {
    prepare: ({ upload, who, signal }) => heavy(READ_CSV, upload!, { who, signal }),
    handle: async ({ db, params, query, prepared, now }) => {
      return { body: await keepList(db, params.id, { name: query.name, file: prepared as CsvFile, at: now }) };
    },
  },
  printList: async ({ db, params }) => ({ body: await readList(db, params.id) }),
  previewList: async ({ db, params, body, now }) => ({
    body: await previewList(db, params.id, { match: body.match, now }),
  }),
  takeList: async ({ db, params, body, now }) => ({ body: await takePart(db, params.id, body, now) }),
  fixLine: async ({ db, params, body }) => {
    await fixLine(db, params.id, Number(params.line), body.cells);
    return { body: { fixed: true } };
  },
  dropList: async ({ db, params }) => {
    await dropList(db, params.id);
    return { body: { dropped: true } };
  },
  badLines: async ({ db, params, now }) => ({
    body: csv(await badLines(db, params.id, now)),
    file: { type: 'text/csv; charset=utf-8', name: 'lines-to-put-right.csv' },
  }),
});
