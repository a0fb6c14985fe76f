import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { BookHappening } from '@even-bed/contract';
import { newId, NOW, openShop, type Shop } from '../app/shop.fixture';

let shop: Shop;
let server: http.Server;
let port: number;
beforeEach(async () => {
  shop = await openShop();
  server = http.createServer(shop.app.callback());
  await new Promise<void>((resolve) => server.listen(0, resolve));
  port = (server.address() as AddressInfo).port;
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await shop.close();
});

/** Follows the shop; `heard` fills as events come. */
async function follow(token: string, headers: Record<string, string> = {}, query = '') {
  const heard: BookHappening[] = [];
  let ended = false;
  const request = http.get({
    port,
    path: `/api/events${query}`,
    headers: { Authorization: `Bearer ${token}`, ...headers },
  });
  const response = await new Promise<http.IncomingMessage>((resolve) => request.once('response', resolve));
  let text = '';
  response.on('data', (chunk: Buffer) => {
    text += chunk.toString();
    const parts = text.split('\n\n');
    text = parts.pop()!;
    for (const part of parts) {
      const data = /^data: (.*)$/m.exec(part)?.[1];
      if (data) heard.push(JSON.parse(data) as BookHappening);
      expect(part.startsWith(':') || part.startsWith('id: ')).toBe(true);
    }
  });
  response.on('close', () => (ended = true));
  response.on('error', () => undefined);
  const until = async (count: number) => {
    for (let i = 0; i < 200 && heard.length < count; i++) await new Promise((resolve) => setTimeout(resolve, 10));
    return heard.map(({ kind }) => kind);
  };
  return {
    status: response.statusCode,
    type: response.headers['content-type'],
    heard,
    until,
    end: () => request.destroy(),
    hasEnded: () => ended,
  };
}

async function programToken(): Promise<{ id: string; token: string }> {
  const id = newId();
  const { body } = await shop.api.put(`/api/program-tokens/${id}`).send({ name: 'display', at: NOW }).expect(201);
  return { id, token: body.token as string };
}
const addArea = (name: string) =>
  shop.api.put(`/api/areas/${newId()}`).send({ name, position: 3, version: 0, at: NOW }).expect(200);

test('each line is told as it is written, with its running number, and none before', async () => {
  const { token } = await programToken();
  const { status, type, heard, until, end } = await follow(token);
  expect([status, type]).toEqual([200, 'text/event-stream']);
  await addArea('Loft');
  await addArea('Cellar');
  expect(await until(2)).toEqual(['area-added', 'area-added']);
  const { body } = await shop.api.get('/api/book?limit=1').expect(200);
  expect(heard[1]!.seq).toBe(body.items[0].seq);
  end();
});

test('begun again after the line heard last it misses none and tells none twice', async () => {
  const { token } = await programToken();
  const first = await follow(token);
  await addArea('Loft');
  await first.until(1);
  first.end();
  await addArea('Cellar');
  await addArea('Attic');
  const last = first.heard[0]!.seq;
  const again = await follow(token, { 'Last-Event-ID': String(last) });
  await again.until(2);
  expect(again.heard.map(({ seq }) => seq)).toEqual([last + 1, last + 2]);
  again.end();
  const asked = await follow(token, {}, `?after=${last + 1}`);
  await asked.until(1);
  expect(asked.heard.map(({ seq }) => seq)).toEqual([last + 2]);
  asked.end();
});

test('a write that is refused tells nothing', async () => {
  const { token } = await programToken();
  const { heard, until, end } = await follow(token);
  await shop.api.put(`/api/areas/${newId()}`).send({ name: '', position: 3, version: 0, at: NOW }).expect(422);
  await addArea('Loft');
  await until(1);
  expect(heard).toHaveLength(1);
  end();
});

test('a book of many lines is told in parts, in order', async () => {
  const { token } = await programToken();
  for (let i = 0; i < 450; i++)
    await shop
      .db('areas')
      .insert({ id: newId(), name: `a${i}`, position: i, version: 1 })
      .catch(() => undefined);
  const before = ((await shop.db('book').max('seq as seq').first()) as { seq: number }).seq;
  for (let i = 0; i < 230; i++) await addArea(`Room ${i}`);
  const { heard, until, end } = await follow(token, { 'Last-Event-ID': String(before) });
  await until(230);
  expect(heard.map(({ seq }) => seq)).toEqual(Array.from({ length: 230 }, (_, i) => before + 1 + i));
  end();
}, 60_000);

test('a token that is revoked hears nothing more', async () => {
  const { id, token } = await programToken();
  const { heard, hasEnded } = await follow(token);
  await shop.api.post(`/api/tokens/${id}/revoke`).send({}).expect(200);
  await addArea('Loft');
  for (let i = 0; i < 200 && !hasEnded(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(hasEnded()).toBe(true);
  expect(heard).toEqual([]);
});

test('whoever is signed out, or a machine, does not follow', async () => {
  await shop.device().get('/api/events').expect(401);
  const { body } = await shop.api
    .put(`/api/machines/${shop.machineId}/tokens/${newId()}`)
    .send({ name: 'console', at: NOW })
    .expect(201);
  await shop.device().get('/api/events').set('Authorization', `Bearer ${body.token}`).expect(403);
});

test('one who listens from many places leaves room for others', async () => {
  const [one, other] = [await programToken(), await programToken()];
  const open = [];
  for (let i = 0; i < 12; i++) open.push(await follow(one.token));
  expect(open.every(({ status }) => status === 200)).toBe(true);
  expect((await follow(one.token)).status).toBe(429);
  expect((await follow(other.token)).status).toBe(200);
  open[0]!.end();
  for (let i = 0; i < 100; i++) {
    const again = await follow(one.token);
    if (again.status === 200) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('the place of one that closed is never given back');
});
