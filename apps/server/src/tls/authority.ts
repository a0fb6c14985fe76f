import 'reflect-metadata';
import { randomBytes, webcrypto, X509Certificate } from 'node:crypto';
import { BlockList, isIP } from 'node:net';
import { AsnConvert } from '@peculiar/asn1-schema';
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto);

const DAY_MS = 86_400_000;
/** Clocks of phones may be behind: what was made just now counts since yesterday. */
const BEFORE_MS = DAY_MS;
const AUTHORITY_MS = 3_650 * DAY_MS;
/** Phones take no certificate for longer than 397 days (CA/Browser Forum Baseline Requirements 6.3.2); ours are renewed long before. */
const SERVER_MS = 90 * DAY_MS;
const SIGNING = { name: 'ECDSA', hash: 'SHA-256' };
const CURVE = { name: 'ECDSA', namedCurve: 'P-256' };

/** A certificate with its key, both as PEM. */
export interface Signed {
  cert: string;
  key: string;
}

/** Networks whose addresses are nobody's in the wide net (RFC 1918, 3927, 4193, 4291): all that an authority of a shop speaks for. */
const SHOP_ADDRESSES = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  '127.0.0.0/8',
  'fc00::/7',
  'fe80::/10',
  '::1/128',
];
/** Ends of names that are never sold: RFC 6762, 8375, 6761; ICANN resolution 2024.07.29.06 (internal). */
const SHOP_NAMES = ['local', 'home.arpa', 'internal', 'localhost', 'lan'];

const serial = () => `00${randomBytes(15).toString('hex')}`;
const pem = (raw: ArrayBuffer) => x509.PemConverter.encode(raw, 'PRIVATE KEY');

async function keyPair(): Promise<{ keys: webcrypto.CryptoKeyPair; key: string }> {
  const keys = await webcrypto.subtle.generateKey(CURVE, true, ['sign', 'verify']);
  return { keys, key: pem(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey)) };
}

/**
 * What an authority may speak for: whoever gets hold of its key makes no certificate for a bank with it (RFC 5280,
 * 4.2.1.10).
 */
function constraints(names: readonly string[]): x509.Extension {
  const named = names.filter((name) => isIP(name) === 0);
  const single = names.filter((name) => isIP(name) !== 0).map((ip) => `${ip}/${isIP(ip) === 4 ? 32 : 128}`);
  const bases = [
    ...[...SHOP_NAMES, ...named].map((dNSName) => new GeneralName({ dNSName })),
    ...[...SHOP_ADDRESSES, ...single].map((iPAddress) => new GeneralName({ iPAddress })),
  ];
  const permitted = new GeneralSubtrees(bases.map((base) => new GeneralSubtree({ base })));
  return new x509.Extension(
    '2.5.29.30',
    true,
    AsnConvert.serialize(new NameConstraints({ permittedSubtrees: permitted })),
  );
}

/** An authority of a shop's own, which phones are asked to trust once. @param names that it speaks for beside those of any shop */
export async function makeAuthority({
  shop,
  names,
  now,
}: {
  shop: string;
  names: readonly string[];
  now: number;
}): Promise<Signed> {
  const { keys, key } = await keyPair();
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: [{ CN: [`Even Bed of ${shop}, ${new Date(now).toISOString().slice(0, 10)}`] }],
    notBefore: new Date(now - BEFORE_MS),
    notAfter: new Date(now + AUTHORITY_MS),
    signingAlgorithm: SIGNING,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      constraints(names),
    ],
  });
  return { cert: cert.toString('pem'), key };
}

/** A certificate for a server, under an authority. @param names hosts and addresses under which it is asked */
export async function signServer(
  authority: Signed,
  { names, now }: { names: readonly string[]; now: number },
): Promise<Signed> {
  const above = new x509.X509Certificate(authority.cert);
  const signingKey = await webcrypto.subtle.importKey(
    'pkcs8',
    x509.PemConverter.decodeFirst(authority.key),
    CURVE,
    false,
    ['sign'],
  );
  const { keys, key } = await keyPair();
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: [{ CN: ['Even Bed'] }],
    issuer: above.subject,
    notBefore: new Date(now - BEFORE_MS),
    notAfter: new Date(Math.min(now + SERVER_MS, above.notAfter.getTime())),
    signingAlgorithm: SIGNING,
    publicKey: keys.publicKey,
    signingKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) === 0 ? ('dns' as const) : ('ip' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(await above.publicKey.export()),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { cert: cert.toString('pem'), key };
}

/** Whether an authority may speak for a name: it stands in its constraints, as they were made here. */
export function speaksFor(authority: string, name: string): boolean {
  const extension = new x509.X509Certificate(authority).getExtension('2.5.29.30');
  if (!extension) return true;
  const { permittedSubtrees } = AsnConvert.parse(extension.value, NameConstraints);
  return [...(permittedSubtrees ?? [])].some(({ base }) =>
    base.dNSName !== undefined
      ? isIP(name) === 0 && (name === base.dNSName || name.endsWith(`.${base.dNSName}`))
      : base.iPAddress !== undefined && isIP(name) !== 0 && within(name, base.iPAddress),
  );
}

function within(address: string, network: string): boolean {
  const [base, prefix] = network.split('/');
  const family = isIP(address);
  if (family !== isIP(base!)) return false;
  const list = new BlockList();
  list.addSubnet(base!, Number(prefix ?? (family === 4 ? 32 : 128)), family === 4 ? 'ipv4' : 'ipv6');
  return list.check(address, family === 4 ? 'ipv4' : 'ipv6');
}

/** How a certificate is told from another by eye: SHA-256 over it, in groups of four. */
export const fingerprintOfCert = (cert: string): string =>
  new X509Certificate(cert).fingerprint256.replaceAll(':', '').replace(/(.{4})(?=.)/g, '$1 ');

/** A certificate as phones take it, DER. */
export const derOf = (cert: string): Buffer => new X509Certificate(cert).raw;
