import type { KeptOffset, OffsetAnswer, OffsetFilter, OffsetWrite, Page, PageAsk } from '@even-bed/contract';
import { predictOffset } from '@even-bed/core';
import type { Knex } from 'knex';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { findMachine } from '../fleet/store';
import { actorOf } from '../kernel/acting';
import { atField, idTaken, notFound } from '../kernel/problem';
import { findSurface } from './store';

interface OffsetRow {
  id: string;
  machine_id: string;
  surface_id: string;
  offset: number;
  weight: number;
  at: number;
  note: string;
  person_id: string | null;
  withdrawn_at: number | null;
}

/** Keeps a Z offset that worked. The same again changes nothing. */
export async function keepOffset(db: Knex, id: string, write: OffsetWrite): Promise<void> {
  const before = await db<OffsetRow>('offsets').where({ id }).first();
  if (before) {
    if (before.machine_id !== write.machineId || before.surface_id !== write.surfaceId) throw idTaken('offset');
    return;
  }
  const machine = await findMachine(db, write.machineId);
  if (!machine) throw atField('machineId', 'This machine is not here.');
  const surface = await findSurface(db, write.surfaceId);
  if (!surface) throw atField('surfaceId', 'This surface is not here.');
  await db<OffsetRow>('offsets').insert({
    id,
    machine_id: machine.id,
    surface_id: surface.id,
    offset: write.offset,
    weight: write.weight,
    at: write.at,
    note: write.note,
    person_id: actorOf(db),
    withdrawn_at: null,
  });
  await writeEntry(db, {
    at: write.at,
    kind: 'offset-kept',
    machineId: machine.id,
    surfaceId: surface.id,
    data: { offsetId: id, offset: write.offset, weight: write.weight, note: write.note },
  });
}

/** Takes an offset out of the reckoning. */
export async function withdrawOffset(db: Knex, id: string, now: number): Promise<void> {
  const [offset] = (await listOffsets(db, { id, limit: 1 })).items;
  if (!offset) {
    if (await db<OffsetRow>('offsets').where({ id }).first()) return;
    throw notFound('This offset');
  }
  await db<OffsetRow>('offsets').where({ id }).update({ withdrawn_at: now });
  await writeEntry(db, {
    at: now,
    kind: 'offset-withdrawn',
    machineId: offset.machineId,
    surfaceId: offset.surfaceId,
    data: { offsetId: id, offset: offset.offset },
  });
}

/** Offsets that count, the latest first. */
export async function listOffsets(
  db: Knex,
  filter: OffsetFilter & PageAsk & { id?: string },
): Promise<Page<KeptOffset>> {
  const query = db('offsets as o')
    .join('machines as m', 'm.id', 'o.machine_id')
    .join('surfaces as s', 's.id', 'o.surface_id')
    .leftJoin('people as p', 'p.id', 'o.person_id')
    .whereNull('o.withdrawn_at')
    .select('o.*', 'm.name as machine_name', 's.tag as surface_tag', 'p.name as person_name');
  latestFirst(query, { at: 'o.at', id: 'o.id' }, filter);
  if (filter.id !== undefined) void query.where('o.id', filter.id);
  if (filter.machineId !== undefined) void query.where('o.machine_id', filter.machineId);
  if (filter.surfaceId !== undefined) void query.where('o.surface_id', filter.surfaceId);
  const rows = (await query) as (OffsetRow & {
    machine_name: string;
    surface_tag: string;
    person_name: string | null;
  })[];
  const found = rows.map((row) => ({
    id: row.id,
    machineId: row.machine_id,
    machineName: row.machine_name,
    surfaceId: row.surface_id,
    surfaceTag: row.surface_tag,
    offset: row.offset,
    weight: row.weight,
    at: row.at,
    note: row.note,
    personName: row.person_name,
  }));
  return pageFrom(found, filter.limit, ({ at, id }) => placeOf(at, id));
}

/** What all offsets that worked say of a machine with a surface. */
export async function predictPair(db: Knex, machineId: string, surfaceId: string): Promise<OffsetAnswer> {
  const rows = await db<OffsetRow>('offsets').whereNull('withdrawn_at');
  const known = rows.map(({ machine_id, surface_id, offset, weight }) => ({
    machine: machine_id,
    surface: surface_id,
    offset,
    weight,
  }));
  const prediction = predictOffset({ known, machine: machineId, surface: surfaceId });
  if (prediction === 'not connected') return { prediction: null, odd: [] };
  const odd = await Promise.all(
    prediction.odd.map(async ({ machine, surface, off }) => ({
      machineName: (await db('machines').where({ id: machine }).first('name'))?.name as string,
      tag: (await db('surfaces').where({ id: surface }).first('tag'))?.tag as string,
      off,
    })),
  );
  return { prediction, odd };
}
