import type { Person, Role } from '@even-bed/contract';
import type { Knex } from 'knex';
import type Joi from 'joi';
import type { Logger } from 'pino';
import type { Context } from 'koa';

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
export interface Call {
  params: Record<string, string>;
  query: Record<string, unknown>;
  body: unknown;
  db: Knex;
  now: number;
  log: Logger;
  /** Who asks; null where anyone may, or a machine does by its token. */
  person: Person | null;
  session: OpenSession | null;
  /** Fingerprint of the mark that this device got when somebody signed in on it; null: none. */
  deviceMark: string | null;
  /** The time by now, where a request takes long. */
  clock: () => number;
  /** When the last backup was made; null: none is known. */
  lastBackup: () => number | null;
  /** What the first account has to say; null: nothing is asked. */
  firstCode: string | null;
  /** The machine whose token came with the request. */
  tokenMachineId: string | null;
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
  prepared: unknown;
  /** Ends when whoever asked has gone. */
  signal: AbortSignal;
  uploadFile: string | null;
}

/** What is known of a request before its body is read. */
export type BeforeCall = Pick<Call, 'db' | 'now' | 'params' | 'query' | 'firstCode'>;

export interface Answer {
  status?: number;
  body: unknown;
  /** A new session's token for the cookie; null takes the cookie away. */
  session?: string | null;
  /** A new mark for this device. */
  deviceMark?: string;
  /** For an answer that is a file. */
  file?: { type: string; name?: string; forever?: boolean };
}

/** Least role that may; "anyone" needs no sign-in. */
export type Access = Role | 'anyone';

/** One route, described well enough to guard, to validate, to run and to document. */
export interface Route {
  method: 'get' | 'put' | 'post';
  path: string;
  area: string;
  access: Access;
  /** A machine's own token may do this for that machine. */
  token?: true;
  summary: string;
  /** What the answer holds, for the documentation. */
  answers: string;
  query?: Joi.ObjectSchema;
  body?: Joi.ObjectSchema;
  /** Bytes of its JSON body at most, where LIMITS says too few; and values in it. */
  bodyLimit?: number;
  nodes?: number;
  /** Refuses before anything of the body is read. */
  before?: (call: BeforeCall) => Promise<void>;
  /** Long work before the transaction: in it, everybody would wait. Its result is `call.prepared`. */
  prepare?: (call: Call) => Promise<unknown>;
  /** Takes a file of at most so many bytes as its body, of one of these types. */
  upload?: { types: readonly string[]; limit: number; tooLarge: string; toFile?: true };
  /** Carries a secret, or does slow work before it writes: no transaction round it, and no record of its content. */
  alone?: true;
  handle: (call: Call) => Promise<Answer>;
  /** A GET that streams writes to the context itself. */
  stream?: (ctx: Context, call: Call) => void;
}
