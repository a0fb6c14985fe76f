import fs from 'node:fs';
import type { Knex } from 'knex';
import { connect } from '../db/connect';
import { databaseFile } from '../settings';
import { emptyWriteAhead } from '../db/databaseFile';

interface PersonRow {
  id: string;
  name: string;
  name_key: string;
  role: 'looker' | 'technician' | 'lead';
  secret: string;
  secret_kind: string;
  active: number | boolean;
  version: number;
  created_at: number;
  updated_at: number;
}
interface Present {
  /** Tokens in force. */
  tokens: ReadonlySet<string>;
  people: readonly PersonRow[];
}

const RANK = { looker: 0, technician: 1, lead: 2 } as const;

/**
 * What was closed since a backup stays closed when it is put back: nobody is signed in, a token that is not in force now
 * stays so, whoever may no longer come in may not, a right that was taken is not given back, and a newer secret counts.
 * @param restored the database that comes into its place
 * @returns what was kept closed of people, in words, a line each
 */
export async function shutDoors(dataFolder: string, restored: string, now: number): Promise<string[]> {
  const present = await presentIn(databaseFile(dataFolder));
  const db = connect(restored);
  try {
    await db('sessions').whereNull('ended_at').update({ ended_at: now });
    for (const { id } of (await db('machine_tokens').whereNull('revoked_at').select('id')) as { id: string }[])
      if (!present.tokens.has(id)) await db('machine_tokens').where({ id }).update({ revoked_at: now });
    const kept = await keepPeople(db, present.people, now);
    await emptyWriteAhead(db);
    return kept;
  } finally {
    await db.destroy();
  }
}

async function presentIn(file: string): Promise<Present> {
  const nothing: Present = { tokens: new Set(), people: [] };
  if (!fs.existsSync(file)) return nothing;
  const db = connect(file);
  try {
    const tokens = (await db('machine_tokens').whereNull('revoked_at').select('id')) as { id: string }[];
    return { tokens: new Set(tokens.map(({ id }) => id)), people: await db<PersonRow>('people') };
  } catch {
    // What is there can't be read: then no token is known to be in force, and nobody is known to have been shut out.
    return nothing;
  } finally {
    await db.destroy();
  }
}

async function keepPeople(db: Knex, present: readonly PersonRow[], now: number): Promise<string[]> {
  const said: string[] = [];
  for (const person of present) {
    const then = await db<PersonRow>('people').where({ id: person.id }).first();
    if (!then) continue;
    const shut = Boolean(then.active) && !person.active;
    const lower = RANK[person.role] < RANK[then.role];
    const secret = person.secret !== then.secret && person.updated_at >= then.updated_at;
    if (!shut && !lower && !secret) continue;
    await db<PersonRow>('people')
      .where({ id: person.id })
      .update({
        ...(shut ? { active: false } : {}),
        ...(lower ? { role: person.role } : {}),
        ...(secret ? { secret: person.secret, secret_kind: person.secret_kind } : {}),
        ...{ version: Math.max(then.version, person.version) + 1, updated_at: now },
      });
    if (shut) said.push(`${person.name} still may not come in.`);
    if (lower) said.push(`${person.name} stays a ${person.role}.`);
    if (secret) said.push(`${person.name} keeps the newer secret.`);
  }
  return [...said, ...(await keepALead(db, present))];
}

/** A shop whose leads came later than the backup is not left without one: they come along. */
async function keepALead(db: Knex, present: readonly PersonRow[]): Promise<string[]> {
  if (await db('people').where({ role: 'lead', active: true }).first()) return [];
  const said: string[] = [];
  for (const person of present.filter(({ role, active }) => role === 'lead' && active)) {
    const taken = await db('people').where({ id: person.id }).orWhere({ name_key: person.name_key }).first();
    if (taken) continue;
    await db('people').insert(person);
    said.push(`${person.name} comes along: the backup has no lead who may come in.`);
  }
  return said;
}
