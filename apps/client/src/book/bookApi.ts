import type { BookEntry, BookKind, Page } from '@even-bed/contract';
import { api } from '../api/api';

export interface BookSearch {
  search: string;
  machineId: string | null;
  kind: BookKind | null;
}

export const bookApi = api.injectEndpoints({
  endpoints: (build) => ({
    book: build.infiniteQuery<Page<BookEntry>, BookSearch, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next ?? undefined },
      query: ({ queryArg: { search, machineId, kind }, pageParam }) => {
        const params = new URLSearchParams({ limit: '40' });
        if (search) params.set('search', search);
        if (machineId) params.set('machineId', machineId);
        if (kind) params.set('kind', kind);
        if (pageParam) params.set('before', pageParam);
        return `/book?${params.toString()}`;
      },
      providesTags: ['Book'],
    }),
  }),
});

export const { useBookInfiniteQuery } = bookApi;
