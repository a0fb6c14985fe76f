import type { Knex } from 'knex';
import type Joi from 'joi';
import type { Logger } from 'pino';
import type { Context } from 'koa';
import type { ScanJobs } from '../machines/scanJobs';

/** What a handler works with. In a write, `db` is the transaction that the answer commits. */
export interface Call {
  params: Record<string, string>;
  query: Record<string, unknown>;
  body: unknown;
  db: Knex;
  now: number;
  log: Logger;
  scans: ScanJobs;
}

export interface Answer {
  status?: number;
  body: unknown;
}

/** One route, described well enough to validate, to run and to document. */
export interface Route {
  method: 'get' | 'put' | 'post';
  path: string;
  area: string;
  summary: string;
  /** What the answer holds, for the documentation. */
  answers: string;
  query?: Joi.ObjectSchema;
  body?: Joi.ObjectSchema;
  handle: (call: Call) => Promise<Answer>;
  /** A GET that streams writes to the context itself. */
  stream?: (ctx: Context, call: Call) => void;
}
