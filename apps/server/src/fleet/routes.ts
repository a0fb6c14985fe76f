import { isDeepStrictEqual } from 'node:util';
import type { MachineWrite, Person } from '@even-bed/contract';
import { fleetOperations } from '@even-bed/contract/fleet/operations';
import * as schemas from '@even-bed/contract/fleet/records';
import type { Knex } from 'knex';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { pageOf } from '../kernel/page';
import { notFound, Problem } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { findMachine, listAreas, listMachines, saveArea, saveMachine } from './store';

export const fleetRoutes = routesOf(fleetOperations, schemas, {
  areas: async ({ db, query }) => ({ body: pageOf(await listAreas(db), query, ({ id }) => id) }),
  saveArea: async ({ db, params, body }) => ({ body: await saveArea(db, params.id, body) }),
  machines: async ({ db, query, now }) => ({ body: pageOf(await listMachines(db, now), query, ({ id }) => id) }),
  machine: async (call) => {
    const { db, params, now } = call;
    refuseOtherMachine(call, params.id);
    const [machine] = await listMachines(db, now, params.id);
    if (!machine) throw notFound('This machine');
    return { body: machine };
  },
  saveMachine: async ({ db, params, body, person }) => {
    await refuseConsole(db, params.id, body, person);
    return { body: await saveMachine(db, params.id, body) };
  },
});

/** Where the server calls, and with what, is a lead's to say: others change everything else. @throws Problem 403, at the field */
async function refuseConsole(
  db: Knex,
  id: string,
  { console: next }: MachineWrite,
  person: Person | null,
): Promise<void> {
  if (person?.role === 'lead') return;
  const now = (await findMachine(db, id))?.console ?? null;
  if (isDeepStrictEqual(now, next)) return;
  const message = 'Only a lead says where a machine’s console is and what is sent to it.';
  throw new Problem(403, 'not-allowed', message, { fields: { console: message } });
}
