import fs from 'node:fs';
import http, { type RequestListener } from 'node:http';
import type { Server } from 'node:net';
import type { Reach } from '@even-bed/contract';
import type { Settings } from '../settings';
import { fingerprintOfCert } from './authority';
import { openFront, type Front } from './front';
import { CertificateKeeper, ownNames, tlsFolder } from './keeper';
import { TRUST_PATH, trustAnswers } from './trustPage';

/** How often the certificate is looked at: it is renewed before it ends, and when an address of the host is new. */
const LOOK_EVERY_MS = 60_000;

/** A server as the settings want it: with https by itself, with a certificate of the shop's, or without. */
export interface Served {
  server: Server;
  scheme: 'http' | 'https';
  /** Something to be said at the start; null: nothing. */
  told: string | null;
  /** Under which addresses devices reach it at a port, and how they come to trust it. */
  reach: (port: number) => Reach;
  closeIdle: () => void;
  closeAll: () => void;
}

interface ServeParts {
  settings: Pick<Settings, 'dataFolder' | 'hosts' | 'host' | 'proxies' | 'secure'>;
  isOurs: (host: string) => boolean;
  now?: () => number;
  onError: (error: unknown) => void;
}

/** @throws Error a certificate of the shop's that can't be read, in words */
export async function serve(app: RequestListener, parts: ServeParts): Promise<Served> {
  const { settings } = parts;
  if (settings.secure === 'none') {
    const server = http.createServer(app);
    return {
      server,
      scheme: 'http',
      told: null,
      reach: (port) => ({
        addresses: addressesFor(settings, 'http', port),
        by: settings.proxies > 0 ? 'proxy' : 'none',
        trust: null,
      }),
      closeIdle: () => server.closeIdleConnections(),
      closeAll: () => server.closeAllConnections(),
    };
  }
  return settings.secure === 'own' ? ownAuthority(app, parts) : ownFiles(app, settings.secure, parts);
}

async function ownAuthority(
  app: RequestListener,
  { settings, isOurs, now = Date.now, onError }: ServeParts,
): Promise<Served> {
  const keeper = new CertificateKeeper({
    folder: tlsFolder(settings.dataFolder),
    names: () => ownNames(settings.hosts),
    now,
  });
  const { cert, key, unnamed } = await keeper.current();
  const front = openFront({ secure: { cert, key }, app, always: trustAnswers(() => keeper.authority), isOurs });
  const look = async () => {
    const next = await keeper.current();
    if (next.renewed) front.renew(next);
  };
  setInterval(() => void look().catch(onError), LOOK_EVERY_MS).unref();
  return {
    ...ends(front),
    told:
      unnamed.length === 0
        ? null
        : `The shop’s authority was made before ${unnamed.join(', ')} and may not speak for it. Take the folder ${tlsFolder(settings.dataFolder)} away and start again; every device then trusts it anew.`,
    reach: (port) => {
      const addresses = addressesFor(settings, 'https', port);
      const [first] = addresses;
      const trust = first === undefined ? null : first.replace(/^https:/, 'http:') + TRUST_PATH;
      return {
        addresses,
        by: 'authority',
        trust: trust === null ? null : { address: trust, fingerprint: fingerprintOfCert(keeper.authority) },
      };
    },
  };
}

function ownFiles(
  app: RequestListener,
  files: { cert: string; key: string },
  { settings, isOurs, onError }: ServeParts,
): Served {
  const read = () => ({ cert: fs.readFileSync(files.cert, 'utf8'), key: fs.readFileSync(files.key, 'utf8') });
  let secure: { cert: string; key: string };
  let front: Front;
  try {
    secure = read();
    front = openFront({ secure, app, always: () => false, isOurs });
  } catch (error) {
    throw new Error(
      `The certificate ${files.cert} with the key ${files.key} can’t be used: ${error instanceof Error ? error.message : String(error)}`,
      { cause: error },
    );
  }
  // Whoever renews the files renews them in place.
  const look = () => {
    const next = read();
    if (next.cert !== secure.cert) front.renew((secure = next));
  };
  setInterval(() => {
    try {
      look();
    } catch (error) {
      onError(error);
    }
  }, LOOK_EVERY_MS).unref();
  return {
    ...ends(front),
    told: null,
    reach: (port) => ({ addresses: addressesFor(settings, 'https', port), by: 'certificate', trust: null }),
  };
}

const ends = ({ server, closeIdle, closeAll }: Front) => ({ server, scheme: 'https' as const, closeIdle, closeAll });

/** Addresses for other devices: names that the shop gave itself first, then this host's in the network; none on loopback alone. */
function addressesFor({ host, hosts }: ServeParts['settings'], scheme: string, port: number): string[] {
  const open = host === '0.0.0.0' || host === '::';
  const names = open ? ownNames(hosts) : [...hosts, host];
  const four = host === '0.0.0.0';
  const own = names.filter((name) => !(four && name.includes(':')) && !/^(localhost|127\.|::1$|fe80)/.test(name));
  // A name that only some devices can look up comes after an address that all can.
  const rank = (name: string) =>
    hosts.includes(name) ? 0 : /^\d+\.\d+\.\d+\.\d+$/.test(name) ? 1 : name.includes(':') ? 3 : 2;
  return own
    .sort((p, q) => rank(p) - rank(q))
    .map((name) => `${scheme}://${name.includes(':') ? `[${name}]` : name}${port === 443 ? '' : `:${port}`}`);
}
