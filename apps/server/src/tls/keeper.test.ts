import { X509Certificate } from 'node:crypto';
import fs from 'node:fs';
import https from 'node:https';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import tls from 'node:tls';
import { fingerprintOfCert, makeAuthority, signServer, speaksFor } from './authority';
import { CertificateKeeper, ownNames } from './keeper';

const DAY = 86_400_000;
let folder: string;
let now: number;
let names: string[];
beforeEach(() => {
  folder = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-tls-')), 'tls');
  now = Date.now();
  names = ['bench.local', 'localhost', '127.0.0.1', '192.168.7.20', 'fd00::2'];
});
afterEach(() => fs.rmSync(path.dirname(folder), { recursive: true, force: true }));
const keeper = () => new CertificateKeeper({ folder, names: () => names, now: () => now });

/** Whether a client that trusts an authority takes a server with this certificate under a name; else the reason. */
async function taken(served: { cert: string; key: string }, ca: string, name: string): Promise<string> {
  const server = https.createServer(served, (_, answer) => answer.end('bench'));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const said = await new Promise<string>((resolve) => {
    const socket = tls.connect({
      host: '127.0.0.1',
      port,
      ca,
      checkServerIdentity: (_, cert) => tls.checkServerIdentity(name, cert),
    });
    socket.on('secureConnect', () => resolve('taken'));
    socket.on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
  });
  server.closeAllConnections();
  server.close();
  return said;
}

test('is taken by whoever trusts the authority, under every name and address of the host, and by nobody else', async () => {
  const one = keeper();
  const served = await one.current();
  expect([served.renewed, served.unnamed]).toEqual([true, []]);
  for (const name of names) expect([name, await taken(served, one.authority, name)]).toEqual([name, 'taken']);
  expect(await taken(served, one.authority, 'elsewhere.local')).toBe('ERR_TLS_CERT_ALTNAME_INVALID');
  const stranger = await makeAuthority({ shop: 'stranger', names: [], now });
  expect(await taken(served, stranger.cert, 'localhost')).toMatch(/UNABLE_TO_VERIFY|SELF_SIGNED/);
});

test('keys are read by their owner alone; what was made stays over a start', async () => {
  const first = await keeper().current();
  for (const key of ['authority.key', 'server.key']) expect(fs.statSync(path.join(folder, key)).mode & 0o077).toBe(0);
  const again = await keeper().current();
  expect([again.renewed, again.cert]).toEqual([false, first.cert]);
});

test('is renewed a month before it ends, under the same authority; when a name is new; and when a file is damaged', async () => {
  const one = keeper();
  const first = await one.current();
  const { authority } = one;
  now += 59 * DAY;
  expect((await one.current()).renewed).toBe(false);
  now += 2 * DAY;
  const second = await one.current();
  expect([second.renewed, one.authority]).toEqual([true, authority]);
  expect(new X509Certificate(second.cert).validTo).not.toBe(new X509Certificate(first.cert).validTo);
  names.push('192.168.7.99');
  expect((await one.current()).renewed).toBe(true);
  fs.writeFileSync(path.join(folder, 'server.crt'), 'half a cert');
  const mended = await one.current();
  expect([mended.renewed, one.authority]).toEqual([true, authority]);
  // Never longer than phones take, nor longer than the authority.
  const { validFrom, validTo } = new X509Certificate(mended.cert);
  expect(Date.parse(validTo) - Date.parse(validFrom)).toBeLessThan(397 * DAY);
  // A clock that was far ahead and is right again: what counts later only is not served.
  now -= 300 * DAY;
  expect((await one.current()).renewed).toBe(true);
});

test('an authority that ends is made anew', async () => {
  const one = keeper();
  await one.current();
  const { authority } = one;
  now += 3_640 * DAY;
  await one.current();
  expect(one.authority).not.toBe(authority);
});

test('the authority speaks for no name of the wide net, whoever has its key', async () => {
  const authority = await makeAuthority({ shop: 'hall', names: ['hall.example'], now });
  for (const name of ['bank.example', '93.184.216.34', '2001:db8::1', 'example', 'xlocal'])
    expect([name, speaksFor(authority.cert, name)]).toEqual([name, false]);
  for (const name of ['hall.example', 'bench.hall.example', 'bench.local', '10.1.2.3', '192.168.0.9', 'fd12::1'])
    expect([name, speaksFor(authority.cert, name)]).toEqual([name, true]);
  const forged = await signServer(authority, { names: ['bank.example'], now });
  // RFC 5280, 6.1.4 (g): a name outside the permitted ones fails the whole path.
  expect(await taken(forged, authority.cert, 'bank.example')).not.toBe('taken');
  const fine = await signServer(authority, { names: ['hall.example'], now });
  expect(await taken(fine, authority.cert, 'hall.example')).toBe('taken');
});

test('a name that came later, and that the authority may not speak for, is left out and told', async () => {
  await keeper().current();
  names.push('bench.shop.example');
  const { unnamed, cert } = await keeper().current();
  expect(unnamed).toEqual(['bench.shop.example']);
  expect(new X509Certificate(cert).checkHost('bench.shop.example')).toBeUndefined();
});

test('this host by its names and addresses, and what was added', () => {
  const own = ownNames(['Bench.Local']);
  expect(own[0]).toBe('bench.local');
  expect(own).toEqual(expect.arrayContaining(['localhost', '127.0.0.1']));
  expect(own.filter((name) => name.includes('%'))).toEqual([]);
});

test('the fingerprint is read in groups of four', async () => {
  const { cert } = await makeAuthority({ shop: 'hall', names: [], now });
  expect(fingerprintOfCert(cert)).toMatch(/^([0-9A-F]{4} ){15}[0-9A-F]{4}$/);
});
