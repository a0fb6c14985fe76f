import type { Area, AreaWrite, Machine, MachineOverview, MachineWrite, Rule, RuleWrite } from '@even-bed/contract';
import { api } from '../api/api';
import { write, type Keyed } from '../api/write';

export const fleetApi = api.injectEndpoints({
  endpoints: (build) => ({
    areas: build.query<Area[], void>({
      query: () => '/areas',
      transformResponse: ({ items }: { items: Area[] }) => items,
      providesTags: ['Area'],
    }),
    machines: build.query<MachineOverview[], void>({
      query: () => '/machines',
      transformResponse: ({ items }: { items: MachineOverview[] }) => items,
      providesTags: ['Machine'],
    }),
    machine: build.query<MachineOverview, string>({
      query: (id) => `/machines/${id}`,
      providesTags: ['Machine'],
    }),
    saveArea: build.mutation<Area, Keyed<AreaWrite>>({
      query: (area) => write(`/areas/${area.id}`, area),
      invalidatesTags: ['Area', 'Machine', 'Book'],
    }),
    saveMachine: build.mutation<Machine, Keyed<MachineWrite>>({
      query: (machine) => write(`/machines/${machine.id}`, machine),
      invalidatesTags: ['Machine', 'Book'],
    }),
    saveRule: build.mutation<Rule, Keyed<RuleWrite>>({
      query: (rule) => write(`/rules/${rule.id}`, rule),
      invalidatesTags: ['Machine', 'Book'],
    }),
  }),
});

export const {
  useAreasQuery,
  useMachinesQuery,
  useMachineQuery,
  useLazyMachineQuery,
  useSaveAreaMutation,
  useSaveMachineMutation,
  useSaveRuleMutation,
} = fleetApi;
