import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { LIMITS } from '../kernel/limits';
import { Problem } from '../kernel/problem';
import type { SecretCost } from '../kernel/route';

/** 32 MiB and three passes. Source: OWASP Password Storage Cheat Sheet, scrypt. */
export const SECRET_COST: SecretCost = { log2N: 15, r: 8, p: 3 };

/** No stored hash may cost more, so that a shop read in from elsewhere takes nobody's memory or time: 128 MiB, and four times our own work. */
const MOST_MEMORY = 128 * 1024 * 1024;
const MOST_WORK = 2 ** 22;
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

function readHash(stored: string): { cost: SecretCost; salt: string; key: string } | null {
  const [scheme, log2N, r, p, salt, key, ...more] = stored.split('$');
  if (scheme !== 'scrypt' || !salt || !key || more.length > 0) return null;
  if (Buffer.from(key, 'base64url').length !== KEY_BYTES) return null;
  const cost = { log2N: Number(log2N), r: Number(r), p: Number(p) };
  if (!Object.values(cost).every((part) => Number.isInteger(part) && part >= 1)) return null;
  const blocks = 2 ** cost.log2N * cost.r;
  return 128 * blocks <= MOST_MEMORY && blocks * cost.p <= MOST_WORK ? { cost, salt, key } : null;
}

/** Whether a stored hash is one that this program made, or could have: of its kind and at a bearable cost. */
export const isHash = (stored: string): boolean => readHash(stored) !== null;

/** Whether a secret is the one that was hashed. Takes as long for a wrong one as for the right one. */
export async function secretMatches(secret: string, stored: string): Promise<boolean> {
  const kept = readHash(stored);
  if (!kept) return false;
  const wanted = Buffer.from(kept.key, 'base64url');
  const got = await derive(secret, Buffer.from(kept.salt, 'base64url'), kept.cost);
  return got.length === wanted.length && timingSafeEqual(got, wanted);
}

/** A random token that is shown once; only its fingerprint is kept. It is long enough that a fast hash will do. */
export const newToken = () => randomBytes(32).toString('base64url');
export const fingerprintOf = (token: string) => createHash('sha256').update(token).digest('hex');
