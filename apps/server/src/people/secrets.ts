import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { LIMITS } from '../kernel/limits';
import { Problem } from '../kernel/problem';
import type { SecretCost } from '../kernel/route';

/** 32 MiB and three passes. Source: OWASP Password Storage Cheat Sheet, scrypt. */
export const SECRET_COST: SecretCost = { log2N: 15, r: 8, p: 3 };

const KEY_BYTES = 32;
const SALT_BYTES = 16;

let hashing = 0;
const queue: (() => void)[] = [];

/** A place among the few hashes that may run: each takes memory and a core, and whoever floods them stops everybody. */
async function place(): Promise<void> {
  if (hashing < LIMITS.hashes) {
    hashing++;
    return;
  }
  if (queue.length >= LIMITS.hashesWaiting)
    throw new Problem(429, 'busy', 'Many people sign in just now. Try again in a few seconds.');
  await new Promise<void>((resolve) => queue.push(resolve));
}

function giveUpPlace(): void {
  const next = queue.shift();
  if (next) next();
  else hashing--;
}

async function derive(secret: string, salt: Buffer, cost: SecretCost): Promise<Buffer> {
  await place();
  try {
    return await derived(secret, salt, cost);
  } finally {
    giveUpPlace();
  }
}

function derived(secret: string, salt: Buffer, { log2N, r, p }: SecretCost): Promise<Buffer> {
  const N = 2 ** log2N;
  return new Promise((resolve, reject) => {
    scrypt(secret.normalize('NFKC'), salt, KEY_BYTES, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });
}

/** Hashes a passphrase or PIN with scrypt (RFC 7914), a salt of its own and its cost written beside it. */
export async function hashSecret(secret: string, cost: SecretCost = SECRET_COST): Promise<string> {
  const salt = randomBytes(SALT_BYTES);
  const key = await derive(secret, salt, cost);
  return ['scrypt', cost.log2N, cost.r, cost.p, salt.toString('base64url'), key.toString('base64url')].join('$');
}

/** Whether a secret is the one that was hashed. Takes as long for a wrong one as for the right one. */
export async function secretMatches(secret: string, stored: string): Promise<boolean> {
  const [scheme, log2N, r, p, salt, key] = stored.split('$');
  if (scheme !== 'scrypt' || !salt || !key) return false;
  const wanted = Buffer.from(key, 'base64url');
  const got = await derive(secret, Buffer.from(salt, 'base64url'), {
    log2N: Number(log2N),
    r: Number(r),
    p: Number(p),
  });
  return got.length === wanted.length && timingSafeEqual(got, wanted);
}

/** A random token that is shown once; only its fingerprint is kept. It is long enough that a fast hash will do. */
export const newToken = () => randomBytes(32).toString('base64url');
export const fingerprintOf = (token: string) => createHash('sha256').update(token).digest('hex');
