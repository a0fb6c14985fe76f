import type { BookCheck, BookEntry, BookKind, CorrectionWrite, Page } from '@even-bed/contract';
import { api } from '../api/api';
import { write } from '../api/write';

export interface BookSearch {
  search: string;
  machineId: string | null;
  surfaceId: string | null;
  personId: string | null;
  kind: BookKind | null;
  from: number | null;
  to: number | null;
}

export const bookApi = api.injectEndpoints({
  endpoints: (build) => ({
    book: build.infiniteQuery<Page<BookEntry>, Partial<BookSearch>, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next ?? undefined },
      query: ({ queryArg, pageParam }) => {
        const params = new URLSearchParams({ limit: '40' });
        for (const [name, value] of Object.entries(queryArg)) if (value) params.set(name, String(value));
        if (pageParam) params.set('before', pageParam);
        return `/book?${params.toString()}`;
      },
      providesTags: ['Book'],
    }),
    entry: build.query<BookEntry, string>({ query: (id) => `/book/${id}`, providesTags: ['Book'] }),
    correct: build.mutation<unknown, { key: string; body: CorrectionWrite }>({
      query: (correction) => write('/book/corrections', correction, 'POST'),
      invalidatesTags: ['Book'],
    }),
    checkBook: build.mutation<BookCheck, void>({ query: () => '/book/check' }),
  }),
});

export const { useBookInfiniteQuery, useEntryQuery, useCorrectMutation, useCheckBookMutation } = bookApi;
