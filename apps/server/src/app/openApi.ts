import joiToSwagger from 'joi-to-swagger';
import type Joi from 'joi';
import type { Route } from '../kernel/route';

interface Described {
  swagger: { properties?: Record<string, unknown>; required?: string[] };
}

const describe = (schema: Joi.Schema) => (joiToSwagger as unknown as (schema: Joi.Schema) => Described)(schema).swagger;
const json = (schema: unknown) => ({ 'application/json': { schema } });
const refusal = (description: string) => ({ description, content: json({ $ref: '#/components/schemas/Error' }) });

/** The OpenAPI 3 description of all routes, made from the schemas that validate them. */
export function openApi(routes: readonly Route[]): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const route of routes) {
    const address = route.path.replace(/:(\w+)/g, '{$1}');
    paths[address] ??= {};
    paths[address][route.method] = operation(route);
  }
  return {
    openapi: '3.0.3',
    info: {
      title: 'Even Bed',
      version: '0.1.0',
      description:
        'Lengths in mm, temperatures in °C, times in epoch milliseconds UTC, heights + higher. ' +
        'Writes take a client-made Idempotency-Key; the same key again gets the same answer and changes nothing.',
    },
    servers: [{ url: '/api' }],
    paths,
    components: { schemas: { Error: ERROR } },
  };
}

function operation({ method, path, area, summary, answers, query, body }: Route): object {
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', format: 'uuid' },
  }));
  const inQuery = query
    ? Object.entries(describe(query).properties ?? {}).map(([name, schema]) => ({ name, in: 'query', schema }))
    : [];
  const key = { name: 'Idempotency-Key', in: 'header', schema: { type: 'string' } };
  return {
    tags: [area],
    summary,
    parameters: [...inPath, ...inQuery, ...(method === 'get' ? [] : [key])],
    ...(body ? { requestBody: { required: true, content: json(describe(body)) } } : {}),
    responses: {
      200: { description: answers, content: json({ type: 'object' }) },
      ...(query || body ? { [body ? 422 : 400]: refusal('A field is not valid; fields names it.') } : {}),
      ...(inPath.length > 0 ? { 404: refusal('There is no such record.') } : {}),
      ...(method === 'get' ? {} : { 409: refusal('Stale, or an id or key that was used for something else.') }),
    },
  };
}

const ERROR = {
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      required: ['code', 'message'],
      properties: {
        code: { type: 'string' },
        message: { type: 'string', description: 'For a person.' },
        fields: { type: 'object', additionalProperties: { type: 'string' } },
      },
    },
    current: { description: 'With code "stale": the record as it stands.' },
    yours: { description: 'With code "stale": the record as it was sent.' },
  },
};
