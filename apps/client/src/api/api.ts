import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** The one client of the server. Areas add their endpoints with injectEndpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api', timeout: 15_000 }),
  tagTypes: ['Machine', 'Area', 'Check', 'Book'],
  refetchOnReconnect: true,
  endpoints: () => ({}),
});
