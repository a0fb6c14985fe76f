import type { ListPreview, ListTake, ListTaken, Page, Print, PrintList, PrintsWrite } from '@even-bed/contract';
import type { ColumnMatch } from '@even-bed/core';
import { api } from '../api/api';
import { write } from '../api/write';

export interface PrintSearch {
  machineId?: string;
  surfaceId?: string;
  held?: 'true' | 'false' | null;
  search?: string;
}

export const wearApi = api.injectEndpoints({
  endpoints: (build) => ({
    prints: build.infiniteQuery<Page<Print>, PrintSearch, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (last) => last.next ?? undefined },
      query: ({ queryArg, pageParam }) => {
        const params = new URLSearchParams({ limit: '20' });
        for (const [name, value] of Object.entries(queryArg)) if (value) params.set(name, value as string);
        if (pageParam) params.set('after', pageParam);
        return `/prints?${params.toString()}`;
      },
      providesTags: ['Print'],
    }),
    withdrawPrint: build.mutation<Print, string>({
      query: (id) => ({ url: `/prints/${id}/withdraw`, method: 'POST', body: {} }),
      invalidatesTags: ['Print', 'Surface', 'Book'],
    }),
    addPrints: build.mutation<{ added: number }, { key: string; body: PrintsWrite }>({
      query: (prints) => write('/prints', prints, 'POST'),
      invalidatesTags: ['Print', 'Surface', 'Book'],
    }),
    printLists: build.query<PrintList[], void>({
      query: () => '/print-lists',
      transformResponse: ({ items }: { items: PrintList[] }) => items,
      providesTags: ['List'],
    }),
    printList: build.query<PrintList, string>({ query: (id) => `/print-lists/${id}`, providesTags: ['List'] }),
    sendList: build.mutation<PrintList, { id: string; file: Blob; name: string }>({
      query: ({ id, file, name }) => ({
        url: `/print-lists/${id}?name=${encodeURIComponent(name.slice(0, 120))}`,
        method: 'PUT',
        headers: { 'Content-Type': 'text/csv', 'Idempotency-Key': id },
        body: file,
      }),
      invalidatesTags: ['List'],
    }),
    previewList: build.mutation<ListPreview, { id: string; match: ColumnMatch }>({
      query: ({ id, match }) => ({ url: `/print-lists/${id}/preview`, method: 'POST', body: { match } }),
    }),
    takeList: build.mutation<ListTaken, { id: string } & ListTake>({
      query: ({ id, ...body }) => ({ url: `/print-lists/${id}/take`, method: 'POST', body }),
    }),
    fixLine: build.mutation<unknown, { id: string; line: number; cells: string[] }>({
      query: ({ id, line, cells }) => ({ url: `/print-lists/${id}/lines/${line}`, method: 'PUT', body: { cells } }),
    }),
    dropList: build.mutation<unknown, string>({
      query: (id) => ({ url: `/print-lists/${id}/drop`, method: 'POST', body: {} }),
      invalidatesTags: ['List'],
    }),
  }),
});

export const {
  usePrintsInfiniteQuery,
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
