import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Koa from 'koa';
import request from 'supertest';
import { serveClient } from './client';

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-client-'));
fs.writeFileSync(path.join(folder, 'index.html'), '<html>the app</html>');
fs.mkdirSync(path.join(folder, 'js'));
fs.writeFileSync(path.join(folder, 'js/entry-0123456789abcdef0123456789abcdef.js'), 'run();');
fs.writeFileSync(path.join(folder, 'service-worker.js'), 'keep();');
afterAll(() => fs.rmSync(folder, { recursive: true }));

const app = new Koa();
serveClient(app, folder);
const client = request(app.callback());

test.each(['/', '/bench', '/floor/0190a0a0-0000-7000-8000-000000000001/edit'])(
  '%s gets the one page, never kept',
  async (address) => {
    const answer = await client.get(address).set('Accept', 'text/html').expect(200);
    expect(answer.text).toContain('the app');
    expect(answer.headers['cache-control']).toBe('no-cache');
  },
);

test('files with a hash in their name are kept for good, others are asked for again', async () => {
  const hashed = await client.get('/js/entry-0123456789abcdef0123456789abcdef.js').expect(200);
  expect(hashed.headers['cache-control']).toContain('immutable');
  const plain = await client.get('/service-worker.js').expect(200);
  expect(plain.headers['cache-control']).toBe('no-cache');
});

test('a missing file is missing, and nothing outside the folder is served', async () => {
  await client.get('/js/missing.js').set('Accept', '*/*').expect(404);
  await client.get('/bench').set('Accept', 'application/json').expect(404);
  await client.post('/bench').expect(404);
  const answer = await client.get('/..%2f..%2fetc%2fpasswd').set('Accept', '*/*');
  expect(answer.text).not.toContain('root:');
});
