import type { Page } from '../kit/fields';
import type { Area, Machine, MachineOverview } from './records';
import { operations } from '../kit/operation';

export interface FleetAnswers {
  areas: Page<Area>;
  saveArea: Area;
  machines: Page<MachineOverview>;
  machine: MachineOverview;
  saveMachine: Machine;
}

export const fleetOperations = operations<typeof import('./records'), FleetAnswers>()('fleet', {
  areas: {
    method: 'get',
    path: '/areas',
    access: 'looker',
    summary: 'All areas, in their order',
    answers: 'items: the areas.',
    list: { usual: 200, most: 500 },
    shows: ['Area'],
  },
  saveArea: {
    method: 'put',
    path: '/areas/:id',
    access: 'technician',
    summary: 'Add or change an area',
    answers: 'The area.',
    body: 'areaWriteSchema',
    touches: ['Area', 'Machine', 'Book'],
  },
  machines: {
    method: 'get',
    path: '/machines',
    access: 'looker',
    summary: 'All machines with their rule, last check and check under way',
    answers: 'items: the machines, by area and name.',
    list: { usual: 200, most: 500 },
    shows: ['Machine'],
  },
  machine: {
    method: 'get',
    path: '/machines/:id',
    access: 'looker',
    token: true,
    summary: 'One machine',
    answers: 'The machine with its rule, last check and check under way.',
    shows: ['Machine'],
  },
  saveMachine: {
    method: 'put',
    path: '/machines/:id',
    access: 'technician',
    summary: 'Add a machine (version 0) or change it (the version it was seen with)',
    answers: 'The machine.',
    body: 'machineWriteSchema',
    touches: ['Machine', 'Book'],
    refuses: [422],
  },
});
