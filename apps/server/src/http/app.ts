import { createHash } from 'node:crypto';
import fs from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
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
import { SECRET_COST, type SecretCost } from '../people/secrets';
import { acting } from './acting';
import { callerOf, deviceName, refuseOutsiders, SESSION_COOKIE } from './caller';
import { serveClient } from './client';
import { serveDocs } from './docs';
import { errorAnswer } from './errorAnswer';
import { once } from './once';
import { Problem } from './problem';
import { routes } from './routes';
import type { Answer, Call, Route } from './route';
import { keepUpload, readUpload } from './upload';

export interface AppParts {
  db: Knex;
  log: Logger;
  /** Folder of the exported client; left out in tests of the routes. */
  clientFolder?: string | undefined;
  now?: () => number;
  /** How long a machine's console may take; shorter in tests. */
  linkTimes?: LinkTimes;
  /** Where photos lie. */
  photoFolder?: string;
  /** Cheaper in tests. */
  secretCost?: SecretCost;
}

const BODY_LIMIT = '2mb';
/** The cookie outlives a session that nobody uses; the server ends it earlier. */
const SESSION_MS = 60 * 86_400_000;
/** Client-made keys of writes; long enough for any UUID. */
const WRITE_KEY = /^[A-Za-z0-9-]{8,80}$/;

/** Builds the app without listening, so that tests run it in process. */
export function buildApp(parts: AppParts): Koa {
  const { db, log, clientFolder, now = Date.now, linkTimes } = parts;
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
  const readJson = bodyParser({ enableTypes: ['json'], jsonLimit: BODY_LIMIT, encoding: 'utf-8' });
  app.use((ctx, next) => (ctx.is('json') ? readJson(ctx, next) : next()));

  const router = new Router({ prefix: '/api' });
  router.get('/health', async (ctx) => {
    await db.raw('SELECT 1');
    ctx.body = { ok: true };
  });
  serveDocs(router, routes);
  const steady = {
    log,
    scans,
    secretCost: parts.secretCost ?? SECRET_COST,
    photoFolder: parts.photoFolder ?? path.join(os.tmpdir(), 'even-bed-photos'),
  };
  for (const route of routes) router[route.method](route.path, (ctx) => run(route, ctx, { ...steady, db, now: now() }));
  app.use(router.routes());
  app.use((ctx, next) => {
    if (ctx.path.startsWith('/api')) throw new Problem(404, 'not-found', 'There is nothing at this address.');
    return next();
  });
  if (clientFolder) serveClient(app, clientFolder);
  return app;
}

type Steady = Pick<Call, 'db' | 'log' | 'now' | 'scans' | 'secretCost' | 'photoFolder'>;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

async function run(route: Route, ctx: Context, parts: Steady): Promise<void> {
  const caller = await callerOf(ctx, parts);
  refuseOutsiders(route, caller);
  // Ids are made by clients: nothing else than an id reaches a store or the name of a file.
  for (const [name, value] of Object.entries(ctx.params as Record<string, string>))
    if (/id$/i.test(name) && !UUID.test(value))
      throw new Problem(404, 'not-found', 'There is nothing at this address.');
  const writes = route.method !== 'get';
  if (writes && route.upload === undefined && ctx.is('application/json') === false)
    throw new Problem(415, 'json-only', 'Send JSON (content type application/json).');
  const call: Call = {
    ...parts,
    ...caller,
    db: acting(parts.db, caller.person?.id ?? null),
    params: ctx.params as Record<string, string>,
    query: route.query ? checked(route.query, ctx.query, 'query') : {},
    body: route.body ? checked(route.body, ctx.request.body ?? {}, 'body') : undefined,
    upload: route.upload && !route.upload.toFile ? await readUpload(ctx, route.upload) : null,
    uploadFile: route.upload?.toFile ? await keepUpload(ctx, route.upload) : null,
    device: deviceName(ctx.get('User-Agent')),
    origin: `${ctx.protocol}://${ctx.host}`,
  };
  if (route.stream) return route.stream(ctx, call);
  try {
    await answerWith(ctx, route, call);
  } finally {
    if (call.uploadFile) await fs.rm(call.uploadFile, { force: true });
  }
}

async function answerWith(ctx: Context, route: Route, call: Call): Promise<void> {
  const answer: Answer =
    route.method === 'get' || route.alone
      ? await route.handle(call)
      : await once(call.db, { key: writeKey(ctx), content: contentOf(ctx, call), now: call.now }, (trx) =>
          route.handle({ ...call, db: trx }),
        );
  ctx.status = answer.status ?? 200;
  if (answer.session !== undefined) setSession(ctx, answer.session);
  if (answer.file) {
    const { type, name, forever } = answer.file;
    ctx.type = type;
    ctx.set('Cache-Control', forever ? 'private, max-age=31536000, immutable' : 'no-store');
    if (name !== undefined) ctx.attachment(name);
  }
  ctx.body = answer.body;
}

function setSession(ctx: Context, token: string | null): void {
  ctx.cookies.set(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: ctx.secure,
    path: '/',
    overwrite: true,
    ...(token === null ? { expires: new Date(0) } : { maxAge: SESSION_MS }),
  });
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

/** What makes a write the same write: its address, its body and who sends it. */
function contentOf(ctx: Context, { person, tokenMachineId, upload }: Call): string {
  const body = upload ? createHash('sha256').update(upload).digest('hex') : JSON.stringify(ctx.request.body ?? null);
  return `${ctx.method} ${ctx.path} ${person?.id ?? tokenMachineId ?? ''}\n${body}`;
}

/** Writes must come from the app's own pages, or from a program that says nothing of where it stands. */
async function sameSite(ctx: Context, next: () => Promise<void>): Promise<void> {
  if (ctx.method !== 'GET' && ctx.method !== 'HEAD') {
    const site = ctx.get('Sec-Fetch-Site');
    const origin = ctx.get('Origin');
    const elsewhere = site !== '' && site !== 'same-origin' && site !== 'none';
    // Older browsers say where they stand in Origin alone.
    if (elsewhere || (site === '' && origin !== '' && !origin.endsWith(`//${ctx.host}`))) {
      throw new Problem(403, 'other-site', 'This request came from another site and was refused.');
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
