import { spawn, type ChildProcess } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import fs from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import tls from 'node:tls';
import { pathToFileURL } from 'node:url';
import { makeAuthority, signServer } from './authority';

const MAIN = path.resolve(__dirname, '../main.ts');
const CLOCK = path.resolve(__dirname, '../../../../e2e/clockAhead.mjs');
const DAY = 86_400_000;

let data: string;
const running = new Set<ChildProcess>();
beforeEach(() => {
  data = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-serve-'));
});
afterEach(() => {
  for (const child of running) child.kill('SIGKILL');
  running.clear();
  fs.rmSync(data, { recursive: true, force: true });
});

interface Started {
  port: number;
  said: string;
  child: ChildProcess;
}

/** A server that is open to the network. */
async function start(env: Record<string, string> = {}, folder = data): Promise<Started> {
  const child = spawn(process.execPath, ['--import', 'tsx', '--import', pathToFileURL(CLOCK).href, MAIN], {
    env: {
      ...process.env,
      ...{ EVEN_BED_DATA: folder, PORT: '0', EVEN_BED_BACKUPS: '0', EVEN_BED_HOST: '0.0.0.0', LOG_LEVEL: 'silent' },
      ...env,
    },
  });
  running.add(child);
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
  await new Promise<void>((resolve) => {
    child.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      if (env['EVEN_BED_HTTPS'] === 'none' || env['EVEN_BED_CERT'] ? /data lies/.test(said) : /Fingerprint/.test(said))
        resolve();
    });
    child.on('exit', () => resolve());
  });
  return { port: Number(/open at https?:\/\/[^:]+:(\d+)/.exec(said)?.[1]), said, child };
}

interface Got {
  status: number;
  headers: http.IncomingHttpHeaders;
  body: Buffer;
}

const get = (module: typeof http | typeof https, options: https.RequestOptions) =>
  new Promise<Got>((resolve, reject) => {
    const request = module.request({ host: '127.0.0.1', agent: false, ...options }, (answer) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => chunks.push(chunk));
      answer.on('end', () =>
        resolve({ status: answer.statusCode!, headers: answer.headers, body: Buffer.concat(chunks) }),
      );
    });
    request.on('error', reject);
    request.end();
  });

const pemOf = (der: Buffer) => new X509Certificate(der).toString();

test('one port: http shows the way alone, the authority is given out, and https is taken by whoever trusts it', async () => {
  const { port, said } = await start();
  expect(said).toContain(`open at https://localhost:${port}`);
  const away = await get(http, { port, path: '/floor?x=1' });
  expect([away.status, away.headers.location]).toEqual([308, `https://127.0.0.1:${port}/floor?x=1`]);
  expect((await get(http, { port, path: '/api/health', method: 'POST' })).status).toBe(308);
  expect((await get(http, { port, path: '/', headers: { Host: 'rebound.example' } })).status).toBe(421);

  const file = await get(http, { port, path: '/trust/even-bed.crt' });
  const ca = pemOf(file.body);
  expect(file.headers['content-type']).toBe('application/x-x509-ca-cert');
  const page = (await get(http, { port, path: '/trust' })).body.toString();
  const fingerprint = /Fingerprint of the shop’s certificate: ([0-9A-F ]+)/.exec(said)![1]!.trim();
  expect(page).toContain(fingerprint);
  expect(new X509Certificate(ca).fingerprint256.replaceAll(':', '')).toBe(fingerprint.replaceAll(' ', ''));

  const health = await get(https, { port, path: '/api/health', ca });
  expect([health.status, health.headers['content-type']]).toEqual([200, 'application/json; charset=utf-8']);
  expect((await get(https, { port, path: '/trust', ca })).status).toBe(200);
  await expect(get(https, { port, path: '/api/health' })).rejects.toThrow(/self.signed|verify|issuer/i);
  // By the name and every address of this host.
  for (const address of Object.values(os.networkInterfaces()).flatMap((list) => list ?? []))
    if (address.family === 'IPv4')
      expect((await get(https, { host: address.address, port, path: '/api/health', ca })).status).toBe(200);
  expect((await get(https, { port, path: '/api/health', ca, servername: os.hostname() })).status).toBe(200);
}, 60_000);

test('those who say nothing, half a word or nonsense take nobody’s place', async () => {
  const { port } = await start();
  const ca = pemOf((await get(http, { port, path: '/trust/even-bed.crt' })).body);
  const silent = Array.from({ length: 200 }, () => net.connect(port, '127.0.0.1').on('error', () => undefined));
  for (const text of ['\x16', '\x16\x03\x01', 'GET', '\0\0\0', '\x16'.repeat(4_000)])
    net
      .connect(port, '127.0.0.1')
      .on('error', () => undefined)
      .write(text);
  expect((await get(https, { port, path: '/api/health', ca })).status).toBe(200);
  expect((await get(http, { port, path: '/' })).status).toBe(308);
  for (const socket of silent) socket.destroy();
  await expect(
    new Promise((resolve, reject) =>
      tls
        .connect({ port, ca, maxVersion: 'TLSv1.1', minVersion: 'TLSv1' })
        .on('secureConnect', resolve)
        .on('error', reject),
    ),
  ).rejects.toThrow();
}, 60_000);

test('the authority stays over starts, the certificate is renewed under a moved clock, and stopping ends it', async () => {
  const first = await start();
  const ca = pemOf((await get(http, { port: first.port, path: '/trust/even-bed.crt' })).body);
  const certAt = (port: number) =>
    new Promise<X509Certificate>((resolve, reject) => {
      const socket = tls.connect(
        { host: '127.0.0.1', port, rejectUnauthorized: false, servername: 'localhost' },
        () => {
          const cert = new X509Certificate(socket.getPeerCertificate().raw);
          // What counts from tomorrow's clock on is not valid by ours: its signature is.
          expect(cert.verify(new X509Certificate(ca).publicKey)).toBe(true);
          resolve(cert);
          socket.destroy();
        },
      );
      socket.on('error', reject);
    });
  const before = await certAt(first.port);
  const gone = new Promise((resolve) => first.child.once('exit', resolve));
  first.child.kill('SIGTERM');
  expect(await gone).toBe(0);
  const later = await start({ CLOCK_AHEAD_MS: String(70 * DAY) });
  const after = await certAt(later.port);
  expect(Date.parse(after.validTo)).toBeGreaterThan(Date.parse(before.validTo) + 60 * DAY);
  expect(pemOf((await get(http, { port: later.port, path: '/trust/even-bed.crt' })).body)).toBe(ca);
}, 60_000);

test('two servers and two names: each has an authority of its own, and a name that is added is in the certificate', async () => {
  const other = path.join(data, 'other');
  const [one, two] = [await start({ EVEN_BED_HOSTS: 'hall.example' }), await start({}, other)];
  const caOf = async ({ port }: Started) => pemOf((await get(http, { port, path: '/trust/even-bed.crt' })).body);
  const [first, second] = [await caOf(one), await caOf(two)];
  expect(first).not.toBe(second);
  expect(
    (
      await get(https, {
        port: one.port,
        path: '/api/health',
        ca: first,
        servername: 'hall.example',
        headers: { Host: 'hall.example' },
      })
    ).status,
  ).toBe(200);
  await expect(get(https, { port: two.port, path: '/api/health', ca: first })).rejects.toThrow();
  await expect(
    get(https, { port: two.port, path: '/api/health', ca: second, servername: 'hall.example' }),
  ).rejects.toThrow(/hall\.example|altnames/);
}, 60_000);

test('a certificate of one’s own is served as it is; one that can’t be read is said in words', async () => {
  const authority = await makeAuthority({ shop: 'own', names: [], now: Date.now() });
  const { cert, key } = await signServer(authority, { names: ['localhost', '127.0.0.1'], now: Date.now() });
  const files = { EVEN_BED_CERT: path.join(data, 'own.crt'), EVEN_BED_KEY: path.join(data, 'own.key') };
  fs.writeFileSync(files.EVEN_BED_CERT, cert);
  fs.writeFileSync(files.EVEN_BED_KEY, key);
  const { port } = await start(files);
  expect((await get(https, { port, path: '/api/health', ca: authority.cert })).status).toBe(200);
  // Nothing has to be trusted by hand: that page is the app's.
  expect((await get(http, { port, path: '/trust/even-bed.crt' })).status).toBe(308);
  fs.writeFileSync(files.EVEN_BED_KEY, 'nonsense');
  const failed = await start(files, path.join(data, 'third'));
  expect(failed.said).toContain('can’t be used');
  expect(failed.said).not.toMatch(/\n\s+at /);
}, 60_000);
