import { nextTag } from '@even-bed/core';
import type { Knex } from 'knex';
import { highestTag, whereTag } from '../db/tagText';
import { atField } from '../kernel/problem';

/** The tag that was asked for when nobody else has it, or the next free one of a letter. */
export async function freeTag(
  db: Knex,
  { wanted, letter, table, id }: { wanted: string; letter: string; table: 'surfaces' | 'machines'; id: string },
): Promise<string> {
  if (wanted === '') {
    const highest = await highestTag(db, table, letter);
    return nextTag(letter, highest === null ? [] : [highest]);
  }
  const holder = await holderOf(db, wanted);
  if (holder && holder.id !== id) throw atField('tag', `${wanted} belongs to ${holder.name} already.`);
  return wanted.toUpperCase();
}

/** Whose a tag is: a surface's or a machine's. */
export async function holderOf(
  db: Knex,
  tag: string,
): Promise<{ id: string; kind: 'surface' | 'machine'; name: string } | null> {
  const upper = tag.trim().toUpperCase();
  const surface = (await whereTag(db('surfaces').select('id', 'tag'), 'tag', upper).first()) as
    { id: string; tag: string } | undefined;
  if (surface) return { id: surface.id, kind: 'surface', name: `surface ${surface.tag}` };
  const machine = (await whereTag(db('machines').select('id', 'name'), 'tag', upper).first()) as
    { id: string; name: string } | undefined;
  return machine ? { id: machine.id, kind: 'machine', name: machine.name } : null;
}
