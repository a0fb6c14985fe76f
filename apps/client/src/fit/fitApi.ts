import type { Plan } from '@even-bed/contract';
import { api } from '../api/api';

export const fitApi = api.injectEndpoints({
  endpoints: (build) => ({
    plans: build.query<Plan[], { machineId?: string }>({
      query: ({ machineId }) => `/plans?limit=50${machineId ? `&machineId=${machineId}` : ''}`,
      transformResponse: ({ items }: { items: Plan[] }) => items,
      providesTags: ['Plan'],
    }),
    plan: build.query<Plan, string>({ query: (id) => `/plans/${id}`, providesTags: ['Plan'] }),
    withdrawPlan: build.mutation<unknown, { id: string; key: string; at: number }>({
      query: ({ id, key, at }) => ({
        url: `/plans/${id}/withdraw`,
        method: 'POST',
        headers: { 'Idempotency-Key': key },
        body: { at },
      }),
      invalidatesTags: ['Plan', 'Book'],
    }),
  }),
});

export const { usePlansQuery, usePlanQuery, useWithdrawPlanMutation } = fitApi;
