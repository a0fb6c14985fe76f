import type {
  DemoAccount,
  AccessToken,
  Person,
  PersonWrite,
  Role,
  SecretKind,
  SessionInfo,
  TokenWrite,
} from '@even-bed/contract';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { atField, notFound, Problem, stale } from '../kernel/problem';
import type { OpenSession } from '../kernel/route';
import { writeVersion } from '../kernel/versioned';

export { isHash } from './secrets';

interface PersonRow {
  id: string;
  name: string;
  name_key: string;
  role: Role;
  secret: string;
  secret_kind: SecretKind;
  active: number | boolean;
  version: number;
  created_at: number;
  updated_at: number;
}

interface SessionRow {
  id: string;
  token_hash: string;
  person_id: string;
  device: string;
  shared: number | boolean;
  created_at: number;
  last_seen_at: number;
  locked_at: number | null;
  ended_at: number | null;
}

interface TokenRow {
  id: string;
  machine_id: string | null;
  name: string;
  token_hash: string;
  created_at: number;
  last_used_at: number | null;
  revoked_at: number | null;
}

/** A name as it is compared. */
/** By what two names are the same: not by capitals, nor by marks that nobody sees. */
export const nameKey = (name: string) =>
  name
    .normalize('NFKC')
    .replace(/\p{Cf}/gu, '')
    .trim()
    .toLowerCase();
export const secretKind = (secret: string): SecretKind => (/^\d+$/.test(secret) ? 'pin' : 'passphrase');

export async function countPeople(db: Knex): Promise<number> {
  const { count } = (await db('people').count('* as count').first()) as { count: number };
  return count;
}

export async function listPeople(db: Knex): Promise<Person[]> {
  const rows = (await db('people as p')
    .leftJoin('sign_in_failures as f', 'f.name_key', 'p.name_key')
    .select('p.*', 'f.locked_until')
    .orderBy('p.name')) as (PersonRow & { locked_until: number | null })[];
  return rows.map(personOf);
}

export async function findPerson(db: Knex, id: string): Promise<Person | null> {
  const row = await db<PersonRow>('people').where({ id }).first();
  return row ? personOf(row) : null;
}

/** The person of a name with the hash to check a secret against. */
export async function findForSignIn(db: Knex, name: string): Promise<{ person: Person; secret: string } | null> {
  const row = await db<PersonRow>('people')
    .where({ name_key: nameKey(name) })
    .first();
  return row ? { person: personOf(row), secret: row.secret } : null;
}

export async function secretOf(db: Knex, personId: string): Promise<string> {
  const row = await db<PersonRow>('people').where({ id: personId }).first();
  if (!row) throw notFound('This person');
  return row.secret;
}

/**
 * Adds a person (version 0) or changes one. The last active lead stays one: somebody must be able to let others in.
 * @param hash of the new secret with its kind; null leaves the secret as it is
 */
export async function savePerson(
  db: Knex,
  id: string,
  { name, role, active, version, at }: Omit<PersonWrite, 'secret'>,
  hash: { secret: string; kind: SecretKind } | null,
): Promise<Person> {
  const now = await db<PersonRow>('people').where({ id }).first();
  if ((now?.version ?? 0) !== version)
    throw stale(now?.name ?? name, now ? personOf(now) : null, { id, name, role, active });
  const named = await db<PersonRow>('people')
    .where({ name_key: nameKey(name) })
    .first();
  if (named && named.id !== id) throw atField('name', `There is already somebody with the name ${named.name}.`);
  if (!now && !hash) throw atField('secret', 'A new person needs a passphrase or a PIN.');
  if (now?.role === 'lead' && now.active && (role !== 'lead' || !active)) await refuseWithoutLead(db, id);
  const row: PersonRow = {
    id,
    name,
    name_key: nameKey(name),
    role,
    secret: hash?.secret ?? now!.secret,
    secret_kind: hash?.kind ?? now!.secret_kind,
    active,
    version: version + 1,
    created_at: now?.created_at ?? at,
    updated_at: at,
  };
  if (!(await writeVersion(db, 'people', row)))
    throw stale(name, now ? personOf(now) : null, { id, name, role, active });
  // A new secret, or no place here any more: whoever is signed in under this name must sign in again.
  if (now && (hash || !active)) await endSessions(db, id, at);
  await writeEntry(
    db,
    now
      ? {
          at,
          kind: 'person-changed',
          data: { personId: id, name, role, active, newSecret: hash !== null, was: was(now) },
        }
      : { at, kind: 'person-added', data: { personId: id, name, role, active, secretKind: row.secret_kind } },
  );
  return personOf(row);
}

async function refuseWithoutLead(db: Knex, id: string): Promise<void> {
  const other = await db<PersonRow>('people').where({ role: 'lead', active: true }).whereNot({ id }).first();
  if (!other) throw atField('role', 'This is the only lead. Make somebody else a lead first.');
}

const was = ({ name, role, active }: Pick<Person, 'name' | 'role'> & { active: boolean | number }) => ({
  name,
  role,
  active: Boolean(active),
});

export async function saveSecret(
  db: Knex,
  personId: string,
  hash: { secret: string; kind: SecretKind },
  { at, keepSession }: { at: number; keepSession: string | null },
): Promise<void> {
  await db<PersonRow>('people')
    .where({ id: personId })
    .update({ secret: hash.secret, secret_kind: hash.kind, updated_at: at });
  await endSessions(db, personId, at, keepSession);
  const person = await findPerson(db, personId);
  await writeEntry(db, {
    at,
    kind: 'person-changed',
    data: { personId, ...was(person!), newSecret: true, was: was(person!) },
  });
}

const personOf = (row: PersonRow & { locked_until?: number | null }): Person => ({
  id: row.id,
  name: row.name,
  role: row.role,
  secretKind: row.secret_kind,
  active: Boolean(row.active),
  lockedUntil: row.locked_until ?? null,
  version: row.version,
});

/**
 * Lets a lead in again who is locked out or has forgotten: a new secret, no wrong tries, nobody signed in under the name.
 * For whoever runs the host.
 * @throws Error nobody of that name is a lead
 */
export async function resetLead(
  db: Knex,
  { name, hash, now }: { name: string; hash: string; now: number },
): Promise<void> {
  const row = await db<PersonRow>('people')
    .where({ name_key: nameKey(name) })
    .first();
  if (row?.role !== 'lead') {
    const leads = (await db<PersonRow>('people').where({ role: 'lead' }).select('name')).map((lead) => lead.name);
    throw new Error(`${name} is no lead here. Leads are: ${leads.join(', ') || 'nobody yet'}.`);
  }
  await db.transaction(async (trx) => {
    await saveSecret(trx, row.id, { secret: hash, kind: 'passphrase' }, { at: now, keepSession: null });
    await trx<PersonRow>('people').where({ id: row.id }).update({ active: true });
    await forgetFailures(trx, row.name);
  });
}

/** Wrong tries that are free; from the next on each costs twice the pause of the one before. */
const FREE_TRIES = 3;
const FIRST_PAUSE_MS = 2_000;
/** From this many wrong tries in a row on, a name is locked for a quarter of an hour each time. */
const LOCK_TRIES = 10;
const LOCK_MS = 15 * 60_000;

/** Whose tries are counted together: those of a device that has signed in under the name before, or all others. */
const tryKey = (name: string, device: string | null) =>
  device === null ? nameKey(name) : `${nameKey(name)}\n${device}`;

/** A device on which this person has signed in before, by the mark of its cookie; null: it is not known for them. */
export async function knownDevice(db: Knex, name: string, fingerprint: string | null): Promise<string | null> {
  if (fingerprint === null) return null;
  const row = await db('known_devices as d')
    .join('people as p', 'p.id', 'd.person_id')
    .where({ 'd.fingerprint': fingerprint, 'p.name_key': nameKey(name) })
    .first('d.fingerprint');
  return row ? fingerprint : null;
}

export async function rememberDevice(db: Knex, personId: string, fingerprint: string, now: number): Promise<void> {
  await db('known_devices')
    .insert({ fingerprint, person_id: personId, last_at: now })
    .onConflict(['fingerprint', 'person_id'])
    .merge();
}

/**
 * Counts a try before its secret is looked at, as if it were wrong: tries that come at once count one by one.
 * @returns ms for which it is refused, and then it counts nothing; 0: it may go on
 */
export async function reserveTry(db: Knex, name: string, device: string | null, now: number): Promise<number> {
  const key = tryKey(name, device);
  return db.transaction(async (trx) => {
    const row = (await trx('sign_in_failures').where({ name_key: key }).first()) as
      { failures: number; locked_until: number } | undefined;
    if (row && row.locked_until > now) return row.locked_until - now;
    const failures = (row?.failures ?? 0) + 1;
    await trx('sign_in_failures')
      .insert({ name_key: key, failures, last_at: now, locked_until: now + pauseAfter(failures) })
      .onConflict('name_key')
      .merge();
    return 0;
  });
}

/** A try was wrong: its pause counts from its end. */
export async function tryFailed(db: Knex, name: string, device: string | null, now: number): Promise<void> {
  const key = tryKey(name, device);
  const row = (await db('sign_in_failures').where({ name_key: key }).first()) as { failures: number } | undefined;
  if (row)
    await db('sign_in_failures')
      .where({ name_key: key })
      .update({ locked_until: now + pauseAfter(row.failures) });
}

const pauseAfter = (failures: number) =>
  failures >= LOCK_TRIES ? LOCK_MS : failures > FREE_TRIES ? FIRST_PAUSE_MS * 2 ** (failures - FREE_TRIES - 1) : 0;

/** Forgets the wrong tries under a name: those of one device, or all. */
export async function forgetFailures(db: Knex, name: string, device?: string | null): Promise<void> {
  const query = db('sign_in_failures');
  if (device === undefined)
    void query.where({ name_key: nameKey(name) }).orWhere('name_key', 'like', `${likeText(nameKey(name))}\n%`);
  else void query.where({ name_key: tryKey(name, device) });
  await query.delete();
}

const likeText = (text: string) => text.replace(/[\\%_]/g, '_');

/** A session that nobody used for so long is over. */
const IDLE_MS = 30 * 86_400_000;
/** Whoever is signed in for so long signs in again, used or not. */
const LONGEST_MS = 90 * 86_400_000;
/** A clock that is behind the last use by more than this was set back. */
const CLOCK_BACK_MS = 300_000;
/** The last use is written at most this often. */
const SEEN_EVERY_MS = 10_000;

export async function openSession(
  db: Knex,
  session: { id: string; tokenHash: string; personId: string; device: string; shared: boolean; now: number },
): Promise<void> {
  await db<SessionRow>('sessions').insert({
    id: session.id,
    token_hash: session.tokenHash,
    person_id: session.personId,
    device: session.device,
    shared: session.shared,
    created_at: session.now,
    last_seen_at: session.now,
    locked_at: null,
    ended_at: null,
  });
}

/** The session of a cookie, or null. A shared device that lay untouched for the lock time counts as locked. */
export async function findSession(
  db: Knex,
  tokenHash: string,
  { now, lockMs, touch }: { now: number; lockMs: () => Promise<number>; touch: boolean },
): Promise<OpenSession | null> {
  const row = (await db('sessions as s')
    .join('people as p', 'p.id', 's.person_id')
    .where('s.token_hash', tokenHash)
    .whereNull('s.ended_at')
    .select('p.*', 's.id as session_id', 's.shared', 's.last_seen_at', 's.locked_at', 's.created_at as begun_at')
    .first()) as
    | (PersonRow & {
        session_id: string;
        shared: number;
        last_seen_at: number;
        locked_at: number | null;
        begun_at: number;
      })
    | undefined;
  if (!row || !row.active || now - row.last_seen_at > IDLE_MS || now - row.begun_at > LONGEST_MS) return null;
  const shared = Boolean(row.shared);
  const untouched = now - row.last_seen_at;
  // A clock that was set back tells nothing of how long it lay untouched.
  const byTime = shared && row.locked_at === null && (untouched < -CLOCK_BACK_MS || untouched > (await lockMs()));
  // Written down: a clock that goes back later opens nothing again.
  if (byTime) await lockSession(db, row.session_id, now);
  const locked = row.locked_at !== null || byTime;
  if (touch && !locked && now - row.last_seen_at > SEEN_EVERY_MS)
    await db('sessions').where({ id: row.session_id }).update({ last_seen_at: now });
  return { id: row.session_id, person: personOf(row), shared, locked };
}

export async function lockSession(db: Knex, id: string, now: number): Promise<void> {
  await db('sessions').where({ id }).whereNull('locked_at').update({ locked_at: now });
}

export async function endSession(db: Knex, id: string, now: number): Promise<void> {
  await db('sessions').where({ id }).whereNull('ended_at').update({ ended_at: now });
}

async function endSessions(db: Knex, personId: string, now: number, keep: string | null = null): Promise<void> {
  const query = db('sessions').where({ person_id: personId }).whereNull('ended_at');
  if (keep !== null) void query.whereNot({ id: keep });
  await query.update({ ended_at: now });
}

export async function sessionOwner(db: Knex, id: string): Promise<string | null> {
  const row = await db<SessionRow>('sessions').where({ id }).first();
  return row?.person_id ?? null;
}

/** Open sessions, those of one person or all, the last used first. */
export async function listSessions(
  db: Knex,
  { personId, currentId }: { personId: string | null; currentId: string | null },
): Promise<SessionInfo[]> {
  const query = db('sessions as s')
    .join('people as p', 'p.id', 's.person_id')
    .whereNull('s.ended_at')
    .select('s.*', 'p.name as person_name')
    .orderBy('s.last_seen_at', 'desc');
  if (personId !== null) void query.where('s.person_id', personId);
  return ((await query) as (SessionRow & { person_name: string })[]).map((row) => ({
    id: row.id,
    personId: row.person_id,
    personName: row.person_name,
    device: row.device,
    shared: Boolean(row.shared),
    createdAt: row.created_at,
    lastSeenAt: row.last_seen_at,
    current: row.id === currentId,
  }));
}

export async function saveToken(
  db: Knex,
  { id, machine, tokenHash }: { id: string; machine: { id: string; name: string } | null; tokenHash: string },
  { name, at }: TokenWrite,
): Promise<AccessToken> {
  if (await db<TokenRow>('machine_tokens').where({ id }).first())
    throw new Problem(409, 'token-shown', 'This token was made already and is shown only once. Make a new one.');
  const row: TokenRow = {
    id,
    machine_id: machine?.id ?? null,
    name,
    token_hash: tokenHash,
    created_at: at,
    last_used_at: null,
    revoked_at: null,
  };
  await db<TokenRow>('machine_tokens').insert(row);
  await writeEntry(db, {
    at,
    kind: 'token-made',
    machineId: machine?.id,
    data: { tokenId: id, name },
  });
  return tokenOf(row);
}

/** Tokens in force: of a machine, or (null) of other programs. */
export async function listTokens(db: Knex, machineId: string | null): Promise<AccessToken[]> {
  const rows = await db<TokenRow>('machine_tokens')
    .where({ machine_id: machineId })
    .whereNull('revoked_at')
    .orderBy('created_at');
  return rows.map(tokenOf);
}

export async function revokeToken(db: Knex, id: string, at: number): Promise<void> {
  const row = await db<TokenRow>('machine_tokens').where({ id }).first();
  if (!row) throw notFound('This token');
  if (row.revoked_at !== null) return;
  await db<TokenRow>('machine_tokens').where({ id }).update({ revoked_at: at });
  await writeEntry(db, {
    at,
    kind: 'token-revoked',
    machineId: row.machine_id,
    data: { tokenId: id, name: row.name },
  });
}

/** A token that is in force, or null. */
export async function tokenInForce(
  db: Knex,
  tokenHash: string,
  { now, touch }: { now: number; touch: boolean },
): Promise<{ id: string; machineId: string | null } | null> {
  const row = await db<TokenRow>('machine_tokens').where({ token_hash: tokenHash }).whereNull('revoked_at').first();
  if (!row) return null;
  if (touch && now - (row.last_used_at ?? 0) > 60_000)
    await db<TokenRow>('machine_tokens').where({ id: row.id }).update({ last_used_at: now });
  return { id: row.id, machineId: row.machine_id };
}

const tokenOf = (row: TokenRow): AccessToken => ({
  id: row.id,
  machineId: row.machine_id,
  name: row.name,
  createdAt: row.created_at,
  lastUsedAt: row.last_used_at,
});

const DEMO_KEY = 'demo-accounts';

/** The accounts that the demo's sign-in page names; null in a real shop. */
export async function demoAccounts(db: Knex): Promise<DemoAccount[] | null> {
  const row = (await db('settings').where({ key: DEMO_KEY }).first()) as { value: string } | undefined;
  return row ? (JSON.parse(row.value) as DemoAccount[]) : null;
}

export async function keepDemoAccounts(db: Knex, accounts: readonly DemoAccount[], now: number): Promise<void> {
  await db('settings').insert({ key: DEMO_KEY, value: JSON.stringify(accounts), version: 1, updated_at: now });
}
