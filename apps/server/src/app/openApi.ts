import type { Described } from '@even-bed/contract';
import answers from '@even-bed/contract/answers.schema.json';
import type Joi from 'joi';
import joiToSwagger from 'joi-to-swagger';
import type { Route } from '../kernel/route';

type Json = Record<string, unknown>;

/** Shapes of answers by operation, and what they are made of, as JSON Schema. */
interface Shapes {
  properties: Record<string, unknown>;
  definitions: Record<string, unknown>;
}

/** The OpenAPI 3.1 description of all routes: from their operations, the schemas that validate them and the types of their answers. */
export function openApi(routes: readonly Route[], shapes: Shapes = answers): Json {
  const paths: Record<string, Json> = {};
  for (const route of routes) (paths[addressOf(route)] ??= {})[route.method] = operation(route, shapes);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Even Bed',
      version: '0.1.0',
      license: { name: 'MIT', identifier: 'MIT' },
      description:
        'Lengths in mm, temperatures in °C, times in epoch milliseconds UTC, heights + higher. ' +
        'Writes take a client-made Idempotency-Key; the same key again gets the same answer and changes nothing. ' +
        'Lists come in pages: the next of one is the after of the one that follows.',
    },
    servers: [{ url: '/api' }],
    tags: [...new Set(routes.map(({ area }) => area))].sort().map((name) => ({ name })),
    paths,
    components: {
      schemas: Object.fromEntries(
        Object.entries(shapes.definitions).map(([name, schema]) => [componentName(name), renamed(schema)]),
      ),
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'even-bed-session', description: 'Of a person who signed in.' },
        token: {
          type: 'http',
          scheme: 'bearer',
          description: 'Of a machine, for that machine alone; or of another program, which may only read.',
        },
      },
    },
  };
}

/** An address as such documents write it: "/machines/{id}". */
export const addressOf = ({ path }: Pick<Described, 'path'>): string => path.replace(/:(\w+)/g, '{$1}');

/** Names of components are plain: "Page<Print>" is PagePrint. */
const componentName = (name: string) => name.replace(/\W/g, '');

/** A schema with its references led to the components. */
function renamed<T>(schema: T): T {
  const text = JSON.stringify(schema).replace(
    /"\$ref":"#\/definitions\/([^"]+)"/g,
    (_, name: string) => `"$ref":"#/components/schemas/${componentName(decodeURIComponent(name))}"`,
  );
  return JSON.parse(text) as T;
}

const json = (schema: unknown) => ({ 'application/json': { schema } });

function operation(route: Route, shapes: Shapes): Json {
  const { id, area, summary, access, token, method, personal } = route;
  const anyone = access === 'anyone';
  return {
    operationId: id,
    tags: [area],
    summary,
    description: anyone
      ? 'Anyone may.'
      : `Needs a ${access}.${token ? ' A machine’s token may, for that machine.' : ''}`,
    security: anyone
      ? []
      : [{ session: [] }, ...(token || (method === 'get' && access === 'looker' && !personal) ? [{ token: [] }] : [])],
    parameters: parametersOf(route),
    ...requestOf(route),
    responses: responsesOf(route, shapes),
  };
}

function parametersOf({ method, path, querySchema, takes }: Route): Json[] {
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: /id$/i.test(name!) ? { type: 'string', format: 'uuid' } : { type: 'string' },
  }));
  const { properties = {}, required = [] } = described(querySchema);
  const inQuery = Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
  const key = {
    name: 'Idempotency-Key',
    in: 'header',
    required: takes !== undefined,
    description: 'Made by the client; the same one again changes nothing.',
    schema: { type: 'string', pattern: '^[A-Za-z0-9-]{8,80}$' },
  };
  const known = {
    name: 'If-None-Match',
    in: 'header',
    description: 'The ETag of what is there already.',
    schema: { type: 'string' },
  };
  return [...inPath, ...inQuery, method === 'get' ? known : key];
}

function requestOf({ body, bodySchema, takes, method }: Route): Json {
  if (method === 'get') return {};
  if (takes) {
    const content = Object.fromEntries(
      takes.types.map((type) => [type, { schema: { type: 'string', format: 'binary' } }]),
    );
    return { requestBody: { required: true, description: takes.tooLarge, content } };
  }
  return { requestBody: { required: body !== undefined, content: json(described(bodySchema)) } };
}

const REFUSALS: Record<number, string> = {
  400: 'Not readable, or a question that is not known here; fields names it.',
  401: 'Nobody is signed in, the device is locked, or the token is not in force.',
  403: 'Not for this role or token, or from another site.',
  404: 'There is no such record.',
  409: 'Stale, not possible as things stand, or an id or key that was used for something else.',
  413: 'More than is taken in one piece.',
  415: 'Not of a type that is taken.',
  421: 'The shop is not known under this name.',
  422: 'A field is not valid; fields names it.',
  429: 'Too much at once; Retry-After says when to come again, in seconds.',
  500: 'The server failed; nothing was saved.',
  507: 'The server’s disk is full or may not be written.',
};

/** Every status that can come of an operation. */
function statusesOf({ method, access, path, refuses = [] }: Route): number[] {
  const writes = method !== 'get';
  return [
    ...new Set([
      400,
      401,
      421,
      429,
      500,
      ...(writes ? [403, 409, 413, 415, 422, 507] : []),
      ...(access === 'anyone' ? [] : [403]),
      ...(path.includes(':') ? [404] : []),
      ...refuses,
    ]),
  ].sort();
}

function responsesOf(route: Route, shapes: Shapes): Json {
  const { id, status = 200, method, answers: said, gives } = route;
  const shape = shapes.properties[id];
  const success = {
    description: said,
    content: gives
      ? { [gives]: { schema: gives.startsWith('text/') ? { type: 'string' } : { type: 'string', format: 'binary' } } }
      : json(renamed(shape)),
    ...(method === 'get' ? { headers: { ETag: { schema: { type: 'string' } } } } : {}),
  };
  const refusals = statusesOf(route).map((code) => [
    code,
    {
      description: REFUSALS[code],
      content: json({ $ref: '#/components/schemas/ErrorAnswer' }),
      ...(code === 429 ? { headers: { 'Retry-After': { schema: { type: 'integer', minimum: 1 } } } } : {}),
    },
  ]);
  return {
    [status]: success,
    ...(method === 'get' && gives !== 'text/event-stream'
      ? { 304: { description: 'What you have is what there is.' } }
      : {}),
    ...Object.fromEntries(refusals),
  };
}

interface DescribedSchema {
  type?: string;
  properties?: Record<string, unknown>;
  required?: string[];
}

/** A Joi schema as JSON Schema. */
function described(schema: Joi.Schema): DescribedSchema {
  const { swagger } = (joiToSwagger as unknown as (schema: Joi.Schema) => { swagger: DescribedSchema })(schema);
  return modern(swagger) as DescribedSchema;
}

/** From the dialect of OpenAPI 3.0 to that of 3.1: what may be null says so in its type, and open ends are numbers. */
function modern(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(modern);
  if (typeof node !== 'object' || node === null) return node;
  const { nullable, exclusiveMinimum, exclusiveMaximum, ...rest } = node as Json;
  const out: Json = Object.fromEntries(Object.entries(rest).map(([key, value]) => [key, modern(value)]));
  if (exclusiveMinimum === true) {
    out['exclusiveMinimum'] = out['minimum'];
    delete out['minimum'];
  }
  if (exclusiveMaximum === true) {
    out['exclusiveMaximum'] = out['maximum'];
    delete out['maximum'];
  }
  if (nullable !== true) return out;
  if (Array.isArray(out['enum'])) out['enum'] = [...new Set([...(out['enum'] as unknown[]), null])];
  if (typeof out['type'] !== 'string') return { anyOf: [out, { type: 'null' }] };
  return { ...out, type: [out['type'], 'null'] };
}
