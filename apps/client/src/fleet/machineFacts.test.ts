import type { MachineOverview } from '@even-bed/contract';
import { machineFacts } from './machineFacts';

test('what the server adds to a machine is left out, and every fact stays', () => {
  const added = { id: 'm', version: 3, createdAt: 1, updatedAt: 2, areaName: 'A', rule: null, lastCheck: null };
  const seen = { openCheckId: null, heldUntil: null, top: { tag: 'S-001', sideUp: 'A' } };
  const facts = { name: 'Dunlin', mapFirstRow: 'rear', aim: null };
  expect(machineFacts({ ...facts, ...added, ...seen } as unknown as MachineOverview)).toEqual(facts);
});
