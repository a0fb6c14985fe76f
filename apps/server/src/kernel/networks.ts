import { lookup } from 'node:dns/promises';
import net from 'node:net';

/** Networks that machines of a shop are in, where nobody says others: RFC 1918, RFC 4193, and what hosts give themselves. */
export const SHOP_NETWORKS = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  'fc00::/7',
  'fe80::/10',
];
const LOOPBACK = ['127.0.0.0/8', '::1/128'];

/** @param list networks as "10.0.0.0/8" or single addresses @throws Error one that is none, in words */
export function networksOf(list: readonly string[]): net.BlockList {
  const networks = new net.BlockList();
  for (const one of list) {
    const [address, bits] = one.split('/');
    const version = net.isIP(address!);
    const most = version === 4 ? 32 : 128;
    const length = bits === undefined ? most : Number(bits);
    if (version === 0 || !Number.isInteger(length) || length < 0 || length > most)
      throw new Error(`“${one}” is no network. Write it as 192.168.1.0/24.`);
    networks.addSubnet(address!, length, version === 4 ? 'ipv4' : 'ipv6');
  }
  return networks;
}
const loopback = networksOf(LOOPBACK);

const within = (networks: net.BlockList, address: string): boolean => {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '').split('%')[0]!;
  return networks.check(plain, net.isIP(plain) === 6 ? 'ipv6' : 'ipv4');
};

/**
 * The address at which a console may be called: within the networks that the shop allows, this host itself for simulated
 * machines alone. Names are looked up once, and that address is called.
 * @returns null: it may not be, or has no address
 */
export async function addressWithin(
  host: string,
  { networks, simulated }: { networks: net.BlockList; simulated: boolean },
): Promise<string | null> {
  const found = net.isIP(host) ? [{ address: host }] : await lookup(host, { all: true }).catch(() => []);
  const may = ({ address }: { address: string }) =>
    within(networks, address) || (simulated && within(loopback, address));
  // One name with an address within and another outside is not trusted with either.
  return found.length > 0 && found.every(may) ? found[0]!.address : null;
}
