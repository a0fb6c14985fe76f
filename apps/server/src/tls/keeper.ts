import { X509Certificate, createPrivateKey } from 'node:crypto';
import fs from 'node:fs';
import { isIP } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { makeAuthority, signServer, speaksFor, type Signed } from './authority';

/** A certificate is made anew when it ends within so long. */
const RENEW_MS = 30 * 86_400_000;

export const tlsFolder = (dataFolder: string) => path.join(dataFolder, 'tls');

/** Names and addresses of this host, the shop's own first. @param more names besides, as settings give them */
export function ownNames(more: readonly string[]): string[] {
  const host = os.hostname().toLowerCase();
  const addresses = Object.values(os.networkInterfaces())
    .flatMap((list) => list ?? [])
    // An address that counts on one cable alone is none that a phone is given.
    .filter(({ address, scopeid }) => !(scopeid && address.startsWith('fe80')))
    .map(({ address }) => address);
  const local = host === '' || host === 'localhost' ? [] : [host, ...(host.includes('.') ? [] : [`${host}.local`])];
  return [...new Set([...more.map((name) => name.toLowerCase()), ...local, 'localhost', ...addresses])];
}

/** The certificates of a shop that serves https by itself: made when they are missing, renewed before they end. */
export class CertificateKeeper {
  constructor(
    private readonly parts: {
      folder: string;
      names: () => string[];
      now: () => number;
    },
  ) {}

  /** The authority that phones trust, as PEM. */
  get authority(): string {
    return fs.readFileSync(this.file('authority.crt'), 'utf8');
  }

  /**
   * What to serve with now.
   * @returns renewed: it is another one than before; unnamed: names that this authority may not speak for
   */
  async current(): Promise<Signed & { renewed: boolean; unnamed: string[] }> {
    const { folder, names, now } = this.parts;
    fs.mkdirSync(folder, { recursive: true, mode: 0o700 });
    const wanted = names();
    let authority = this.read('authority');
    if (!authority || ends(authority) <= now() + RENEW_MS) {
      authority = await makeAuthority({ shop: os.hostname(), names: wanted, now: now() });
      this.write('authority', authority);
    }
    const named = wanted.filter((name) => speaksFor(authority.cert, name));
    const unnamed = wanted.filter((name) => !named.includes(name));
    const known = this.read('server');
    if (known && good(known, authority.cert, named, now())) return { ...known, renewed: false, unnamed };
    const made = await signServer(authority, { names: named, now: now() });
    this.write('server', made);
    return { ...made, renewed: true, unnamed };
  }

  private file(name: string): string {
    return path.join(this.parts.folder, name);
  }

  /** Both files, or null: one is missing, or they don't belong together. */
  private read(name: string): Signed | null {
    try {
      const [cert, key] = ['crt', 'key'].map((end) => fs.readFileSync(this.file(`${name}.${end}`), 'utf8'));
      return new X509Certificate(cert!).checkPrivateKey(createPrivateKey(key!)) ? { cert: cert!, key: key! } : null;
    } catch {
      return null;
    }
  }

  private write(name: string, { cert, key }: Signed): void {
    for (const [end, text] of [
      ['key', key],
      ['crt', cert],
    ] as const) {
      const part = this.file(`${name}.${end}.part`);
      fs.writeFileSync(part, text, { mode: end === 'key' ? 0o600 : 0o644 });
      fs.renameSync(part, this.file(`${name}.${end}`));
    }
  }
}

const ends = ({ cert }: Signed) => Date.parse(new X509Certificate(cert).validTo);

function good(signed: Signed, authority: string, names: readonly string[], now: number): boolean {
  const cert = new X509Certificate(signed.cert);
  const above = new X509Certificate(authority);
  return (
    cert.checkIssued(above) &&
    cert.verify(above.publicKey) &&
    Date.parse(cert.validFrom) <= now &&
    ends(signed) > now + RENEW_MS &&
    names.every((name) => (isIP(name) === 0 ? cert.checkHost(name) : cert.checkIP(name)) !== undefined)
  );
}
