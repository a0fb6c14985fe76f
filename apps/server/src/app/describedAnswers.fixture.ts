import addFormats from 'ajv-formats';
import Ajv from 'ajv/dist/2020';
import type Koa from 'koa';
import type { Context } from 'koa';
import { addressOf, openApi } from './openApi';
import { routes } from './routes';

type Validate = ((value: unknown) => boolean) & { errors?: { instancePath: string; message?: string }[] | null };
interface Described {
  responses: Record<string, { content?: Record<string, { schema: unknown }> }>;
}

const document = openApi(routes);
const ajv = new Ajv({ strict: false, allErrors: true });
addFormats(ajv);
ajv.addSchema({ ...document, $id: 'api' });
const known = new Map<string, Validate>();

/** What is wrong with an answer as the API's own description has it; null: nothing. */
export function faultOf(id: string, status: number, type: string, body: unknown): string | null {
  const route = routes.find((one) => one.id === id)!;
  const address = addressOf(route);
  const operation = (document['paths'] as Record<string, Record<string, Described>>)[address]![route.method]!;
  const answer = operation.responses[status];
  if (!answer) return `${id} is not said to answer ${status}`;
  if (status === 304) return null;
  const content = answer.content?.[type];
  if (!content) return `${id} ${status} is not said to be ${type}, but ${Object.keys(answer.content ?? {}).join()}`;
  if (type !== 'application/json') return null;
  const pointer = ['paths', address, route.method, 'responses', String(status), 'content', type, 'schema']
    .map((part) => encodeURIComponent(part.replace(/~/g, '~0').replace(/\//g, '~1')))
    .join('/');
  const key = `${id} ${status}`;
  if (!known.has(key)) known.set(key, ajv.compile({ $ref: `api#/${pointer}` }) as unknown as Validate);
  const validate = known.get(key)!;
  if (validate(body)) return null;
  return `${key}: ${validate.errors!.map(({ instancePath, message }) => `${instancePath} ${message}`).join('; ')}`;
}

/** Operations that have answered well under test in this process. */
export const answered = new Set<string>();

/** Holds every answer of an app against the API's description: one that differs becomes 599, so that no test passes it by. */
export function heldAgainstDescription(app: Koa): void {
  const byPath = new Map(routes.map((route) => [`${route.method} /api${route.path}`, route.id]));
  app.middleware.unshift(async (ctx: Context, next) => {
    // Squeezed, it could not be read here.
    ctx.compress = false;
    await next();
    const path = (ctx as Context & { _matchedRoute?: string })._matchedRoute;
    const id = byPath.get(`${ctx.method.toLowerCase()} ${path}`);
    if (id === undefined) return;
    const isJson = ctx.type === 'application/json';
    const body = isJson ? (JSON.parse(JSON.stringify(ctx.body)) as unknown) : null;
    const fault = faultOf(id, ctx.status, ctx.type, body);
    if (ctx.status < 300) answered.add(id);
    if (fault === null) return;
    ctx.status = 599;
    ctx.body = { error: { code: 'not-as-described', message: fault } };
  });
}
