import http from 'node:http';
import type { AddressInfo } from 'node:net';
import pino from 'pino';
import request from 'supertest';
import { buildApp } from './app';
import { facts, newId, NOW, openShop, type Shop } from './shop.fixture';
import { once } from '../kernel/once';
import { errorAnswer } from './errorAnswer';

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const SECRETS = /SQLITE|select |insert |node_modules|\.ts:|stack/i;

describe('the edge', () => {
  test('health, security headers, a content policy without unsafe-eval', async () => {
    const answer = await shop.api.get('/api/health').expect(200, { ok: true, database: 'ready' });
    const policy = answer.headers['content-security-policy']!;
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain('unsafe-eval');
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
  });

  test.each([
    ['nothing there', 'get', '/api/nowhere', 404, 'not-found'],
    ['no such machine', 'get', `/api/machines/${newId()}`, 404, 'not-found'],
    ['a bad query', 'get', '/api/book?limit=9999', 400, 'not-valid'],
    ['an unknown query', 'get', '/api/book?wanted=1', 400, 'not-valid'],
    ['a query where none is taken', 'get', '/api/machines?wanted=1', 400, 'not-valid'],
  ] as const)('%s', async (_, method, path, status, code) => {
    const answer = await shop.api[method](path).expect(status);
    expect(answer.body.error.code).toBe(code);
    expect(answer.text).not.toMatch(SECRETS);
  });

  test('JSON that is none, another type, too much of it, another site', async () => {
    const put = () => shop.api.put(`/api/areas/${newId()}`);
    const bad = await put().set('Content-Type', 'application/json').send('{"name":').expect(400);
    expect(bad.body.error.code).toBe('bad-json');
    expect((await put().set('Content-Type', 'text/plain').send('name=x').expect(415)).body.error.code).toBe(
      'json-only',
    );
    expect(
      (
        await put()
          .send({ name: 'x'.repeat(2_100_000) })
          .expect(413)
      ).body.error.code,
    ).toBe('too-large');
    const body = { name: 'Loft', position: 1, version: 0, at: NOW };
    expect((await put().set('Sec-Fetch-Site', 'cross-site').send(body).expect(403)).body.error.code).toBe('other-site');
    await put().set('Sec-Fetch-Site', 'same-origin').send(body).expect(200);
  });

  test('an id counts in either case', async () => {
    const { body } = await shop.api.get(`/api/machines/${shop.machineId.toUpperCase()}`).expect(200);
    expect(body.id).toBe(shop.machineId);
    const id = newId();
    await shop.api.put(`/api/areas/${id.toUpperCase()}`).send({ name: 'Loft', position: 1, version: 0, at: NOW });
    const areas = (await shop.api.get('/api/areas').expect(200)).body.items as { id: string }[];
    expect(areas.map((area) => area.id)).toContain(id);
    await shop.api
      .put(`/api/machines/${newId()}`)
      .send({ ...facts(id.toUpperCase(), { name: 'Knot' }), version: 0, at: NOW })
      .expect(200);
  });

  test('who has what there is gets 304, and the whole again once it changed', async () => {
    const first = await shop.api.get('/api/machines').expect(200);
    const tag = first.headers['etag']!;
    expect(tag).toMatch(/^"|^W\//);
    const again = await shop.api.get('/api/machines').set('If-None-Match', tag).expect(304);
    expect(again.text).toBe('');
    await shop.api
      .put(`/api/machines/${newId()}`)
      .send({ ...facts(shop.areaId, { name: 'Knot' }), version: 0, at: NOW })
      .expect(200);
    await shop.api.get('/api/machines').set('If-None-Match', tag).expect(200);
  });

  test('a fault inside says nothing of the inside', async () => {
    await shop.db.schema.dropTable('made_turns');
    await shop.db.schema.dropTable('adjusters');
    const answer = await shop.api.get('/api/machines').expect(500);
    expect(answer.body).toEqual({ error: { code: 'internal', message: expect.stringContaining('Nothing was saved') } });
    expect(answer.text).not.toMatch(SECRETS);
    expect(errorAnswer(new Error('SQLITE_BUSY: select * from x')).body.error.message).not.toMatch(SECRETS);
  });
});

test.each([
  '/..%2fetc/passwd',
  '/..%2f..%2f..%2fetc%2fpasswd',
  '/%',
  '/%00',
  '/%2e%2e/x',
  '/api/machines/%',
  '/api/%E0%A4%A',
])('%s leads nowhere, and breaks nothing', async (address) => {
  const app = buildApp({ db: shop.db, log: pino({ level: 'silent' }), now: () => NOW, clientFolder: __dirname });
  const server = http.createServer(app.callback());
  await new Promise<void>((resolve) => server.listen(0, resolve));
  // As it stands: a client that tidies addresses up would ask for another one.
  const { port } = server.address() as AddressInfo;
  const status = await new Promise<number>((resolve, reject) =>
    http.get({ port, path: address }, (answer) => resolve(answer.resume().statusCode!)).on('error', reject),
  );
  await new Promise((resolve) => server.close(resolve));
  expect([400, 401, 404]).toContain(status);
});

describe('everybody has a share', () => {
  /** Asks one after the other, many at a time, until it is too much. */
  async function until429(most: number, ask: () => Promise<{ status: number }>): Promise<number> {
    for (let asked = 0; asked < most; asked += 50) {
      const answers = await Promise.all(Array.from({ length: 50 }, ask));
      if (answers.some(({ status }) => status === 429)) return asked;
    }
    return most;
  }

  test('tokens that nobody gave are paced by address, and the shop still serves its people', async () => {
    const guess = () => shop.device().get('/api/machines').set('Authorization', `Bearer ${newId()}`);
    expect(await until429(1_000, guess)).toBeLessThan(900);
    await shop.api.get('/api/machines').expect(200);
  }, 30_000);

  test('behind a proxy it is the address that the proxy saw, not one that the caller made up', async () => {
    const app = buildApp({ db: shop.db, log: pino({ level: 'silent' }), now: () => NOW, proxies: 1 });
    const server = request(app.callback());
    let n = 0;
    const forged = () => {
      n += 1;
      return server.get('/api/session').set('X-Forwarded-For', `10.0.${n >> 8}.${n & 255}, 192.168.7.7`);
    };
    expect(await until429(1_000, forged)).toBeLessThan(900);
    await server.get('/api/session').set('X-Forwarded-For', '192.168.7.8').expect(200);
  }, 30_000);
});

describe('a write sent twice', () => {
  const body = { name: 'Loft', position: 1, version: 0, at: NOW };
  const entries = () =>
    shop
      .db('book')
      .count('* as n')
      .first()
      .then((row) => Number(row!['n']));

  test('is done once and answered twice', async () => {
    const id = newId();
    const key = newId();
    const first = await shop.api.put(`/api/areas/${id}`).set('Idempotency-Key', key).send(body).expect(200);
    const before = await entries();
    const again = await shop.api.put(`/api/areas/${id}`).set('Idempotency-Key', key).send(body).expect(200);
    expect(again.body).toEqual(first.body);
    expect(await entries()).toBe(before);
  });

  test('with other content is refused, and a key that is none too', async () => {
    const id = newId();
    const key = newId();
    await shop.api.put(`/api/areas/${id}`).set('Idempotency-Key', key).send(body).expect(200);
    const answer = await shop.api
      .put(`/api/areas/${id}`)
      .set('Idempotency-Key', key)
      .send({ ...body, name: 'Attic' })
      .expect(409);
    expect(answer.body.error.code).toBe('key-reused');
    await shop.api.put(`/api/areas/${id}`).set('Idempotency-Key', 'x y').send(body).expect(400);
  });

  test('that fails leaves nothing behind, not even its key', async () => {
    const failing = () =>
      once(shop.db, { key: 'key-of-a-failure', content: 'c', now: NOW }, async (trx) => {
        await trx('areas').insert({
          id: newId(),
          name: 'Half',
          position: 9,
          version: 1,
          created_at: NOW,
          updated_at: NOW,
        });
        throw new Error('halfway');
      });
    await expect(failing()).rejects.toThrow('halfway');
    expect(await shop.db('areas').where({ name: 'Half' })).toEqual([]);
    expect(await shop.db('writes').where('key', 'key-of-a-failure')).toEqual([]);
  });
});

describe('machines', () => {
  test('are kept with everything, and a change says what changed', async () => {
    const path = `/api/machines/${shop.machineId}`;
    const { body: machine } = await shop.api.get(path).expect(200);
    expect(machine).toMatchObject({
      ...facts(shop.areaId, { tag: 'M-001' }),
      areaName: 'Long Room',
      version: 1,
      rule: null,
      lastCheck: null,
      top: null,
      openCheckId: null,
      heldUntil: null,
    });
    const change = facts(shop.areaId, {
      firstLayer: 0.24,
      seenFrom: 'below',
      mapExtent: { x0: 15, y0: 15, x1: 210, y1: 210 },
      mapFirstRow: 'rear',
    });
    await shop.api
      .put(path)
      .send({ ...change, version: 1, at: NOW + 1 })
      .expect(200);
    const { body: book } = await shop.api.get(`/api/book?machineId=${shop.machineId}`).expect(200);
    expect(book.items[0].text).toBe(
      'Dunlin: changed where its knobs are seen from, first layer, where its height maps lie, first row of its height maps.',
    );
    expect(book.items[0].data.changed.firstLayer).toEqual({ from: 0.2, to: 0.24 });
  });

  test('a stale change gets 409 and both versions', async () => {
    const path = `/api/machines/${shop.machineId}`;
    await shop.api
      .put(path)
      .send({ ...facts(shop.areaId, { shelf: 'B2' }), version: 1, at: NOW })
      .expect(200);
    const answer = await shop.api
      .put(path)
      .send({ ...facts(shop.areaId, { shelf: 'C3' }), version: 1, at: NOW })
      .expect(409);
    expect(answer.body.error.code).toBe('stale');
    expect(answer.body.current).toMatchObject({ shelf: 'B2', version: 2 });
    expect(answer.body.yours).toMatchObject({ shelf: 'C3', version: 1 });
  });

  test('faults are named at their fields', async () => {
    const answer = await shop.api
      .put(`/api/machines/${newId()}`)
      .send({ ...facts(newId(), { name: '' }), version: 0, at: NOW })
      .expect(422);
    expect(answer.body.error.fields).toEqual({ name: 'Name is empty.' });
    const area = await shop.api
      .put(`/api/machines/${newId()}`)
      .send({ ...facts(newId()), version: 0, at: NOW })
      .expect(422);
    expect(area.body.error.fields).toEqual({ areaId: 'This area is not here.' });
  });

  test('a rule gives the next date, and one machine has one of a kind', async () => {
    const rule = { machineId: shop.machineId, kind: 'level', everyDays: 14, version: 0, at: NOW };
    const id = newId();
    expect((await shop.api.put(`/api/rules/${id}`).send(rule).expect(200)).body).toMatchObject({
      nextDueAt: NOW,
      lastDoneAt: null,
      version: 1,
    });
    await shop.api.put(`/api/rules/${newId()}`).send(rule).expect(409);
    await shop.api.put(`/api/rules/${id}`).send(rule).expect(409);
    await shop.api
      .put(`/api/rules/${id}`)
      .send({ ...rule, everyDays: 0, version: 1 })
      .expect(422);
    await shop.api
      .put(`/api/rules/${newId()}`)
      .send({ ...rule, machineId: newId() })
      .expect(404);
  });
});
