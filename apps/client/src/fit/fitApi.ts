import type { Plan } from '@even-bed/contract';
import { api } from '../api/api';
import { write, type Keyed } from '../api/write';

export const fitApi = api.injectEndpoints({
  endpoints: (build) => ({
    plans: build.query<Plan[], { machineId?: string }>({
      query: ({ machineId }) => `/plans?limit=50${machineId ? `&machineId=${machineId}` : ''}`,
      transformResponse: ({ items }: { items: Plan[] }) => items,
      providesTags: ['Plan'],
    }),
    plan: build.query<Plan, string>({ query: (id) => `/plans/${id}`, providesTags: ['Plan'] }),
    withdrawPlan: build.mutation<unknown, Keyed<{ at: number }>>({
      query: ({ id, ...body }) => write(`/plans/${id}/withdraw`, body, 'POST'),
      invalidatesTags: ['Plan', 'Book'],
    }),
  }),
});

export const { usePlansQuery, usePlanQuery, useWithdrawPlanMutation } = fitApi;
