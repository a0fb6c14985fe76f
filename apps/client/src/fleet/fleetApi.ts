import { fleetOperations } from '@even-bed/contract/fleet/operations';
import { endpointsOf } from '../api/endpoints';

export const fleetApi = endpointsOf(fleetOperations);

export const {
  useAreasQuery,
  useMachinesQuery,
  useMachineQuery,
  useLazyMachineQuery,
  useSaveAreaMutation,
  useSaveMachineMutation,
} = fleetApi;
