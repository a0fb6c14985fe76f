import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { faultOf } from './describedAnswers.fixture';
import { addressOf, openApi } from './openApi';
import { routes } from './routes';
import { newId, openShop } from './shop.fixture';

const document = openApi(routes);
const paths = document['paths'] as Record<string, Record<string, Record<string, unknown>>>;
const operations = routes.map((route) => [route.id, route, paths[addressOf(route)]![route.method]!] as const);

/** What two validators from the registry find in a document. */
function faultsIn(described: object): string[] {
  const script = path.join(__dirname, '../../../../scripts/checkApi.mjs');
  const { stdout } = spawnSync(process.execPath, [script], { input: JSON.stringify(described), encoding: 'utf8' });
  return JSON.parse(stdout) as string[];
}

test('two validators find no fault in it, and do find one that is put there', () => {
  expect(faultsIn(document)).toEqual([]);
  const broken = JSON.parse(JSON.stringify(document)) as typeof document;
  (broken['paths'] as typeof paths)['/machines']!['get']!['responses'] = { 200: { nothing: true } };
  expect(faultsIn(broken).map((fault) => fault.split(':')[0])).toEqual(['first', 'second']);
});

test('every operation has an id of its own, a tag, its statuses, and its security', () => {
  expect(new Set(routes.map(({ id }) => id)).size).toBe(routes.length);
  for (const [id, { access, method }, described] of operations) {
    expect(described['operationId']).toBe(id);
    expect(described['tags']).toHaveLength(1);
    expect([id, (described['security'] as unknown[]).length === 0]).toEqual([id, access === 'anyone']);
    const statuses = Object.keys(described['responses'] as object);
    expect(statuses.filter((status) => Number(status) < 300)).toHaveLength(1);
    expect(statuses).toEqual(expect.arrayContaining(['400', '401', '429']));
    if (method !== 'get') expect(described['requestBody']).toBeDefined();
  }
});

test('every list comes in pages, and is asked alike', () => {
  for (const [id, { list }, described] of operations) {
    const names = (described['parameters'] as { name: string }[]).map(({ name }) => name);
    expect([id, names.includes('after') && names.includes('limit')]).toEqual([id, list !== undefined]);
  }
});

test('an answer that differs from what is said is found', () => {
  const plain = { items: [], next: null };
  expect(faultOf('machines', 200, 'application/json', plain)).toBeNull();
  expect(faultOf('machines', 200, 'application/json', { items: [] })).toMatch(/next/);
  expect(faultOf('machines', 200, 'application/json', { ...plain, more: 1 })).toMatch(/additional/);
  expect(faultOf('machines', 200, 'application/json', { items: [{ id: 1 }], next: null })).not.toBeNull();
  expect(faultOf('machines', 418, 'application/json', plain)).toMatch(/418/);
  expect(faultOf('machines', 200, 'text/csv', '')).toMatch(/text\/csv/);
});

test('it is served to whoever works here, with the page that shows it', async () => {
  const shop = await openShop();
  const { body } = await shop.api.get('/api/openapi.json').expect(200);
  expect(body).toEqual(JSON.parse(JSON.stringify(document)));
  await shop.device().get('/api/openapi.json').expect(401);
  await shop.api.get('/api/docs').expect(200).expect('Content-Type', /html/);
  await shop.api.get('/api/docs/swagger-ui.css').expect(200);
  await shop.api.get('/api/docs/package.json').expect(404);
  await shop.close();
});

test('a question that is not known is refused everywhere', async () => {
  const shop = await openShop();
  for (const { path: address, method, takes } of routes) {
    if (takes) continue;
    const filled = address.replace(/:(\w+)/g, (_, name: string) => (name === 'list' ? 'machines' : newId()));
    const request = shop.api[method](`/api${filled}?surprise=1`);
    const { status, body } = await (method === 'get' ? request : request.send({}));
    expect([address, status, body.error?.fields]).toEqual([
      address,
      400,
      expect.objectContaining({ surprise: expect.any(String) }),
    ]);
  }
  await shop.close();
});
