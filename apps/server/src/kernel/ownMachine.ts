import { Problem } from './problem';
import type { Call } from './route';

/** A machine's token counts for that machine alone. */
export function refuseOtherMachine({ tokenMachineId }: Pick<Call, 'tokenMachineId'>, machineId: string): void {
  if (tokenMachineId !== null && tokenMachineId !== machineId)
    throw new Problem(403, 'other-machine', 'This token belongs to another machine.');
}
