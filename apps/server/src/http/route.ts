import type { Person, Role } from '@even-bed/contract';
import type { Knex } from 'knex';
import type Joi from 'joi';
import type { Logger } from 'pino';
import type { Context } from 'koa';
import type { ScanJobs } from '../machines/scanJobs';
import type { SecretCost } from '../people/secrets';
import type { OpenSession } from '../people/store';

/** What a handler works with. In a write, `db` is the transaction that the answer commits. */
export interface Call {
  params: Record<string, string>;
  query: Record<string, unknown>;
  body: unknown;
  db: Knex;
  now: number;
  log: Logger;
  scans: ScanJobs;
  /** Who asks; null where anyone may, or a machine does by its token. */
  person: Person | null;
  session: OpenSession | null;
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
  uploadFile: string | null;
}

export interface Answer {
  status?: number;
  body: unknown;
  /** A new session's token for the cookie; null takes the cookie away. */
  session?: string | null;
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
  /** Takes a file of at most so many bytes as its body, of one of these types. */
  upload?: { types: readonly string[]; limit: number; tooLarge: string; toFile?: true };
  /** Carries a secret, or does slow work before it writes: no transaction round it, and no record of its content. */
  alone?: true;
  handle: (call: Call) => Promise<Answer>;
  /** A GET that streams writes to the context itself. */
  stream?: (ctx: Context, call: Call) => void;
}
