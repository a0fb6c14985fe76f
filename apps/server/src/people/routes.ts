import { peopleOperations } from '@even-bed/contract/people/operations';
import * as schemas from '@even-bed/contract/people/records';
import {
  DEFAULT_SETTINGS,
  type AccessToken,
  type Manner,
  type Person,
  type SessionState,
  type TokenWrite,
} from '@even-bed/contract';
import type { Knex } from 'knex';
import { v7 as uuid } from 'uuid';
import { findMachine } from '../fleet/store';
import { acting } from '../kernel/acting';
import { pageOf } from '../kernel/page';
import { atField, notFound, Problem } from '../kernel/problem';
import { routesOf, type Answer, type Call, type CallOf } from '../kernel/route';
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

async function shopManner(db: Knex): Promise<Manner> {
  const { units, zone, numbers, turns } = await shopSettings(db);
  return { units, zone, numbers, turns };
}

/** Opens a session for a person and answers with its cookie. */
async function begin(call: Call, personId: string, shared: boolean): Promise<Answer<SessionState>> {
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

type For<Id extends keyof typeof peopleOperations> = CallOf<(typeof peopleOperations)[Id]>;

const notFirst = () => new Problem(409, 'not-empty', 'This shop has its first account already. Sign in.');

async function firstPerson(call: For<'makeFirstPerson'>): Promise<Answer<SessionState>> {
  const { id, name, secret, shared, zone, at, code } = call.body;
  // Asked before anything is hashed: a shop that has people hashes nothing for strangers.
  if ((await countPeople(call.db)) > 0) throw notFirst();
  if (!call.firstCode.is(code, call.who))
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

async function signIn(call: For<'signIn'>): Promise<Answer<SessionState>> {
  const { name, secret, shared } = call.body;
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

async function session({ db, session: open }: For<'session'>): Promise<Answer<SessionState>> {
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
  return { body: { ...base, state, manner, demo } };
}

async function changePerson(call: For<'savePerson'>): Promise<Answer<Person>> {
  const { secret, ...write } = call.body;
  const hash =
    secret === undefined ? null : { secret: await hashSecret(secret, call.secretCost), kind: secretKind(secret) };
  return call.db.transaction(async (trx) => ({ body: await savePerson(trx, call.params.id, write, hash) }));
}

async function changeOwnSecret(call: For<'changeSecret'>): Promise<Answer<{ changed: boolean }>> {
  const { current, secret } = call.body;
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

async function makeToken({
  db,
  params,
  body,
}: For<'makeMachineToken'>): Promise<Answer<AccessToken & { token: string }>> {
  const machine = await findMachine(db, params.machineId);
  if (!machine) throw notFound('This machine');
  return tokenFor(db, { id: params.id, machine }, body);
}

async function tokenFor(
  db: Knex,
  of: { id: string; machine: { id: string; name: string } | null },
  write: TokenWrite,
): Promise<Answer<AccessToken & { token: string }>> {
  const token = `eb_${newToken()}`;
  const made = await db.transaction((trx) => saveToken(trx, { ...of, tokenHash: fingerprintOf(token) }, write));
  return { body: { ...made, token } };
}

export const peopleRoutes = routesOf(peopleOperations, schemas, {
  session,
  makeFirstPerson: firstPerson,
  signIn,
  lock: async ({ db, session: open, now }) => {
    if (open) await lockSession(db, open.id, now);
    return { body: { locked: true } };
  },
  signOut: async ({ db, session: open, now }) => {
    if (open) await endSession(db, open.id, now);
    return { body: { ended: true }, session: null };
  },
  sessions: async ({ db, person, session: open, query }) => {
    const whose = { personId: person!.role === 'lead' ? null : person!.id, currentId: open?.id ?? null };
    return { body: pageOf(await listSessions(db, whose), query, ({ id }) => id) };
  },
  endSession: async ({ db, params, person, now }) => {
    const owner = await sessionOwner(db, params.id);
    if (owner === null || (owner !== person!.id && person!.role !== 'lead')) throw notFound('This sign-in');
    await endSession(db, params.id, now);
    return { body: { ended: true } };
  },
  changeSecret: changeOwnSecret,
  people: async ({ db, query }) => ({ body: pageOf(await listPeople(db), query, ({ id }) => id) }),
  savePerson: changePerson,
  unlockPerson: async ({ db, params }) => {
    const person = (await listPeople(db)).find(({ id }) => id === params.id);
    if (!person) throw notFound('This person');
    await forgetFailures(db, person.name);
    return { body: { unlocked: true } };
  },
  machineTokens: async ({ db, params, query }) => ({
    body: pageOf(await listTokens(db, params.machineId), query, ({ id }) => id),
  }),
  makeMachineToken: makeToken,
  programTokens: async ({ db, query }) => ({ body: pageOf(await listTokens(db, null), query, ({ id }) => id) }),
  makeProgramToken: ({ db, params, body }) => tokenFor(db, { id: params.id, machine: null }, body),
  revokeToken: async ({ db, params, now }) => {
    await revokeToken(db, params.id, now);
    return { body: { revoked: true } };
  },
});
