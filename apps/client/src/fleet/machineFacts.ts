import type { MachineFacts, MachineOverview } from '@even-bed/contract';

/** What the server adds to the facts; the compiler names any that is missing here. */
const ADDED: Record<Exclude<keyof MachineOverview, keyof MachineFacts>, true> = {
  id: true,
  version: true,
  createdAt: true,
  updatedAt: true,
  areaName: true,
  rule: true,
  lastCheck: true,
  openCheckId: true,
  heldUntil: true,
  top: true,
  stands: true,
  readiness: true,
};

/** A machine as its facts alone: what a person says of it, without what the server adds. */
export function machineFacts(machine: MachineOverview): MachineFacts {
  return Object.fromEntries(Object.entries(machine).filter(([name]) => !(name in ADDED))) as unknown as MachineFacts;
}
