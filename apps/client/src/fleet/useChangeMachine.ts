import type { MachineFacts } from '@even-bed/contract';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachineQuery, useSaveMachineMutation } from './fleetApi';
import { machineFacts } from './machineFacts';

/** Changes some facts of a machine on the spot. `change` gives what went wrong in words, or null. */
export function useChangeMachine(machineId: string) {
  const { data: machine } = useMachineQuery({ id: machineId });
  const [save, { isLoading: busy }] = useSaveMachineMutation();
  async function change(facts: Partial<MachineFacts>): Promise<string | null> {
    if (!machine) return 'The machine’s facts are not here yet; try again when the server answers.';
    const body = { ...machineFacts(machine), ...facts, version: machine.version, at: Date.now() };
    const result = await save({ id: machine.id, key: uuid(), body });
    return errorOf(result.error)?.message ?? null;
  }
  return { machine, change, busy };
}
