import type { Area, AreaWrite, Machine, MachineOverview, MachineWrite, Rule, RuleWrite } from '@even-bed/contract';
import { api } from '../api/api';

/** A write with its client-made id and key. */
interface Keyed<T> {
  id: string;
  key: string;
  body: T;
}

const put = <T>(path: string, { key, body }: Keyed<T>) => ({
  url: path,
  method: 'PUT',
  headers: { 'Idempotency-Key': key },
  body: body as unknown,
});

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
      query: (write) => put(`/areas/${write.id}`, write),
      invalidatesTags: ['Area', 'Machine', 'Book'],
    }),
    saveMachine: build.mutation<Machine, Keyed<MachineWrite>>({
      query: (write) => put(`/machines/${write.id}`, write),
      invalidatesTags: ['Machine', 'Book'],
    }),
    saveRule: build.mutation<Rule, Keyed<RuleWrite>>({
      query: (write) => put(`/rules/${write.id}`, write),
      invalidatesTags: ['Machine', 'Book'],
    }),
  }),
});

export const {
  useAreasQuery,
  useMachinesQuery,
  useMachineQuery,
  useSaveAreaMutation,
  useSaveMachineMutation,
  useSaveRuleMutation,
} = fleetApi;
