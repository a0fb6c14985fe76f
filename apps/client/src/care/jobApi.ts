import type { Job, JobEntry, ProcedureEntry, ProcedureRecord, ProcedureWrite } from '@even-bed/contract';
import { api } from '../api/api';
import { write, type Keyed } from '../api/write';

export const jobApi = api.injectEndpoints({
  endpoints: (build) => ({
    procedures: build.query<ProcedureEntry[], void>({
      query: () => '/procedures',
      transformResponse: ({ items }: { items: ProcedureEntry[] }) => items,
      providesTags: ['Procedure'],
    }),
    procedure: build.query<ProcedureRecord, string>({
      query: (id) => `/procedures/${id}`,
      providesTags: ['Procedure'],
    }),
    saveProcedure: build.mutation<ProcedureRecord, Keyed<ProcedureWrite>>({
      query: (procedure) => write(`/procedures/${procedure.id}`, procedure),
      invalidatesTags: ['Procedure', 'Book'],
    }),
    jobs: build.query<JobEntry[], { open: boolean; machineId?: string }>({
      query: ({ open, machineId }) => `/jobs?open=${open}${machineId ? `&machineId=${machineId}` : ''}`,
      transformResponse: ({ items }: { items: JobEntry[] }) => items,
      providesTags: ['Job'],
    }),
    job: build.query<Job, string>({ query: (id) => `/jobs/${id}`, providesTags: ['Job'] }),
  }),
});

export const { useProceduresQuery, useProcedureQuery, useSaveProcedureMutation, useJobsQuery, useJobQuery } = jobApi;
