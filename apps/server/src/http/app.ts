import { validate } from '@even-bed/contract';
import { bodyParser } from '@koa/bodyparser';
import { Router } from '@koa/router';
import type { Knex } from 'knex';
import Koa, { type Context } from 'koa';
import compress from 'koa-compress';
import helmet from 'koa-helmet';
import type { Logger } from 'pino';
import type { LinkTimes } from '../machines/consoleLink';
import { ScanJobs, type BeforeScan } from '../machines/scanJobs';
import { tellTurns } from '../machines/tellTurns';
import { serveClient } from './client';
import { serveDocs } from './docs';
import { errorAnswer } from './errorAnswer';
import { once } from './once';
import { Problem } from './problem';
import { routes } from './routes';
import type { Answer, Call, Route } from './route';

export interface AppParts {
  db: Knex;
  log: Logger;
  /** Folder of the exported client; left out in tests of the routes. */
  clientFolder?: string | undefined;
  now?: () => number;
  /** How long a machine's console may take; shorter in tests. */
  linkTimes?: LinkTimes;
}

const BODY_LIMIT = '2mb';
/** Client-made keys of writes; long enough for any UUID. */
const WRITE_KEY = /^[A-Za-z0-9-]{8,80}$/;

/** Builds the app without listening, so that tests run it in process. */
export function buildApp({ db, log, clientFolder, now = Date.now, linkTimes }: AppParts): Koa {
  const beforeScan: BeforeScan = (machine, link) => tellTurns(db, machine, link);
  const scans = new ScanJobs({ log, beforeScan, ...(linkTimes ? { times: linkTimes } : {}) });
  const app = new Koa();
  app.silent = true;
  app.use(logged(log));
  app.use(answered(log));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // The interface kit writes its style sheet at run time.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // A shop's own network has no certificate; a proxy that has one sets this itself.
      hsts: false,
    }),
  );
  app.use(compress({ threshold: 1024, br: false }));
  app.use(sameSite);
  app.use(bodyParser({ enableTypes: ['json'], jsonLimit: BODY_LIMIT, encoding: 'utf-8' }));

  const router = new Router({ prefix: '/api' });
  router.get('/health', async (ctx) => {
    await db.raw('SELECT 1');
    ctx.body = { ok: true };
  });
  serveDocs(router, routes);
  for (const route of routes)
    router[route.method](route.path, (ctx) => run(route, ctx, { db, log, now: now(), scans }));
  app.use(router.routes());
  app.use((ctx, next) => {
    if (ctx.path.startsWith('/api')) throw new Problem(404, 'not-found', 'There is nothing at this address.');
    return next();
  });
  if (clientFolder) serveClient(app, clientFolder);
  return app;
}

async function run(route: Route, ctx: Context, parts: Pick<Call, 'db' | 'log' | 'now' | 'scans'>): Promise<void> {
  const call: Call = {
    ...parts,
    params: ctx.params as Record<string, string>,
    query: route.query ? checked(route.query, ctx.query, 'query') : {},
    body: route.body ? checked(route.body, ctx.request.body ?? {}, 'body') : undefined,
  };
  if (route.stream) return route.stream(ctx, call);
  const answer: Answer =
    route.method === 'get'
      ? await route.handle(call)
      : await once(parts.db, { key: writeKey(ctx), content: contentOf(ctx), now: parts.now }, (trx) =>
          route.handle({ ...call, db: trx }),
        );
  ctx.status = answer.status ?? 200;
  ctx.body = answer.body;
}

function checked<T>(schema: NonNullable<Route['query']>, value: unknown, where: 'query' | 'body'): T {
  const result = validate<T>(schema, value);
  if (result.ok) return result.value;
  const [first] = Object.values(result.fields);
  const count = Object.keys(result.fields).length;
  const message = count === 1 ? first! : `${count} fields need another look. ${first}`;
  throw new Problem(where === 'body' ? 422 : 400, 'not-valid', message, { fields: result.fields });
}

function writeKey(ctx: Context): string | undefined {
  const key = ctx.get('Idempotency-Key');
  if (key === '') return undefined;
  if (!WRITE_KEY.test(key)) throw new Problem(400, 'bad-key', 'The key of this write is not readable.');
  return key;
}

const contentOf = (ctx: Context) => `${ctx.method} ${ctx.path}\n${JSON.stringify(ctx.request.body ?? null)}`;

/** Writes must come from the app's own pages, or from a program that says nothing of where it stands. */
async function sameSite(ctx: Context, next: () => Promise<void>): Promise<void> {
  if (ctx.method !== 'GET' && ctx.method !== 'HEAD') {
    const site = ctx.get('Sec-Fetch-Site');
    if (site !== '' && site !== 'same-origin' && site !== 'none') {
      throw new Problem(403, 'other-site', 'This request came from another site and was refused.');
    }
    if (ctx.is('application/json') === false) {
      throw new Problem(415, 'json-only', 'Send JSON (content type application/json).');
    }
  }
  await next();
}

function answered(log: Logger) {
  return async (ctx: Context, next: () => Promise<void>) => {
    try {
      await next();
    } catch (error) {
      const { status, body } = errorAnswer(error);
      if (status >= 500) log.error({ err: error, method: ctx.method, path: ctx.path }, 'request failed');
      ctx.status = status;
      ctx.body = body;
    }
  };
}

function logged(log: Logger) {
  return async (ctx: Context, next: () => Promise<void>) => {
    const start = performance.now();
    await next();
    if (!ctx.path.startsWith('/api')) return;
    const took = Math.round(performance.now() - start);
    log.info({ method: ctx.method, path: ctx.path, status: ctx.status, tookMs: took }, 'request');
  };
}
