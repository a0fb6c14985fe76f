import { RECORDS } from '@even-bed/contract/kit/operation';
import {
  createApi,
  fetchBaseQuery,
  type BaseQueryFn,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';

const fetchApi = fetchBaseQuery({ baseUrl: '/api', timeout: 15_000 });

/** How the server is asked. */
export type Ask = BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError>;

/** Asks the server; when it says that nobody is signed in here any more, the device asks where it stands. */
const guarded: Ask = async (args, context, more) => {
  const result = await fetchApi(args, context, more);
  if (result.error?.status === 401 && context.endpoint !== 'signIn')
    context.dispatch(api.util.invalidateTags(['Session']));
  return result;
};

/** The one client of the server. Areas add their endpoints with injectEndpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: guarded,
  tagTypes: RECORDS,
  refetchOnReconnect: true,
  endpoints: () => ({}),
});
