import { createHash } from 'node:crypto';
import fs from 'node:fs/promises';
import os from 'node:os';
import type { BlockList } from 'node:net';
import path from 'node:path';
import { validate, type Reach } from '@even-bed/contract';
import { bodyParser } from '@koa/bodyparser';
import etag from '@koa/etag';
import { Router } from '@koa/router';
import type Joi from 'joi';
import type { Knex } from 'knex';
import Koa, { type Context } from 'koa';
import compress from 'koa-compress';
import helmet from 'koa-helmet';
import type { Logger } from 'pino';
import type { LinkTimes } from '../machines/consoleLink';
import { ScanJobs, type BeforeScan } from '../machines/scanJobs';
import { tellTurns } from '../machines/tellTurns';
import { fingerprintOf, SECRET_COST } from '../people/secrets';
import { acting } from '../kernel/acting';
import { hearAll } from '../spine/hearAll';
import { callerOf, DEVICE_COOKIE, deviceName, refuseOutsiders, SESSION_COOKIE } from './caller';
import { inlineScripts, serveClient } from './client';
import { serveDocs } from './docs';
import { errorAnswer } from './errorAnswer';
import { FirstCode } from '../kernel/firstCode';
import { LIMITS, refuseTooMuch } from '../kernel/limits';
import { once } from '../kernel/once';
import { Pacer } from '../kernel/pace';
import { Problem } from '../kernel/problem';
import { Turns } from '../kernel/turns';
import { routes } from './routes';
import { networksOf, SHOP_NETWORKS } from '../kernel/networks';
import type { Answer, Call, Route, SecretCost } from '../kernel/route';
import { keepUpload, readUpload } from './upload';

export interface AppParts {
  db: Knex;
  log: Logger;
  /** Folder of the exported client; left out in tests of the routes. */
  clientFolder?: string | undefined;
  now?: () => number;
  /** How long a machine's console may take; shorter in tests. */
  linkTimes?: LinkTimes;
  /** Networks in which machines’ consoles are called; left out: those of shops. */
  networks?: BlockList;
  /** Where photos lie. */
  photoFolder?: string;
  /** What the first account has to say, as it stands on the terminal; left out: nothing is asked. */
  firstCode?: FirstCode;
  /** Which Host a request may name; left out: any. */
  isOurs?: (host: string) => boolean;
  /** When the last backup was made; left out or null: none is known. */
  lastBackup?: () => number | null;
  /** How other devices reach the shop; left out: not at all. */
  reach?: () => Reach;
  /** What is known of damage to the shop's file; left out: nothing is. */
  damage?: { noticed: (error: unknown) => void; words: () => string | null };
  /** Proxies in front that are trusted to say how they were reached; left out: none. */
  proxies?: number;
  /** Cheaper in tests. */
  secretCost?: SecretCost;
}

/** Health answers after this long also when the database is at work. */
const HEALTH_WAIT_MS = 50;
/** When to come back where nothing finer is known. */
const BUSY_SECONDS = 5;
/** The cookie outlives a session that nobody uses; the server ends it earlier. */
const SESSION_MS = 60 * 86_400_000;
/** Client-made keys of writes; long enough for any UUID. */
const WRITE_KEY = /^[A-Za-z0-9-]{8,80}$/;

/** Builds the app without listening, so that tests run it in process. */
export function buildApp(parts: AppParts): Koa {
  const { db, log, clientFolder, now = Date.now, linkTimes, networks = networksOf(SHOP_NETWORKS) } = parts;
  hearAll();
  const beforeScan: BeforeScan = (machine, link) => tellTurns(db, machine, link);
  const scans = new ScanJobs({ log, beforeScan, networks, ...(linkTimes ? { times: linkTimes } : {}) });
  const app = new Koa();
  app.silent = true;
  app.proxy = (parts.proxies ?? 0) > 0;
  // Each proxy adds the address that it saw at the end: only so many of them are not the caller's own invention.
  app.maxIpsCount = parts.proxies ?? 0;
  app.use(logged(log));
  app.use(answered(log, (error) => parts.damage?.noticed(error)));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", ...(clientFolder ? inlineScripts(clientFolder) : [])],
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
  // Whoever polls and has what there is gets 304 and no body.
  app.use(ofApi(notAgain));
  app.use(ofApi(etag()));
  app.use(sameSite);
  if (parts.isOurs) app.use(ownHost(parts.isOurs));
  const router = new Router({ prefix: '/api' });
  // One connection serves all: while a long write has it, the answer is that it is busy, and not a wait.
  router.get('/health', async (ctx) => {
    const asked = db.raw('SELECT 1').then(() => 'ready' as const);
    const waited = new Promise<'busy'>((resolve) => setTimeout(resolve, HEALTH_WAIT_MS, 'busy').unref());
    ctx.body = { ok: true, database: await Promise.race([asked, waited]) };
  });
  // What the shop can do is told to whoever works there.
  serveDocs(router, routes, async (ctx, next) => {
    refuseOutsiders({ access: 'looker', method: 'get' }, await callerOf(ctx, { db, now: now() }));
    await next();
  });
  const steady = {
    clock: now,
    firstCode: parts.firstCode ?? new FirstCode(null),
    lastBackup: parts.lastBackup ?? (() => null),
    reach: parts.reach ?? (() => ({ addresses: [], by: 'none' as const, trust: null })),
    damage: () => parts.damage?.words() ?? null,
    log,
    scans,
    secretCost: parts.secretCost ?? SECRET_COST,
    photoFolder: parts.photoFolder ?? path.join(os.tmpdir(), 'even-bed-photos'),
    pacer: new Pacer(),
    turns: new Turns(LIMITS.requests),
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

/** An answer that the asker has already goes out as 304, without its body. */
const notAgain: Koa.Middleware = async (ctx, next) => {
  await next();
  if (!ctx.fresh) return;
  ctx.status = 304;
  ctx.body = null;
};

/** Only for the API: files of the client have their own ways. */
const ofApi =
  (middleware: Koa.Middleware): Koa.Middleware =>
  (ctx, next) =>
    ctx.path.startsWith('/api') ? middleware(ctx, next) : next();

type Steady = Pick<
  Call,
  | 'db'
  | 'log'
  | 'now'
  | 'clock'
  | 'firstCode'
  | 'lastBackup'
  | 'reach'
  | 'damage'
  | 'scans'
  | 'secretCost'
  | 'photoFolder'
> & { pacer: Pacer; turns: Turns };

/** What is known once it is somebody's turn. */
type Asked = Steady & Pick<Call, 'person' | 'session' | 'tokenMachineId' | 'programId' | 'who' | 'signal'>;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Ids in either case, as they are kept. @throws Problem 404 what is none: it reaches no store and no name of a file */
function idsIn(params: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(params).map(([name, value]) => {
      if (!/id$/i.test(name)) return [name, value];
      const id = value.toLowerCase();
      if (!UUID.test(id)) throw new Problem(404, 'not-found', 'There is nothing at this address.');
      return [name, id];
    }),
  );
}

async function run(route: Route, ctx: Context, parts: Steady): Promise<void> {
  const from = `at ${ctx.ip}`;
  const caller = await callerOf(ctx, parts).catch((error: unknown) => {
    parts.pacer.take(from, false, performance.now());
    throw error;
  });
  // A person has one share, by however many sessions.
  const known = caller.session?.person.id ?? caller.tokenMachineId ?? caller.programId;
  const who = known ?? from;
  parts.pacer.take(who, known !== null, performance.now());
  refuseOutsiders(route, caller);
  const gone = new AbortController();
  ctx.res.once('close', () => gone.abort());
  // Who follows the shop does so for hours, and has bounds of its own.
  const end = route.stream ? () => undefined : await parts.turns.take(who, gone.signal);
  try {
    await inTurn(route, ctx, { ...parts, ...caller, who, signal: gone.signal });
  } finally {
    end();
  }
}

async function inTurn(route: Route, ctx: Context, parts: Asked): Promise<void> {
  const params = idsIn(ctx.params as Record<string, string>);
  const writes = route.method !== 'get';
  if (writes && route.takes === undefined && ctx.is('application/json') === false)
    throw new Problem(415, 'json-only', 'Send JSON (content type application/json).');
  const { db, now, firstCode, who } = parts;
  const query = checked<unknown>(route.querySchema, ctx.query, 'query', { now });
  await route.before?.({ db, now, firstCode, who, params, query });
  const body = writes && route.takes === undefined ? await bodyOf(ctx, route) : { value: {}, nodes: 0 };
  const call: Call = {
    ...parts,
    db: acting(parts.db, parts.person?.id ?? null, now),
    params,
    query,
    deviceMark: deviceMarkOf(ctx),
    body: writes ? checked(route.bodySchema, body.value, 'body', { now, nodes: body.nodes }) : undefined,
    prepared: undefined,
    mayStill: async () => {
      try {
        refuseOutsiders(route, await callerOf(ctx, { db: parts.db, now: parts.clock(), touch: false }));
        return true;
      } catch {
        return false;
      }
    },
    upload: route.takes && !route.takes.toFile ? await readUpload(ctx, route.takes) : null,
    uploadFile: route.takes?.toFile ? await keepUpload(ctx, route.takes) : null,
    device: deviceName(ctx.get('User-Agent')),
    origin: `${ctx.protocol}://${ctx.host}`,
  };
  if (route.stream) return await route.stream(ctx, call);
  try {
    await answerWith(ctx, route, call);
  } finally {
    if (call.uploadFile) await fs.rm(call.uploadFile, { force: true });
  }
}

async function answerWith(ctx: Context, route: Route, call: Call): Promise<void> {
  if (route.prepare) call.prepared = await route.prepare(call);
  const answer: Answer =
    route.method === 'get' || route.alone
      ? await route.handle(call)
      : await once(call.db, { key: writeKey(ctx), content: contentOf(ctx, call), now: call.now }, (trx) =>
          route.handle({ ...call, db: trx }),
        );
  ctx.status = answer.status ?? route.status ?? 200;
  if (answer.session !== undefined) setSession(ctx, answer.session);
  if (answer.deviceMark !== undefined) setMark(ctx, answer.deviceMark);
  ctx.set('Cache-Control', 'no-store');
  // Whether the app may keep it on its device, for when there is no signal: what everybody may see.
  const forAll = route.access === 'looker' || route.access === 'anyone';
  if (route.method === 'get' && forAll && !route.personal && !route.fresh) ctx.set('X-Keep', 'yes');
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

/** Readers of JSON bodies by their limit. */
const readers = new Map<number, ReturnType<typeof bodyParser>>();

/** The JSON body, refused while it comes in when it is too long, and before it is looked at when it holds too much. */
async function bodyOf(ctx: Context, route: Route): Promise<{ value: unknown; nodes: number }> {
  if (!ctx.is('json')) return { value: {}, nodes: 0 };
  const limit = route.bodyLimit ?? (route.access === 'anyone' ? LIMITS.openBody : LIMITS.body);
  let read = readers.get(limit);
  if (!read) readers.set(limit, (read = bodyParser({ enableTypes: ['json'], jsonLimit: limit, encoding: 'utf-8' })));
  await read(ctx, () => Promise.resolve());
  const value: unknown = ctx.request.body ?? {};
  return { value, nodes: refuseTooMuch(value, route.nodes ?? LIMITS.nodes) };
}

/** The mark of a device lasts as long as browsers keep one. */
const MARK_MS = 400 * 86_400_000;

function setMark(ctx: Context, mark: string): void {
  ctx.cookies.set(DEVICE_COOKIE, mark, {
    httpOnly: true,
    sameSite: 'strict',
    secure: ctx.secure,
    path: '/api',
    overwrite: true,
    maxAge: MARK_MS,
  });
}

function deviceMarkOf(ctx: Context): string | null {
  const mark = ctx.cookies.get(DEVICE_COOKIE);
  return mark ? fingerprintOf(mark) : null;
}

function checked<T>(
  schema: Joi.ObjectSchema,
  value: unknown,
  where: 'query' | 'body',
  { now, nodes = 0 }: { now: number; nodes?: number },
): T {
  const result = validate<T>(schema, value, { abortEarly: nodes > LIMITS.nodesForAllFaults, context: { now } });
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

/** A page of another name that points here (DNS rebinding) is refused. */
function ownHost(isOurs: (host: string) => boolean) {
  return async (ctx: Context, next: () => Promise<void>) => {
    if (!isOurs(ctx.hostname))
      throw new Problem(
        421,
        'other-host',
        `This shop is not known as ${ctx.hostname.slice(0, 100)}. Whoever runs it can add the name: EVEN_BED_HOSTS.`,
      );
    await next();
  };
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

function answered(log: Logger, noticed: (error: unknown) => void) {
  return async (ctx: Context, next: () => Promise<void>) => {
    try {
      await next();
    } catch (error) {
      noticed(error);
      const { status, body } = errorAnswer(error);
      if (status >= 500) log.error({ err: error, method: ctx.method, path: ctx.path }, 'request failed');
      // What is still on its way is not kept; the line is closed behind it.
      if (!ctx.req.complete) {
        ctx.set('Connection', 'close');
        ctx.req.resume();
      }
      if (status === 429) ctx.set('Retry-After', String((error as Problem).more.retryAfter ?? BUSY_SECONDS));
      ctx.status = status;
      ctx.body = body;
      if (ctx.path.startsWith('/api')) ctx.set('Cache-Control', 'no-store');
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
