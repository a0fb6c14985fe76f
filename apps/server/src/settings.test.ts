import path from 'node:path';
import { SHOP_NETWORKS } from './kernel/networks';
import { databaseFile, settingsFrom } from './settings';

test('defaults: port 4242 on the loopback address, the given folder', () => {
  expect(settingsFrom({}, 'data')).toEqual({
    port: 4242,
    host: '127.0.0.1',
    dataFolder: path.resolve('data'),
    keepBackups: 14,
    hosts: [],
    consoleNetworks: SHOP_NETWORKS,
    proxies: 0,
    secure: 'none',
  });
});

test('PORT, EVEN_BED_HOST and EVEN_BED_DATA are honoured', () => {
  expect(
    settingsFrom({ PORT: '80', EVEN_BED_HOST: '0.0.0.0', EVEN_BED_DATA: '/srv/shop', EVEN_BED_BACKUPS: '0' }, 'data'),
  ).toEqual({
    port: 80,
    host: '0.0.0.0',
    dataFolder: '/srv/shop',
    keepBackups: 0,
    hosts: [],
    consoleNetworks: SHOP_NETWORKS,
    proxies: 0,
    secure: 'own',
  });
  expect(settingsFrom({ EVEN_BED_HOSTS: 'bench.shop, , hall', EVEN_BED_PROXY: '1' }, 'data')).toMatchObject({
    hosts: ['bench.shop', 'hall'],
    proxies: 1,
    secure: 'none',
  });
  expect(databaseFile('/srv/shop')).toBe('/srv/shop/even-bed.sqlite');
});

test.each(['-1', 'daily', '1.5'])('EVEN_BED_BACKUPS=%s is refused in words', (EVEN_BED_BACKUPS) => {
  expect(() => settingsFrom({ EVEN_BED_BACKUPS }, 'data')).toThrow(`EVEN_BED_BACKUPS is "${EVEN_BED_BACKUPS}"`);
});

test.each(['nine', '70000', '-1', '4.5'])('PORT=%s is refused in words', (PORT) => {
  expect(() => settingsFrom({ PORT }, 'data')).toThrow(`PORT is "${PORT}", which is no port.`);
});

test('consoles are called in the shop’s networks, or in those that it names', () => {
  expect(settingsFrom({}, 'data').consoleNetworks).toContain('192.168.0.0/16');
  expect(settingsFrom({ EVEN_BED_CONSOLE_NETWORKS: '203.0.113.0/24, 10.9.0.0/16' }, 'data').consoleNetworks).toEqual([
    '203.0.113.0/24',
    '10.9.0.0/16',
  ]);
  expect(() => settingsFrom({ EVEN_BED_CONSOLE_NETWORKS: 'everywhere' }, 'data')).toThrow('is no network');
});

test('https by itself where the network reaches it; not behind a proxy, which does it; a certificate of one’s own goes before', () => {
  const secure = (env: NodeJS.ProcessEnv) => settingsFrom(env, 'data').secure;
  expect(secure({ EVEN_BED_HOST: '0.0.0.0' })).toBe('own');
  expect(secure({ EVEN_BED_HOST: '0.0.0.0', EVEN_BED_PROXY: '1' })).toBe('none');
  expect(secure({ EVEN_BED_HOST: '0.0.0.0', EVEN_BED_HTTPS: 'none' })).toBe('none');
  for (const host of ['localhost', '::1', '127.0.0.2']) expect(secure({ EVEN_BED_HOST: host })).toBe('none');
  expect(secure({ EVEN_BED_HTTPS: 'own' })).toBe('own');
  expect(secure({ EVEN_BED_CERT: '/x/a.pem', EVEN_BED_KEY: '/x/b.pem' })).toEqual({
    cert: '/x/a.pem',
    key: '/x/b.pem',
  });
  expect(() => secure({ EVEN_BED_CERT: '/x/a.pem' })).toThrow('both EVEN_BED_CERT and EVEN_BED_KEY');
  expect(() => secure({ EVEN_BED_HTTPS: 'yes' })).toThrow('say own or none');
});
