import type { MachineOverview } from '@even-bed/contract';
import { isSilent, type Known } from '../api/known';
import { useMachineQuery, useMachinesQuery } from './fleetApi';

/** A machine by its id; where the server doesn't answer, as the list has it. */
export function useKnownMachine(id: string): Known<MachineOverview> {
  const { data, error, refetch } = useMachineQuery({ id });
  const { data: all } = useMachinesQuery(undefined, { skip: data !== undefined || !isSilent(error) });
  return { data: data ?? all?.find((one) => one.id === id), error, refetch };
}
