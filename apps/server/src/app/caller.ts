import { ROLES, type Access, type Role } from '@even-bed/contract';
import type { Knex } from 'knex';
import type { Context } from 'koa';
import { fingerprintOf } from '../people/secrets';
import { shopSettings } from '../manner/store';
import { findSession, tokenInForce } from '../people/store';
import { Problem } from '../kernel/problem';
import type { Call, Route } from '../kernel/route';

export const SESSION_COOKIE = 'even-bed-session';
export const DEVICE_COOKIE = 'even-bed-device';

type Caller = Pick<Call, 'person' | 'session' | 'tokenMachineId' | 'programId'>;

const NOBODY: Caller = { person: null, session: null, tokenMachineId: null, programId: null };

/**
 * Who sends a request: by the session of its cookie, or by a token.
 * @param touch whether it counts as use; what only goes on in the background doesn't
 */
export async function callerOf(
  ctx: Context,
  { db, now, touch = true }: { db: Knex; now: number; touch?: boolean },
): Promise<Caller> {
  const [, token] = /^Bearer (\S+)$/.exec(ctx.get('Authorization')) ?? [];
  if (token !== undefined) {
    const known = await tokenInForce(db, fingerprintOf(token), { now, touch });
    if (known === null) throw new Problem(401, 'bad-token', 'This token is not known, or was revoked.');
    return known.machineId === null
      ? { ...NOBODY, programId: known.id }
      : { ...NOBODY, tokenMachineId: known.machineId };
  }
  const cookie = ctx.cookies.get(SESSION_COOKIE);
  if (!cookie) return NOBODY;
  const lockMs = async () => (await shopSettings(db)).lockMinutes * 60_000;
  const session = await findSession(db, fingerprintOf(cookie), { now, lockMs, touch });
  return { ...NOBODY, person: session && !session.locked ? session.person : null, session };
}

/** Refuses whoever may not use a route. */
export function refuseOutsiders(route: Pick<Route, 'access' | 'token' | 'method' | 'personal'>, caller: Caller): void {
  if (route.access === 'anyone') return;
  if (caller.tokenMachineId !== null) {
    if (route.token) return;
    throw new Problem(
      403,
      'not-allowed',
      'A machine’s token may only post prints and readings, and read its own machine.',
    );
  }
  if (caller.programId !== null) {
    if (route.method === 'get' && route.access === 'looker' && !route.personal) return;
    throw new Problem(403, 'not-allowed', 'A program’s token may only read, what a looker sees.');
  }
  if (caller.session?.locked)
    throw new Problem(401, 'locked', `This device is locked. ${caller.session.person.name} or somebody else signs in.`);
  if (!caller.person) throw new Problem(401, 'signed-out', 'Sign in first.');
  if (!mayUse(route.access, caller.person.role))
    throw new Problem(
      403,
      'not-allowed',
      `This needs a ${route.access}; ${caller.person.name} is a ${caller.person.role}.`,
    );
}

/** Whether a role suffices: each may what the one before it may. */
export const mayUse = (access: Access, role: Role): boolean =>
  access === 'anyone' || ROLES.indexOf(role) >= ROLES.indexOf(access);

/** A browser in a few words, good enough to tell one's devices apart. */
export function deviceName(userAgent: string): string {
  const system =
    /Android|iPhone|iPad|Windows|Mac OS|CrOS|Linux/
      .exec(userAgent)?.[0]
      .replace('Mac OS', 'Mac')
      .replace('CrOS', 'Chromebook') ?? 'Unknown device';
  return /Mobi/.test(userAgent) && !/iPhone|Android/.test(system) ? `${system}, phone` : system;
}
