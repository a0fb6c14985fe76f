import type { MachineFacts, MachineOverview } from '@even-bed/contract';

/** A machine as its facts alone: what a person says of it, without what the server adds. */
export function machineFacts(machine: MachineOverview): MachineFacts {
  const { id, version, createdAt, updatedAt, areaName, rule, lastCheck, openCheckId, heldUntil, ...facts } = machine;
  return facts;
}
