import { type Operation, type PageAsk, type Person, type Reach } from '@even-bed/contract';
import Joi from 'joi';
import type { Knex } from 'knex';
import type { Context } from 'koa';
import type { Logger } from 'pino';
import type { FirstCode } from './firstCode';

/** A session as it stands: whose, on a device that several use or not, locked or not. */
export interface OpenSession {
  id: string;
  person: Person;
  shared: boolean;
  locked: boolean;
}

/** What a secret costs to hash: scrypt's N as a power of two, r and p. */
export interface SecretCost {
  log2N: number;
  r: number;
  p: number;
}

/** What a handler works with. Rooms add what only their own routes need. In a write, `db` is the transaction that the answer commits. */
export interface Call<Param extends string = string, Query = unknown, Body = unknown, Prepared = unknown> {
  params: Readonly<Record<Param, string>>;
  query: Query;
  body: Body;
  db: Knex;
  now: number;
  log: Logger;
  /** Who asks; null where anyone may, or a machine does by its token. */
  person: Person | null;
  session: OpenSession | null;
  /** Fingerprint of the mark that this device got when somebody signed in on it; null: none. */
  deviceMark: string | null;
  /** Whose share of the server a request takes: a person, a token, or an address. */
  who: string;
  /** The time by now, where a request takes long. */
  clock: () => number;
  /** When the last backup was made; null: none is known. */
  lastBackup: () => number | null;
  /** Under which addresses other devices reach the shop, and how they come to trust it. */
  reach: () => Reach;
  /** What is known of damage to the shop's file, in words with what helps; null: nothing. */
  damage: () => string | null;
  /** What the first account has to say. */
  firstCode: FirstCode;
  /** The machine whose token came with the request. */
  tokenMachineId: string | null;
  /** The token of another program that came with the request. */
  programId: string | null;
  /** Whether whoever asked may still: a stream goes on for hours. */
  mayStill: () => Promise<boolean>;
  /** The device in a few words, for the list of sessions. */
  device: string;
  /** Address under which this request reached the shop. */
  origin: string;
  secretCost: SecretCost;
  /** Folder of photos. */
  photoFolder: string;
  /** What an upload brought, or the file it was put into when it may be large. */
  upload: Buffer | null;
  /** What the route worked out before its transaction began. */
  prepared: Prepared;
  /** Ends when whoever asked has gone. */
  signal: AbortSignal;
  uploadFile: string | null;
}

/** What is known of a request before its body is read. */
export type BeforeCall<Query = unknown> = Pick<
  Call<string, Query>,
  'db' | 'now' | 'params' | 'query' | 'firstCode' | 'who'
>;

export interface Answer<Body = unknown> {
  status?: number;
  body: Body;
  /** A new session's token for the cookie; null takes the cookie away. */
  session?: string | null;
  /** A new mark for this device. */
  deviceMark?: string;
  /** For an answer that is a file. */
  file?: { type: string; name?: string; forever?: boolean };
}

/** What the handler of an operation works with. */
export type CallOf<Op> =
  Op extends Operation<unknown, infer Param, infer Query, infer Body> ? Call<Param, Query, Body> : never;
/** What it answers. */
export type AnswerOf<Op> = Op extends Operation<infer Body> ? Answer<Body> : never;
type QueryOf<Op> = Op extends Operation<unknown, string, infer Query> ? Query : never;

/** How an operation is done, where more than its handler is needed. */
export interface Doing<Op> {
  /** Refuses before anything of the body is read. */
  before?: (call: BeforeCall<QueryOf<Op>>) => Promise<void>;
  /** Long work before the transaction: in it, everybody would wait. Its result is `call.prepared`. */
  prepare?: (call: CallOf<Op>) => Promise<unknown>;
  handle: (call: CallOf<Op>) => Promise<AnswerOf<Op>>;
}

/** How a read is done that streams: it writes to the context itself. */
export interface Streaming<Op> {
  stream: (ctx: Context, call: CallOf<Op>) => void | Promise<void>;
}

/** One route: an operation with its schemas and with how it is done. */
export interface Route extends Operation {
  querySchema: Joi.ObjectSchema;
  bodySchema: Joi.ObjectSchema;
  before?: Doing<Operation>['before'];
  prepare?: (call: Call) => Promise<unknown>;
  handle: (call: Call) => Promise<Answer>;
  stream?: (ctx: Context, call: Call) => void | Promise<void>;
}

const NOTHING = Joi.object({});

/** What a list is asked beside its own questions. */
const pageKeys = ({ usual, most }: { usual: number; most: number }): Record<keyof PageAsk, Joi.Schema> => ({
  after: Joi.string().max(100).label('After'),
  limit: Joi.number().integer().min(1).max(most).default(usual).label('Limit'),
});

/** The routes of an area: each of its operations with the schemas that it names and with how it is done. */
export function routesOf<Table extends Record<string, Operation>>(
  table: Table,
  schemas: object,
  doings: { [Id in keyof Table]: Doing<Table[Id]>['handle'] | Doing<Table[Id]> | Streaming<Table[Id]> },
): Route[] {
  const named = schemas as Record<string, Joi.ObjectSchema>;
  return Object.entries(table).map(([id, operation]) => {
    const doing = doings[id] as Doing<Operation>['handle'] | Partial<Doing<Operation> & Streaming<Operation>>;
    const query = operation.query === undefined ? NOTHING : named[operation.query]!;
    return {
      ...operation,
      querySchema: operation.list ? query.keys(pageKeys(operation.list)) : query,
      bodySchema: operation.body === undefined ? NOTHING : named[operation.body]!,
      handle: () => Promise.reject(new Error('streamed')),
      ...(typeof doing === 'function' ? { handle: doing } : doing),
    };
  });
}
