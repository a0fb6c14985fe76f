import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Koa from 'koa';
import request from 'supertest';
import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { inlineScripts, serveClient } from './client';

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

test('what the build has packed goes out packed, to whoever takes it', async () => {
  const file = path.join(folder, 'js/piece-0123456789abcdef0123456789abcdef.js');
  fs.writeFileSync(file, 'run(1);');
  fs.writeFileSync(`${file}.gz`, gzipSync('run(1);'));
  const address = `/js/${path.basename(file)}`;
  const packed = await client.get(address).set('Accept-Encoding', 'gzip').expect(200);
  expect(packed.headers['content-encoding']).toBe('gzip');
  expect(packed.headers['vary']).toContain('Accept-Encoding');
  expect(packed.headers['cache-control']).toContain('immutable');
  const plain = await client.get(address).set('Accept-Encoding', 'identity').expect(200);
  expect(plain.headers['content-encoding']).toBeUndefined();
  for (const answer of [packed, plain]) expect(String(answer.body.length ? answer.body : answer.text)).toBe('run(1);');
});

test('the policy lets just the scripts run that stand in the page', () => {
  const own = fs.mkdtempSync(path.join(folder, 'page-'));
  expect(inlineScripts(own)).toEqual([]);
  fs.writeFileSync(path.join(own, 'index.html'), '<script src="/a.js" defer></script><script>ask();</script>');
  const hash = createHash('sha256').update('ask();').digest('base64');
  expect(inlineScripts(own)).toEqual([`'sha256-${hash}'`]);
});
