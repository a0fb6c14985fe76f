import { wearOperations } from '@even-bed/contract/wear/operations';
import { endpointsOf } from '../api/endpoints';

export const wearApi = endpointsOf(wearOperations);

export const {
  usePrintsPagesInfiniteQuery,
  usePrintsQuery,
  usePrintQuery,
  useWithdrawPrintMutation,
  useAddPrintsMutation,
  usePrintListsQuery,
  usePrintListQuery,
  useSendListMutation,
  usePreviewListMutation,
  useTakeListMutation,
  useFixLineMutation,
  useDropListMutation,
} = wearApi;
