import path from 'node:path';
import { networksOf, SHOP_NETWORKS } from './kernel/networks';

/** Where the server listens and keeps its data, from the environment. */
export interface Settings {
  port: number;
  host: string;
  dataFolder: string;
  /** How many daily backups are kept; 0: none is made. */
  keepBackups: number;
  /** Names besides this host's own under which the shop may be asked. */
  hosts: string[];
  /** Networks in which machines' consoles are called. */
  consoleNetworks: string[];
  /** own: https by an authority of the shop's own · files: by a certificate that the shop has · none: http alone. */
  secure: 'own' | 'none' | { cert: string; key: string };
  /** The shop's own proxies in front, one behind the other, whose X-Forwarded headers count; 0: none. */
  proxies: number;
}

const listed = (text: string) =>
  text
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name !== '');

const isLoopback = (host: string) => host === 'localhost' || host === '::1' || host.startsWith('127.');

/** @throws Error half a certificate, or a word that says nothing */
function secureFrom(env: NodeJS.ProcessEnv, usual: 'own' | 'none'): Settings['secure'] {
  const [cert, key] = [env['EVEN_BED_CERT'], env['EVEN_BED_KEY']];
  if ((cert === undefined) !== (key === undefined))
    throw new Error(
      'A certificate of your own needs both EVEN_BED_CERT and EVEN_BED_KEY, each the name of a PEM file.',
    );
  if (cert !== undefined && key !== undefined) return { cert: path.resolve(cert), key: path.resolve(key) };
  const said = env['EVEN_BED_HTTPS'] ?? usual;
  if (said !== 'own' && said !== 'none')
    throw new Error(`EVEN_BED_HTTPS is "${said}"; say own or none, or leave it out.`);
  return said;
}

/** @throws Error a PORT that is none, or networks that are none, in words */
export function settingsFrom(env: NodeJS.ProcessEnv, defaultData: string): Settings {
  const port = Number(env['PORT'] ?? 4242);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new Error(`PORT is "${env['PORT']}", which is no port. Use a number from 1 to 65535, such as PORT=4300.`);
  }
  const keepBackups = Number(env['EVEN_BED_BACKUPS'] ?? 14);
  if (!Number.isInteger(keepBackups) || keepBackups < 0)
    throw new Error(
      `EVEN_BED_BACKUPS is "${env['EVEN_BED_BACKUPS']}"; say how many daily backups to keep, 0 for none.`,
    );
  const proxies = Number(env['EVEN_BED_PROXY'] ?? 0);
  if (!Number.isInteger(proxies) || proxies < 0 || proxies > 9)
    throw new Error(`EVEN_BED_PROXY is "${env['EVEN_BED_PROXY']}"; say how many proxies stand in front, usually 1.`);
  const host = env['EVEN_BED_HOST'] ?? '127.0.0.1';
  const consoleNetworks = listed(env['EVEN_BED_CONSOLE_NETWORKS'] ?? '');
  networksOf(consoleNetworks);
  return {
    port,
    keepBackups,
    hosts: listed(env['EVEN_BED_HOSTS'] ?? ''),
    consoleNetworks: consoleNetworks.length > 0 ? consoleNetworks : SHOP_NETWORKS,
    proxies,
    host,
    secure: secureFrom(env, isLoopback(host) || proxies > 0 ? 'none' : 'own'),
    dataFolder: path.resolve(env['EVEN_BED_DATA'] ?? defaultData),
  };
}

export const databaseFile = (dataFolder: string) => path.join(dataFolder, 'even-bed.sqlite');
export const photoFolder = (dataFolder: string) => path.join(dataFolder, 'photos');
