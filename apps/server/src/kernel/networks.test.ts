import { addressWithin, networksOf, SHOP_NETWORKS } from './networks';

const shop = networksOf(SHOP_NETWORKS);

test.each([
  ['192.168.1.20', false, '192.168.1.20'],
  ['10.1.2.3', false, '10.1.2.3'],
  ['172.31.0.1', false, '172.31.0.1'],
  ['172.32.0.1', false, null],
  ['8.8.8.8', false, null],
  ['8.8.8.8', true, null],
  ['127.0.0.1', false, null],
  ['127.0.0.1', true, '127.0.0.1'],
  ['::1', true, '::1'],
  ['::ffff:127.0.0.1', false, null],
  ['::ffff:192.168.1.20', false, '::ffff:192.168.1.20'],
  ['fd00::5', false, 'fd00::5'],
  ['2001:db8::1', false, null],
  ['0.0.0.0', false, null],
  ['no.such.name.invalid', false, null],
])('%s, simulated %s: %s', async (host, simulated, address) =>
  expect(await addressWithin(host, { networks: shop, simulated })).toBe(address),
);

test('a shop names its own networks', async () => {
  const own = networksOf(['203.0.113.0/24', '198.51.100.7']);
  expect(await addressWithin('203.0.113.9', { networks: own, simulated: false })).toBe('203.0.113.9');
  expect(await addressWithin('198.51.100.7', { networks: own, simulated: false })).toBe('198.51.100.7');
  expect(await addressWithin('192.168.1.20', { networks: own, simulated: false })).toBeNull();
});

test.each(['shop', '10.0.0.0/33', '10.0.0.0/x', '::1/200', '/8'])('%s is no network', (bad) =>
  expect(() => networksOf([bad])).toThrow('is no network'),
);
