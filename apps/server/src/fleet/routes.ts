import { fleetOperations } from '@even-bed/contract/fleet/operations';
import * as schemas from '@even-bed/contract/fleet/records';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { pageOf } from '../kernel/page';
import { notFound } from '../kernel/problem';
import { routesOf } from '../kernel/route';
import { listAreas, listMachines, saveArea, saveMachine } from './store';

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
  saveMachine: async ({ db, params, body }) => ({ body: await saveMachine(db, params.id, body) }),
});
