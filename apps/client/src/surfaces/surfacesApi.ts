import { surfaceOperations } from '@even-bed/contract/surfaces/operations';
import { endpointsOf } from '../api/endpoints';

export const surfacesApi = endpointsOf(surfaceOperations);

export const {
  useKindsQuery,
  useSaveKindMutation,
  useSurfacesPagesInfiniteQuery,
  useSurfacesQuery,
  useSurfaceQuery,
  usePlacesQuery,
  useSaveSurfaceMutation,
  useSurfaceEventMutation,
  useRetireSurfaceMutation,
  useBringSurfaceBackMutation,
  useMoveManyMutation,
  useStackQuery,
  useSaveStackMutation,
  useMountCheckQuery,
  useMountMutation,
  useOffsetsQuery,
  useOffsetPredictionQuery,
  useWithdrawOffsetMutation,
  useTagQuery,
} = surfacesApi;
