import type { Operation, Page, PageAsk, RecordKind, TakesFile } from '@even-bed/contract';
import { pathOf } from '@even-bed/contract/kit/operation';
import type {
  EndpointBuilder,
  EndpointDefinitions,
  FetchArgs,
  InfiniteQueryDefinition,
  MutationDefinition,
  QueryDefinition,
} from '@reduxjs/toolkit/query/react';
import { v7 as uuid } from 'uuid';
import { api, type Ask } from './api';

type Types<Op> =
  Op extends Operation<infer Answer, infer Param, infer Query, infer Body>
    ? { answer: Answer; param: Param; query: Query; body: Body }
    : never;

/** Nothing to say is nothing to write. */
type OrVoid<T> = [keyof T] extends [never] ? void : Record<string, never> extends T ? T | void : T;

type ParamArg<Op> = { [Name in Types<Op>['param']]: string | number };
type QueryArg<Op> = unknown extends Types<Op>['query'] ? unknown : Partial<OrNull<Omit<Types<Op>['query'], 'after'>>>;
/** What is null is not asked. */
type OrNull<T> = { [Key in keyof T]: T[Key] | null };

/** What a read is asked: what its path names, and what may be in its query. */
export type ReadArg<Op> = OrVoid<ParamArg<Op> & QueryArg<Op>>;

/** What a write is given: what its path names, its body or its file, and a key when it may be sent twice. */
export type WriteArg<Op> = OrVoid<
  ParamArg<Op> & { key?: string } & (Op extends { takes: TakesFile }
      ? { file: Blob } & QueryArg<Op>
      : Types<Op>['body'] extends undefined
        ? unknown
        : { body: Types<Op>['body'] })
>;

/** A list comes whole, unless it is asked for in pages. */
type Result<Answer> = Answer extends Page<infer Item> ? Item[] : Answer;

type DefinitionsOf<Table> = {
  [Id in keyof Table]: Table[Id] extends { method: 'get' }
    ? QueryDefinition<ReadArg<Table[Id]>, Ask, RecordKind, Result<Types<Table[Id]>['answer']>, 'api'>
    : MutationDefinition<WriteArg<Table[Id]>, Ask, RecordKind, Types<Table[Id]>['answer'], 'api'>;
} & {
  [Id in keyof Table as Table[Id] extends { list: object } ? `${Id & string}Pages` : never]: InfiniteQueryDefinition<
    ReadArg<Table[Id]>,
    string | null,
    Ask,
    RecordKind,
    Types<Table[Id]>['answer'],
    'api'
  >;
};

type Said = Record<string, unknown>;

/** Files may be large, and lines slow. */
const UPLOAD_MS = 600_000;

/** The names in a path; what else is said goes into the query. */
const namesIn = (path: string) => [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);

function addressOf({ path }: Operation, said: Said, without: readonly string[] = []): string {
  const inPath = [...namesIn(path), ...without];
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(said))
    if (!inPath.includes(name) && value !== undefined && value !== null && value !== '') query.set(name, String(value));
  const text = query.toString();
  return text === '' ? pathOf(path, said) : `${pathOf(path, said)}?${text}`;
}

/** The request of a write. */
export function requestOf(operation: Operation, said: Said): FetchArgs {
  const { path, takes } = operation;
  const method = operation.method.toUpperCase();
  const { key = uuid(), body = {}, file } = said as { key?: string; body?: unknown; file?: Blob };
  const headers = { 'Idempotency-Key': key };
  if (!takes) return { url: pathOf(path, said), method, headers, body };
  const type = takes.types.includes(file!.type) ? file!.type : takes.types[0]!;
  return {
    url: addressOf(operation, said, ['key', 'file']),
    method,
    headers: { ...headers, 'Content-Type': type },
    body: file,
    timeout: UPLOAD_MS,
  };
}

/** Most pages that a list asked for whole is followed through: a server that never ends one must not keep a phone busy. */
const MOST_PAGES = 200;

/** The endpoints of an area: each of its operations asked, and its answers kept, as the operation says. */
export function endpointsOf<Table extends object>(table: Table) {
  const endpoints = (build: EndpointBuilder<Ask, RecordKind, 'api'>): EndpointDefinitions => {
    const made: EndpointDefinitions = {};
    for (const [id, operation] of Object.entries(table) as [string, Operation][]) {
      const { method, list, shows = [], touches = [] } = operation;
      if (method !== 'get') {
        made[id] = build.mutation<unknown, Said | void>({
          query: (said) => requestOf(operation, said ?? {}),
          invalidatesTags: [...touches],
        });
        continue;
      }
      if (!list) {
        made[id] = build.query<unknown, Said | void>({
          query: (said) => addressOf(operation, said ?? {}),
          providesTags: [...shows],
        });
        continue;
      }
      made[id] = build.query<unknown[], (Said & Partial<PageAsk>) | void>({
        queryFn: async (said, _, __, ask) => {
          const items: unknown[] = [];
          for (let after: string | null = null, page = 0; page < MOST_PAGES; page++) {
            const answer = await ask(addressOf(operation, { ...(said ?? {}), after }));
            if (answer.error) return { error: answer.error };
            const { items: more, next } = answer.data as Page<unknown>;
            items.push(...more);
            // So many were asked for, and no more.
            if (next === null || said?.limit !== undefined) break;
            after = next;
          }
          return { data: items };
        },
        providesTags: [...shows],
      });
      made[`${id}Pages`] = build.infiniteQuery<Page<unknown>, Said | void, string | null>({
        infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
        query: ({ queryArg, pageParam }) => addressOf(operation, { ...(queryArg ?? {}), after: pageParam }),
        providesTags: [...shows],
      });
    }
    return made;
  };
  return api.injectEndpoints<DefinitionsOf<Table>>({ endpoints: endpoints as never });
}
