import { operations, validate, type Page } from '@even-bed/contract';
import Joi from 'joi';
import { openApi } from '../app/openApi';
import { routesOf } from './route';

interface BoltWrite {
  size: number;
}
const schemas = {
  boltWriteSchema: Joi.object<BoltWrite>({ size: Joi.number().min(1).max(20).required().label('Size') }),
  boltListSchema: Joi.object<{ search: string }>({ search: Joi.string().allow('').default('').label('Search') }),
};
interface BoltAnswers {
  bolts: Page<BoltWrite>;
  saveBolt: BoltWrite;
  loosen: { loosened: boolean };
}

/** A made-up area: that its routes follow from this and its handlers alone is what is tested. */
const boltOperations = operations<typeof schemas, BoltAnswers>()('bolts', {
  bolts: {
    method: 'get',
    path: '/bolts',
    access: 'looker',
    summary: 'All bolts',
    answers: 'A page of bolts.',
    query: 'boltListSchema',
    list: { usual: 5, most: 10 },
  },
  saveBolt: {
    method: 'put',
    path: '/bolts/:id',
    access: 'lead',
    summary: 'Save a bolt',
    answers: 'The bolt.',
    body: 'boltWriteSchema',
  },
  loosen: { method: 'post', path: '/bolts/:id/loosen', access: 'lead', summary: 'Loosen', answers: 'loosened.' },
});
const routes = routesOf(boltOperations, schemas, {
  bolts: ({ query }) => Promise.resolve({ body: { items: [{ size: query.limit }], next: null } }),
  saveBolt: ({ body }) => Promise.resolve({ body: { size: body.size } }),
  loosen: { handle: () => Promise.resolve({ body: { loosened: true } }) },
});
const [bolts, saveBolt, loosen] = routes as [(typeof routes)[0], (typeof routes)[0], (typeof routes)[0]];

test('routes carry their operation, in its order', () => {
  expect(routes.map(({ id, area, method }) => [id, area, method])).toEqual([
    ['bolts', 'bolts', 'get'],
    ['saveBolt', 'bolts', 'put'],
    ['loosen', 'bolts', 'post'],
  ]);
});

test('a list is asked by its own questions and where it goes on, and for no more than it gives', () => {
  expect(validate(bolts.querySchema, {})).toEqual({ ok: true, value: { search: '', limit: 5 } });
  expect(validate(bolts.querySchema, { search: 'm4', after: 'x', limit: '10' })).toMatchObject({
    ok: true,
    value: { after: 'x', limit: 10 },
  });
  for (const bad of [{ limit: 11 }, { limit: 0 }, { limit: 'many' }, { after: 'x'.repeat(101) }, { other: 1 }])
    expect(validate(bolts.querySchema, bad).ok).toBe(false);
});

test('what takes no body or no question takes nothing at all', () => {
  expect(validate(loosen.bodySchema, {}).ok).toBe(true);
  expect(validate(loosen.bodySchema, { force: 1 })).toEqual({
    ok: false,
    fields: { force: 'force is not known here.' },
  });
  expect(validate(saveBolt.querySchema, { dry: true }).ok).toBe(false);
  expect(validate(saveBolt.bodySchema, { size: 4 }).ok).toBe(true);
});

test('a handler is called as it is, however it is given', async () => {
  expect(await bolts.handle({ query: { limit: 7 } } as never)).toEqual({ body: { items: [{ size: 7 }], next: null } });
  expect(await loosen.handle({} as never)).toEqual({ body: { loosened: true } });
});

test('the description holds it without another word', () => {
  const paths = openApi(routes, { properties: { bolts: {}, saveBolt: {}, loosen: {} }, definitions: {} })[
    'paths'
  ] as Record<string, Record<string, { operationId: string; parameters: { name: string }[] }>>;
  expect(Object.keys(paths)).toEqual(['/bolts', '/bolts/{id}', '/bolts/{id}/loosen']);
  expect(paths['/bolts']!['get']!.parameters.map(({ name }) => name)).toEqual([
    'search',
    'after',
    'limit',
    'If-None-Match',
  ]);
  expect(paths['/bolts/{id}']!['put']!.operationId).toBe('saveBolt');
});
