import { jobOperations } from '@even-bed/contract/care/jobOperations';
import { endpointsOf } from '../api/endpoints';

export const jobApi = endpointsOf(jobOperations);

export const {
  useProceduresQuery,
  useProcedureQuery,
  useSaveProcedureMutation,
  useJobsQuery,
  useJobQuery,
  useTaughtQuery,
} = jobApi;
