import type {
  KeptOffset,
  KindWrite,
  MachineStack,
  MountAnswer,
  MountWrite,
  MoveMany,
  OffsetAnswer,
  Page,
  StackWrite,
  Surface,
  SurfaceKind,
  SurfaceWrite,
} from '@even-bed/contract';
import type { QuarterTurn, Side, SurfaceCondition, SurfaceEvent, SurfaceGroup } from '@even-bed/core';
import { api } from '../api/api';
import { write, type Keyed } from '../api/write';

export interface RackSearch {
  search: string;
  group: SurfaceGroup | null;
  state: SurfaceCondition | null;
  place: string | null;
}

const items = <T>({ items: list }: { items: T[] }) => list;
const query = (values: object) => {
  const params = new URLSearchParams();
  for (const [name, value] of Object.entries(values)) if (value) params.set(name, String(value));
  return params.toString();
};
/** What a change of a surface makes old: itself, the machines and stacks that it lies in, and the book. */
const MOVED = ['Surface', 'Stack', 'Machine', 'Book'] as const;

export const surfacesApi = api.injectEndpoints({
  endpoints: (build) => ({
    kinds: build.query<SurfaceKind[], void>({
      query: () => '/surface-kinds',
      transformResponse: items<SurfaceKind>,
      providesTags: ['Kind'],
    }),
    saveKind: build.mutation<SurfaceKind, Keyed<KindWrite>>({
      query: (kind) => write(`/surface-kinds/${kind.id}`, kind),
      invalidatesTags: ['Kind', 'Surface', 'Stack', 'Book'],
    }),
    rack: build.infiniteQuery<Page<Surface>, Partial<RackSearch>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next ?? undefined },
      query: ({ queryArg, pageParam }) => `/surfaces?${query({ ...queryArg, limit: 100, after: pageParam })}`,
      providesTags: ['Surface'],
    }),
    /** The first few that match: for choosing one, and for holds on the bench. */
    findSurfaces: build.query<Surface[], Partial<RackSearch> & { fits?: string | undefined; limit: number }>({
      query: (search) => `/surfaces?${query(search)}`,
      transformResponse: items<Surface>,
      providesTags: ['Surface'],
    }),
    surface: build.query<Surface, string>({ query: (id) => `/surfaces/${id}`, providesTags: ['Surface'] }),
    places: build.query<string[], void>({
      query: () => '/places',
      transformResponse: items<string>,
      providesTags: ['Surface'],
    }),
    saveSurface: build.mutation<Surface, Keyed<SurfaceWrite>>({
      query: (surface) => write(`/surfaces/${surface.id}`, surface),
      invalidatesTags: [...MOVED],
    }),
    surfaceEvent: build.mutation<Surface, { id: string; key: string; event: SurfaceEvent }>({
      query: ({ id, key, event }) => {
        const way = event.kind === 'retired' ? 'retire' : event.kind === 'brought-back' ? 'bring-back' : 'events';
        return write(`/surfaces/${id}/${way}`, { key, body: event }, 'POST');
      },
      invalidatesTags: [...MOVED],
    }),
    moveMany: build.mutation<{ moved: number }, { key: string; body: MoveMany }>({
      query: (move) => write('/surfaces/move', move, 'POST'),
      invalidatesTags: [...MOVED],
    }),
    stack: build.query<MachineStack, string>({ query: (id) => `/machines/${id}/stack`, providesTags: ['Stack'] }),
    saveStack: build.mutation<MachineStack, Keyed<StackWrite>>({
      query: (stack) => write(`/machines/${stack.id}/stack`, stack),
      invalidatesTags: ['Stack', 'Book'],
    }),
    mountCheck: build.query<MountAnswer, { machineId: string; surfaceId: string; sideUp: Side; turned: QuarterTurn }>({
      query: ({ machineId, surfaceId, sideUp, turned }) =>
        `/machines/${machineId}/mount-check?surfaceId=${surfaceId}&sideUp=${sideUp}&turned=${turned}`,
      providesTags: ['Surface', 'Stack'],
    }),
    mount: build.mutation<MachineStack, { machineId: string; key: string; body: MountWrite }>({
      query: ({ machineId, ...mount }) => write(`/machines/${machineId}/mount`, mount, 'POST'),
      invalidatesTags: [...MOVED],
    }),
    offsets: build.query<KeptOffset[], { machineId?: string; surfaceId?: string }>({
      query: (of) => `/offsets?${query(of)}`,
      transformResponse: items<KeptOffset>,
      providesTags: ['Offset'],
    }),
    offsetPrediction: build.query<OffsetAnswer, { machineId: string; surfaceId: string }>({
      query: (pair) => `/offset-prediction?${query(pair)}`,
      providesTags: ['Offset'],
    }),
    withdrawOffset: build.mutation<unknown, string>({
      query: (id) => ({ url: `/offsets/${id}/withdraw`, method: 'POST', body: {} }),
      invalidatesTags: ['Offset', 'Book'],
    }),
    tag: build.query<{ kind: 'surface' | 'machine'; id: string }, string>({
      query: (tag) => `/tags/${encodeURIComponent(tag)}`,
    }),
  }),
});

export const {
  useKindsQuery,
  useSaveKindMutation,
  useRackInfiniteQuery,
  useFindSurfacesQuery,
  useSurfaceQuery,
  usePlacesQuery,
  useSaveSurfaceMutation,
  useSurfaceEventMutation,
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
