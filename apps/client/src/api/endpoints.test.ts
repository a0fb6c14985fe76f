import { configureStore } from '@reduxjs/toolkit';
import { operations } from '@even-bed/contract/kit/operation';
import type { Page } from '@even-bed/contract';
import { api } from './api';
import { connectionSlice } from './connectionSlice';
import { endpointsOf } from './endpoints';

interface Bolt {
  id: string;
  size: number;
}
interface BoltAnswers {
  bolts: Page<Bolt>;
  bolt: Bolt;
  saveBolt: Bolt;
  loosen: { loosened: boolean };
  drawBolt: Bolt;
}

/** A made-up area: that its hooks, addresses and bodies follow from this alone is what is tested. */
const boltOperations = operations<object, BoltAnswers>()('bolts', {
  bolts: {
    method: 'get',
    path: '/bolts',
    access: 'looker',
    summary: 'All bolts',
    answers: 'A page of bolts.',
    list: { usual: 2, most: 10 },
    shows: ['Machine'],
  },
  bolt: {
    method: 'get',
    path: '/racks/:rackId/bolts/:id',
    access: 'looker',
    summary: '',
    answers: '',
    shows: ['Machine'],
  },
  saveBolt: { method: 'put', path: '/bolts/:id', access: 'lead', summary: '', answers: '', touches: ['Machine'] },
  loosen: { method: 'post', path: '/bolts/:id/loosen', access: 'lead', summary: '', answers: '', touches: ['Machine'] },
  drawBolt: {
    method: 'put',
    path: '/bolts/:id/drawing',
    access: 'lead',
    summary: '',
    answers: '',
    takes: { types: ['image/png', 'image/jpeg'], limit: 10, tooLarge: '' },
  },
});
const boltApi = endpointsOf(boltOperations);

const newStore = () =>
  configureStore({
    reducer: { [api.reducerPath]: api.reducer, connection: connectionSlice.reducer },
    middleware: (get) => get({ serializableCheck: false }).concat(api.middleware),
    // No frames are drawn here.
    enhancers: (get) => get({ autoBatch: { type: 'tick' } }),
  });

/** As browsers do, an address without a host is taken. */
class PageRequest {
  readonly method: string;
  readonly headers: Headers;
  readonly body: unknown;
  constructor(
    readonly url: string,
    init: { method?: string; headers?: HeadersInit; body?: unknown } = {},
  ) {
    this.method = init.method ?? 'GET';
    this.headers = new Headers(init.headers);
    this.body = init.body;
  }
  clone() {
    return this;
  }
}
const RealRequest = globalThis.Request;
beforeAll(() => {
  globalThis.Request = PageRequest as unknown as typeof Request;
});
afterAll(async () => {
  globalThis.Request = RealRequest;
  // What the stores still have in hand ends before the test does.
  await new Promise((resolve) => setTimeout(resolve, 300));
});

let asked: { method: string; url: string; headers: Headers; body: unknown }[];
let answers: (url: string) => unknown;
beforeEach(() => {
  asked = [];
  globalThis.fetch = (async ({ method, url, headers, body }: PageRequest) => {
    asked.push({ method, url, headers, body });
    const answer = answers(url);
    if (answer === undefined) throw new TypeError('no network');
    return new Response(JSON.stringify(answer), { headers: { 'Content-Type': 'application/json' } });
  }) as unknown as typeof fetch;
});

const BOLTS: Bolt[] = [1, 2, 3, 4, 5].map((size) => ({ id: `b${size}`, size }));
/** A server with pages of two. */
const inPages = (url: string): Page<Bolt> => {
  const after = new URL(url, 'http://x').searchParams.get('after');
  const from = BOLTS.findIndex(({ id }) => id === after) + 1;
  const items = BOLTS.slice(from, from + 2);
  return { items, next: from + 2 < BOLTS.length ? items[1]!.id : null };
};

test('a list is followed to its end, and asked so many it ends there', async () => {
  answers = inPages;
  const store = newStore();
  const { data } = await store.dispatch(boltApi.endpoints.bolts.initiate());
  expect(data).toEqual(BOLTS);
  expect(asked.map(({ url }) => url)).toEqual(['/api/bolts', '/api/bolts?after=b2', '/api/bolts?after=b4']);
  asked = [];
  const few = await store.dispatch(boltApi.endpoints.bolts.initiate({ limit: 2 }));
  expect(few.data).toHaveLength(2);
  expect(asked.map(({ url }) => url)).toEqual(['/api/bolts?limit=2']);
});

test('a server whose list never ends keeps nobody busy for ever', async () => {
  answers = () => ({ items: [BOLTS[0]], next: 'again' });
  const { data } = await newStore().dispatch(boltApi.endpoints.bolts.initiate());
  expect(data!.length).toBeLessThanOrEqual(200);
});

test('in pages it goes on where the one before ended', async () => {
  answers = inPages;
  const store = newStore();
  const first = await store.dispatch(boltApi.endpoints.boltsPages.initiate());
  expect(first.data!.pages).toHaveLength(1);
  const second = await store.dispatch(boltApi.endpoints.boltsPages.initiate(undefined, { direction: 'forward' }));
  expect(second.data!.pages.flatMap(({ items }) => items)).toEqual(BOLTS.slice(0, 4));
});

test('names in the path are filled in, whatever they hold; nothing that is null is asked', async () => {
  answers = () => BOLTS[0];
  await newStore().dispatch(boltApi.endpoints.bolt.initiate({ rackId: 'a/b?', id: 'b 1' }));
  expect(asked[0]!.url).toBe('/api/racks/a%2Fb%3F/bolts/b%201');
});

test('a write carries its key, one of its own when none is given, and makes old what it touches', async () => {
  answers = (url) =>
    url.includes('loosen') ? { loosened: true } : url.startsWith('/api/bolts?') ? inPages(url) : BOLTS[0];
  const store = newStore();
  void store.dispatch(boltApi.endpoints.bolts.initiate({ limit: 2 }));
  await store.dispatch(boltApi.endpoints.loosen.initiate({ id: 'b1', key: 'my-own-key' }));
  await store.dispatch(boltApi.endpoints.loosen.initiate({ id: 'b1' }));
  const writes = asked.filter(({ method }) => method === 'POST');
  expect(writes.map(({ url }) => url)).toEqual(['/api/bolts/b1/loosen', '/api/bolts/b1/loosen']);
  expect(writes[0]!.headers.get('Idempotency-Key')).toBe('my-own-key');
  expect(writes[1]!.headers.get('Idempotency-Key')).toMatch(/^[0-9a-f-]{36}$/);
  expect(JSON.parse(writes[0]!.body as string)).toEqual({});
  const lists = () => asked.filter(({ url }) => url.startsWith('/api/bolts?')).length;
  for (let i = 0; i < 100 && lists() < 2; i++) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(lists()).toBeGreaterThan(1);
});

test('a file goes as it is, under a type that is taken', async () => {
  answers = () => BOLTS[0];
  const file = new Blob(['x'], { type: 'application/x-strange' });
  await newStore().dispatch(boltApi.endpoints.drawBolt.initiate({ id: 'b1', key: 'k-k-k-k-k', file }));
  expect(asked[0]).toMatchObject({ method: 'PUT', url: '/api/bolts/b1/drawing' });
  expect(asked[0]!.headers.get('Content-Type')).toBe('image/png');
});

test('without an answer the page knows since when it is old, and with the next one it is new again', async () => {
  answers = () => undefined;
  const store = newStore();
  const before = Date.now();
  await store.dispatch(boltApi.endpoints.bolt.initiate({ rackId: 'r', id: 'b1' }));
  const since = store.getState().connection.oldSince;
  expect(since).not.toBeNull();
  expect(since!).toBeLessThanOrEqual(before + 1_000);
  answers = () => BOLTS[0];
  await store.dispatch(boltApi.endpoints.bolt.initiate({ rackId: 'r', id: 'b2' }));
  expect(store.getState().connection.oldSince).toBeNull();
});
