import type { LevelCheck, LevelCheckSummary, Page, Scan } from '@even-bed/contract';
import { api } from '../api/api';

export const levelApi = api.injectEndpoints({
  endpoints: (build) => ({
    check: build.query<LevelCheck, string>({
      query: (id) => `/level-checks/${id}`,
      providesTags: ['Check'],
    }),
    machineChecks: build.query<Page<LevelCheckSummary>, { machineId: string; limit: number }>({
      query: ({ machineId, limit }) => `/level-checks?machineId=${machineId}&state=ended&limit=${limit}`,
      providesTags: ['Check'],
    }),
    openChecks: build.query<LevelCheckSummary[], void>({
      query: () => '/level-checks?state=open&limit=100',
      transformResponse: ({ items }: Page<LevelCheckSummary>) => items,
      providesTags: ['Check'],
    }),
    startScan: build.mutation<Scan, { machineId: string; scanId: string }>({
      query: ({ machineId, scanId }) => ({ url: `/machines/${machineId}/scans/${scanId}`, method: 'PUT', body: {} }),
    }),
    stopScan: build.mutation<Scan, string>({
      query: (id) => ({ url: `/scans/${id}/stop`, method: 'POST', body: {} }),
    }),
  }),
});

export const { useCheckQuery, useMachineChecksQuery, useOpenChecksQuery, useStartScanMutation, useStopScanMutation } =
  levelApi;
