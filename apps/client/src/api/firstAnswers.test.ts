import { firstOrFetch } from './firstAnswers';

const page = globalThis as { evenBedFirst?: unknown; fetch: unknown };
const before = page.fetch;
let fetched: string[];
const ask = (path: string, method = 'GET') => firstOrFetch(new Request(`http://shop.test${path}`, { method }));
const said = async (answer: Promise<Response>) => (await answer).text();

beforeEach(() => {
  fetched = [];
  page.fetch = (input: Request) => {
    fetched.push(new URL(input.url).pathname);
    return Promise.resolve(new Response('asked'));
  };
});
afterEach(() => {
  page.fetch = before;
  delete page.evenBedFirst;
});
const first = (answer: Promise<Response>, at = Date.now()) => {
  const answers = new Map([['/api/machines?limit=5', answer]]);
  page.evenBedFirst = { answers, at };
  return answers;
};

test('what was asked beside the code is taken once, and asked for after that', async () => {
  first(Promise.resolve(new Response('there')));
  expect(await said(ask('/api/machines?limit=5'))).toBe('there');
  expect(await said(ask('/api/machines?limit=5'))).toBe('asked');
  expect(fetched).toEqual(['/api/machines']);
});

test('another address or another query is asked', async () => {
  const answers = first(Promise.resolve(new Response('there')));
  expect(await said(ask('/api/surfaces'))).toBe('asked');
  expect(await said(ask('/api/machines?limit=6'))).toBe('asked');
  expect(answers.size).toBe(1);
});

test('a write makes what was asked before it old: somebody signs in', async () => {
  const answers = first(Promise.resolve(new Response('there')));
  expect(await said(ask('/api/session', 'POST'))).toBe('asked');
  expect(answers.size).toBe(0);
  expect(await said(ask('/api/machines?limit=5'))).toBe('asked');
});

test('what was refused is asked anew', async () => {
  first(Promise.resolve(new Response('who are you?', { status: 401 })));
  expect(await said(ask('/api/machines?limit=5'))).toBe('asked');
});

test('what failed on its way is asked anew', async () => {
  first(Promise.reject(new TypeError('no signal')));
  expect(await said(ask('/api/machines?limit=5'))).toBe('asked');
});

test('an answer from long ago is no answer', async () => {
  const answers = first(Promise.resolve(new Response('there')), Date.now() - 16_000);
  expect(await said(ask('/api/machines?limit=5'))).toBe('asked');
  expect(answers.size).toBe(0);
});
