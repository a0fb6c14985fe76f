import {
  DEFAULT_SETTINGS,
  firstPersonSchema,
  ownSecretSchema,
  personWriteSchema,
  signInSchema,
  tokenWriteSchema,
  type FirstPerson,
  type Manner,
  type OwnSecret,
  type PersonWrite,
  type SessionState,
  type SignIn,
  type TokenWrite,
} from '@even-bed/contract';
import Joi from 'joi';
import type { Knex } from 'knex';
import { v7 as uuid } from 'uuid';
import { findMachine } from '../fleet/store';
import { acting } from '../kernel/acting';
import { atField, notFound, Problem } from '../kernel/problem';
import type { Answer, Call, Route } from '../kernel/route';
import { saveSettings, shopSettings } from '../manner/store';
import { fingerprintOf, hashSecret, newToken, secretMatches } from './secrets';
import {
  countPeople,
  demoAccounts,
  endSession,
  findForSignIn,
  forgetFailures,
  knownDevice,
  listPeople,
  listSessions,
  listTokens,
  lockSession,
  nameKey,
  openSession,
  rememberDevice,
  reserveTry,
  revokeToken,
  savePerson,
  saveSecret,
  saveToken,
  secretKind,
  secretOf,
  sessionOwner,
  tryFailed,
} from './store';

const NOTHING = Joi.object({});

async function shopManner(db: Knex): Promise<Manner> {
  const { units, zone, numbers } = await shopSettings(db);
  return { units, zone, numbers };
}

/** Opens a session for a person and answers with its cookie. */
async function begin(call: Call, personId: string, shared: boolean): Promise<Answer> {
  const token = newToken();
  const id = uuid();
  await openSession(call.db, {
    id,
    tokenHash: fingerprintOf(token),
    personId,
    device: call.device,
    shared,
    now: call.now,
  });
  if (call.session) await endSession(call.db, call.session.id, call.now);
  // The device keeps a mark of its own: wrong tries from elsewhere don't lock it out.
  const mark = call.deviceMark === null ? newToken() : null;
  await rememberDevice(call.db, personId, mark === null ? call.deviceMark! : fingerprintOf(mark), call.now);
  const person = (await listPeople(call.db)).find((known) => known.id === personId)!;
  const manner = await shopManner(call.db);
  const body: SessionState = { state: 'signed-in', person, shared, sessionId: id, manner, demo: null };
  return { body, session: token, ...(mark === null ? {} : { deviceMark: mark }) };
}

const notFirst = () => new Problem(409, 'not-empty', 'This shop has its first account already. Sign in.');

async function firstPerson(call: Call): Promise<Answer> {
  const { id, name, secret, shared, zone, at, code } = call.body as FirstPerson;
  // Asked before anything is hashed: a shop that has people hashes nothing for strangers.
  if ((await countPeople(call.db)) > 0) throw notFirst();
  if (call.firstCode !== null && code?.trim() !== call.firstCode)
    throw atField('code', 'This is not the code that stands on the server’s terminal.');
  const hash = { secret: await hashSecret(secret, call.secretCost), kind: secretKind(secret) };
  return acting(call.db, id).transaction(async (trx) => {
    if ((await countPeople(trx)) > 0) throw notFirst();
    await savePerson(trx, id, { name, role: 'lead', active: true, version: 0, at }, hash);
    if (zone !== undefined) await saveSettings(trx, { ...DEFAULT_SETTINGS, zone, at });
    return begin({ ...call, db: trx }, id, shared);
  });
}

/** Names under which a secret is being looked at. */
const inFlight = new Set<string>();

/** Looks at a secret under a name: counted before, one at a time, its pause from its end. */
async function tried(
  call: Call,
  name: string,
  check: () => Promise<boolean>,
): Promise<{ right: boolean; device: string | null }> {
  const device = await knownDevice(call.db, name, call.deviceMark);
  const key = `${nameKey(name)} ${device ?? ''}`;
  if (inFlight.has(key)) throw new Problem(429, 'slowed', 'Another try under this name is under way. Wait for it.');
  inFlight.add(key);
  try {
    const left = await reserveTry(call.db, name, device, call.now);
    if (left > 0) {
      const seconds = Math.ceil(left / 1000);
      const words = seconds < 100 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
      throw new Problem(429, 'slowed', `Too many wrong tries. Sign in again in ${words}.`);
    }
    const right = await check();
    if (right) await forgetFailures(call.db, name, device);
    else await tryFailed(call.db, name, device, call.clock());
    return { right, device };
  } finally {
    inFlight.delete(key);
  }
}

async function signIn(call: Call): Promise<Answer> {
  const { name, secret, shared } = call.body as SignIn;
  const known = await findForSignIn(call.db, name);
  const { right } = await tried(call, name, async () => {
    // A name that isn't there takes as long as a wrong secret: neither answer tells a guesser which names exist.
    const matches = known
      ? await secretMatches(secret, known.secret)
      : (await hashSecret(secret, call.secretCost), false);
    return matches && known !== null && known.person.active;
  });
  if (!right || !known) {
    call.log.warn({ device: call.device }, 'sign-in refused');
    throw new Problem(401, 'wrong-sign-in', 'Name and passphrase or PIN do not belong together.');
  }
  call.log.info({ personId: known.person.id, device: call.device }, 'signed in');
  return call.db.transaction((trx) => begin({ ...call, db: trx }, known.person.id, shared));
}

async function session({ db, session: open }: Call): Promise<Answer> {
  const base = { person: open?.person ?? null, shared: open?.shared ?? false, sessionId: open?.id ?? null };
  const demo = open && !open.locked ? null : await demoAccounts(db);
  const state = open
    ? open.locked
      ? 'locked'
      : 'signed-in'
    : (await countPeople(db)) === 0
      ? 'first-start'
      : 'signed-out';
  const manner = open ? await shopManner(db) : null;
  return { body: { ...base, state, manner, demo } satisfies SessionState };
}

async function changePerson(call: Call): Promise<Answer> {
  const { secret, ...write } = call.body as PersonWrite;
  const hash =
    secret === undefined ? null : { secret: await hashSecret(secret, call.secretCost), kind: secretKind(secret) };
  return call.db.transaction(async (trx) => ({ body: await savePerson(trx, call.params['id']!, write, hash) }));
}

async function changeOwnSecret(call: Call): Promise<Answer> {
  const { current, secret } = call.body as OwnSecret;
  const { person, session: open } = call;
  const stored = await secretOf(call.db, person!.id);
  const { right } = await tried(call, person!.name, () => secretMatches(current, stored));
  if (!right) throw atField('current', 'This is not your present passphrase or PIN.');
  const hash = { secret: await hashSecret(secret, call.secretCost), kind: secretKind(secret) };
  await call.db.transaction((trx) =>
    saveSecret(trx, person!.id, hash, { at: call.now, keepSession: open?.id ?? null }),
  );
  return { body: { changed: true } };
}

async function makeToken({ db, params, body }: Call): Promise<Answer> {
  const machine = await findMachine(db, params['machineId']!);
  if (!machine) throw notFound('This machine');
  const token = `eb_${newToken()}`;
  const ids = { id: params['id']!, machineId: machine.id, machineName: machine.name };
  const made = await db.transaction((trx) =>
    saveToken(trx, { ...ids, tokenHash: fingerprintOf(token) }, body as TokenWrite),
  );
  return { status: 201, body: { ...made, token } };
}

export const peopleRoutes: Route[] = [
  {
    method: 'get',
    path: '/session',
    area: 'people',
    access: 'anyone',
    summary: 'Who is signed in on this device',
    answers: 'The state of this device.',
    handle: session,
  },
  {
    method: 'post',
    path: '/people/first',
    area: 'people',
    access: 'anyone',
    alone: true,
    summary: 'Make the first account, a lead; only while there is none',
    answers: 'The state of this device, signed in.',
    body: firstPersonSchema,
    handle: firstPerson,
  },
  {
    method: 'post',
    path: '/session',
    area: 'people',
    access: 'anyone',
    alone: true,
    summary: 'Sign in, or switch to another person',
    answers: 'The state of this device, signed in. 429 while a name is slowed after wrong tries.',
    body: signInSchema,
    handle: signIn,
  },
  {
    method: 'post',
    path: '/session/lock',
    area: 'people',
    access: 'looker',
    summary: 'Lock this device; its person signs in again or another one does',
    answers: 'locked.',
    body: NOTHING,
    handle: async ({ db, session: open, now }) => {
      if (open) await lockSession(db, open.id, now);
      return { body: { locked: true } };
    },
  },
  {
    method: 'post',
    path: '/session/end',
    area: 'people',
    access: 'anyone',
    summary: 'Sign out on this device',
    answers: 'ended.',
    body: NOTHING,
    handle: async ({ db, session: open, now }) => {
      if (open) await endSession(db, open.id, now);
      return { body: { ended: true }, session: null };
    },
  },
  {
    method: 'get',
    path: '/sessions',
    area: 'people',
    access: 'looker',
    summary: 'Devices that are signed in: one’s own, or everybody’s for a lead',
    answers: 'items: the sessions, the last used first.',
    handle: async ({ db, person, session: open }) => ({
      body: {
        items: await listSessions(db, {
          personId: person!.role === 'lead' ? null : person!.id,
          currentId: open?.id ?? null,
        }),
      },
    }),
  },
  {
    method: 'post',
    path: '/sessions/:id/end',
    area: 'people',
    access: 'looker',
    summary: 'Sign a device out: one’s own, or any for a lead',
    answers: 'ended.',
    body: NOTHING,
    handle: async ({ db, params, person, now }) => {
      const owner = await sessionOwner(db, params['id']!);
      if (owner === null || (owner !== person!.id && person!.role !== 'lead')) throw notFound('This sign-in');
      await endSession(db, params['id']!, now);
      return { body: { ended: true } };
    },
  },
  {
    method: 'post',
    path: '/session/secret',
    area: 'people',
    access: 'looker',
    alone: true,
    summary: 'Change one’s own passphrase or PIN; other devices are signed out',
    answers: 'changed.',
    body: ownSecretSchema,
    handle: changeOwnSecret,
  },
  {
    method: 'get',
    path: '/people',
    area: 'people',
    access: 'looker',
    summary: 'Everybody who works here, and who did',
    answers: 'items: the people, by name.',
    handle: async ({ db }) => ({ body: { items: await listPeople(db) } }),
  },
  {
    method: 'put',
    path: '/people/:id',
    area: 'people',
    access: 'lead',
    alone: true,
    summary: 'Add a person (version 0) or change one',
    answers: 'The person.',
    body: personWriteSchema,
    handle: changePerson,
  },
  {
    method: 'post',
    path: '/people/:id/unlock',
    area: 'people',
    access: 'lead',
    summary: 'Let somebody sign in again at once after too many wrong tries',
    answers: 'unlocked.',
    body: NOTHING,
    handle: async ({ db, params }) => {
      const person = (await listPeople(db)).find(({ id }) => id === params['id']);
      if (!person) throw notFound('This person');
      await forgetFailures(db, person.name);
      return { body: { unlocked: true } };
    },
  },
  {
    method: 'get',
    path: '/machines/:machineId/tokens',
    area: 'people',
    access: 'lead',
    summary: 'Tokens with which a machine posts prints and readings',
    answers: 'items: the tokens in force, without their secret.',
    handle: async ({ db, params }) => ({ body: { items: await listTokens(db, params['machineId']!) } }),
  },
  {
    method: 'put',
    path: '/machines/:machineId/tokens/:id',
    area: 'people',
    access: 'lead',
    alone: true,
    summary: 'Make a token for a machine; it is shown this once',
    answers: 'The token, with its secret.',
    body: tokenWriteSchema,
    handle: makeToken,
  },
  {
    method: 'post',
    path: '/tokens/:id/revoke',
    area: 'people',
    access: 'lead',
    summary: 'Take a token out of force',
    answers: 'revoked.',
    body: NOTHING,
    handle: async ({ db, params, now }) => {
      await revokeToken(db, params['id']!, now);
      return { body: { revoked: true } };
    },
  },
];
