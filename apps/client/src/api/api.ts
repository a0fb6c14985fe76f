import { firstOrFetch } from './firstAnswers';
import { viewIsOld, viewsAreNew, type ConnectionState } from './connectionSlice';
import { RECORDS } from '@even-bed/contract/kit/operation';
import {
  createApi,
  fetchBaseQuery,
  type BaseQueryFn,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';

const fetchApi = fetchBaseQuery({ baseUrl: '/api', timeout: 15_000, fetchFn: firstOrFetch });

/** How the server is asked. */
export type Ask = BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError>;

/** Set by the service worker on what it had kept: when it came. */
export const KEPT_SINCE = 'X-Kept-Since';

/** When the server answered last on this page. */
let answeredAt = Date.now();

/** Since when an answer is old: it was kept on this device, or there is none. Null: the server gave it now. */
function oldSince({ error, meta }: Awaited<ReturnType<typeof fetchApi>>): number | null {
  const kept = meta?.response?.headers.get(KEPT_SINCE);
  if (kept) return Number(kept);
  const silent = error && (typeof error.status !== 'number' || [502, 503, 504].includes(error.status));
  return silent && error.status !== 'PARSING_ERROR' ? answeredAt : null;
}

/**
 * Asks the server. When it says that nobody is signed in here any more, the device asks where it stands; when it doesn't
 * answer, the page knows since when what it shows is old, and when it answers again, everything is fetched anew.
 */
const guarded: Ask = async (args, context, more) => {
  const result = await fetchApi(args, context, more);
  if (result.error?.status === 401 && context.endpoint !== 'signIn')
    context.dispatch(api.util.invalidateTags(['Session']));
  const since = oldSince(result);
  if (since !== null) {
    context.dispatch(viewIsOld(since));
    return result;
  }
  answeredAt = Date.now();
  if ((context.getState() as { connection: ConnectionState }).connection.oldSince !== null) {
    context.dispatch(viewsAreNew());
    context.dispatch(api.util.invalidateTags([...RECORDS]));
  }
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
