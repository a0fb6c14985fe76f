import { areaWriteSchema, machineWriteSchema, type AreaWrite, type MachineWrite } from '@even-bed/contract';
import { refuseOtherMachine } from '../kernel/ownMachine';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';
import { listAreas, listMachines, saveArea, saveMachine } from './store';

export const fleetRoutes: Route[] = [
  {
    method: 'get',
    path: '/areas',
    area: 'fleet',
    access: 'looker',
    summary: 'All areas, in their order',
    answers: 'items: the areas.',
    handle: async ({ db }) => ({ body: { items: await listAreas(db) } }),
  },
  {
    method: 'put',
    path: '/areas/:id',
    area: 'fleet',
    access: 'technician',
    summary: 'Add or change an area',
    answers: 'The area.',
    body: areaWriteSchema,
    handle: async ({ db, params, body }) => ({ body: await saveArea(db, params['id']!, body as AreaWrite) }),
  },
  {
    method: 'get',
    path: '/machines',
    area: 'fleet',
    access: 'looker',
    summary: 'All machines with their rule, last check and check under way',
    answers: 'items: the machines, by area and name.',
    handle: async ({ db }) => ({ body: { items: await listMachines(db) } }),
  },
  {
    method: 'get',
    path: '/machines/:id',
    area: 'fleet',
    access: 'looker',
    summary: 'One machine',
    answers: 'The machine with its rule, last check and check under way.',
    token: true,
    handle: async (call) => {
      const { db, params } = call;
      refuseOtherMachine(call, params['id']!);
      const [machine] = await listMachines(db, params['id']!);
      if (!machine) throw notFound('This machine');
      return { body: machine };
    },
  },
  {
    method: 'put',
    path: '/machines/:id',
    area: 'fleet',
    access: 'technician',
    summary: 'Add a machine (version 0) or change it (the version it was seen with)',
    answers: 'The machine.',
    body: machineWriteSchema,
    handle: async ({ db, params, body }) => ({ body: await saveMachine(db, params['id']!, body as MachineWrite) }),
  },
];
