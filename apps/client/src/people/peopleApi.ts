import type {
  FirstPerson,
  MachineToken,
  OwnSecret,
  Person,
  PersonWrite,
  SessionInfo,
  SessionState,
  SettingsWrite,
  ShopSettings,
  SignIn,
  TokenWrite,
} from '@even-bed/contract';
import { api } from '../api/api';
import { write, type Keyed } from '../api/write';

const items = <T>({ items: list }: { items: T[] }) => list;
const post = (url: string, body: unknown = {}) => ({ url, method: 'POST', body });

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<SessionState, void>({ query: () => '/session', providesTags: ['Session'] }),
    signIn: build.mutation<SessionState, SignIn>({ query: (body) => post('/session', body) }),
    makeFirstPerson: build.mutation<SessionState, FirstPerson>({ query: (body) => post('/people/first', body) }),
    importShop: build.mutation<unknown, { id: string; file: Blob; code: string }>({
      query: ({ id, file, code }) => ({
        url: `/import/${id}?code=${encodeURIComponent(code)}`,
        method: 'PUT',
        headers: { 'Content-Type': 'application/zip', 'Idempotency-Key': id },
        body: file,
        timeout: 600_000,
      }),
      invalidatesTags: ['Session'],
    }),
    lock: build.mutation<unknown, void>({ query: () => post('/session/lock'), invalidatesTags: ['Session'] }),
    signOut: build.mutation<unknown, void>({ query: () => post('/session/end'), invalidatesTags: ['Session'] }),
    changeSecret: build.mutation<unknown, OwnSecret>({ query: (body) => post('/session/secret', body) }),
    sessions: build.query<SessionInfo[], void>({
      query: () => '/sessions',
      transformResponse: items<SessionInfo>,
      providesTags: ['Session'],
    }),
    endSession: build.mutation<unknown, string>({
      query: (id) => post(`/sessions/${id}/end`),
      invalidatesTags: ['Session'],
    }),
    people: build.query<Person[], void>({
      query: () => '/people',
      transformResponse: items<Person>,
      providesTags: ['Person'],
    }),
    savePerson: build.mutation<Person, Keyed<PersonWrite>>({
      query: (person) => write(`/people/${person.id}`, person),
      invalidatesTags: ['Person', 'Book', 'Session'],
    }),
    unlockPerson: build.mutation<unknown, string>({
      query: (id) => post(`/people/${id}/unlock`),
      invalidatesTags: ['Person'],
    }),
    lastBackup: build.query<{ at: number | null }, void>({ query: () => '/backups/last', providesTags: ['Session'] }),
    settings: build.query<ShopSettings, void>({ query: () => '/settings', providesTags: ['Settings'] }),
    saveSettings: build.mutation<ShopSettings, { key: string; body: SettingsWrite }>({
      query: (settings) => write('/settings', settings),
      invalidatesTags: ['Settings', 'Session', 'Book'],
    }),
    tokens: build.query<MachineToken[], string>({
      query: (machineId) => `/machines/${machineId}/tokens`,
      transformResponse: items<MachineToken>,
      providesTags: ['Token'],
    }),
    makeToken: build.mutation<MachineToken & { token: string }, Keyed<TokenWrite> & { machineId: string }>({
      query: (token) => write(`/machines/${token.machineId}/tokens/${token.id}`, token),
      invalidatesTags: ['Token', 'Book'],
    }),
    revokeToken: build.mutation<unknown, string>({
      query: (id) => post(`/tokens/${id}/revoke`),
      invalidatesTags: ['Token', 'Book'],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useMakeFirstPersonMutation,
  useImportShopMutation,
  useLockMutation,
  useSignOutMutation,
  useChangeSecretMutation,
  useSessionsQuery,
  useEndSessionMutation,
  usePeopleQuery,
  useSavePersonMutation,
  useUnlockPersonMutation,
  useLastBackupQuery,
  useSettingsQuery,
  useSaveSettingsMutation,
  useTokensQuery,
  useMakeTokenMutation,
  useRevokeTokenMutation,
} = peopleApi;
