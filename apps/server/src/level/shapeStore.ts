import type { Page, PageAsk, ShapeFilter, ShapeRecord, ShapeWrite } from '@even-bed/contract';
import { CORE_VERSION, DegenerateInput, type ShapeKind, type ShapeRaw, type ShapeResult } from '@even-bed/core';
import { shapeResult } from '@even-bed/core/level/shapeRecord';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { actorOf } from '../kernel/acting';
import { writeEntry } from '../kernel/book';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { heavy, type Asker } from '../kernel/heavy';
import { atField, idTaken } from '../kernel/problem';
import { takeBack } from '../kernel/takeBack';
import { SHAPE_RESULT } from './planTask';

interface ShapeRow {
  id: string;
  kind: ShapeKind;
  machine_id: string | null;
  surface_id: string | null;
  at: number;
  raw: string;
  result: string;
  job_id: string | null;
  person_id: string | null;
  core_version: string;
  withdrawn_at: number | null;
}

/** Keeps a record of a shape, raw. The same again changes nothing. @throws Problem 422 readings that can't be */
export async function keepShape(
  db: Knex,
  id: string,
  { machineId, surfaceId, at, raw }: ShapeWrite,
  { jobId = null, reckoned = null }: { jobId?: string | null; reckoned?: ShapeResult | null } = {},
): Promise<void> {
  const before = await db<ShapeRow>('shape_records').where({ id }).first();
  if (before) {
    if (before.machine_id !== machineId || before.surface_id !== surfaceId || before.raw !== JSON.stringify(raw))
      throw idTaken('record');
    return;
  }
  if (machineId === null && surfaceId === null) throw atField('machineId', 'Say which machine or surface it is of.');
  if (machineId !== null && !(await findMachine(db, machineId)))
    throw atField('machineId', 'This machine is not here.');
  if (surfaceId !== null && !(await db('surfaces').where({ id: surfaceId }).first('id')))
    throw atField('surfaceId', 'This surface is not here.');
  const result = reckoned ?? resultOf(raw);
  await db<ShapeRow>('shape_records').insert({
    id,
    kind: raw.kind,
    machine_id: machineId,
    surface_id: surfaceId,
    at,
    raw: JSON.stringify(raw),
    result: JSON.stringify(result),
    job_id: jobId,
    person_id: actorOf(db),
    core_version: CORE_VERSION,
    withdrawn_at: null,
  });
  await writeEntry(db, { at, kind: 'shape-noted', machineId, surfaceId, data: { shapeId: id, result } });
}

function resultOf(raw: ShapeRaw): ShapeResult {
  try {
    return shapeResult(raw);
  } catch (error) {
    throw asRefusal(error);
  }
}

/**
 * What a record comes to, where the sum takes long; null: it doesn't, and is done when the record is kept.
 * @throws Problem at its field, or as `heavy`
 */
export async function resultApart(raw: ShapeRaw, asker: Asker): Promise<ShapeResult | null> {
  if (raw.kind !== 'light') return null;
  return heavy(SHAPE_RESULT, raw, asker).catch((error: unknown) => {
    throw asRefusal(error);
  });
}

const asRefusal = (error: unknown): unknown =>
  error instanceof RangeError || error instanceof DegenerateInput ? atField('raw', error.message) : error;

/** Takes a record of a shape back. */
export async function withdrawShape(db: Knex, id: string, at: number): Promise<void> {
  const row = await takeBack<ShapeRow>(db, 'shape_records', { id, at, what: 'This record' });
  if (!row) return;
  await writeEntry(db, {
    at,
    kind: 'shape-withdrawn',
    machineId: row.machine_id,
    surfaceId: row.surface_id,
    data: { shapeId: id, shape: row.kind },
  });
}

/** Records of shapes that stand, the latest first. */
export async function listShapes(
  db: Knex,
  { machineId, surfaceId, ...page }: ShapeFilter & PageAsk,
): Promise<Page<ShapeRecord>> {
  const query = db('shape_records as s')
    .leftJoin('people as p', 'p.id', 's.person_id')
    .whereNull('s.withdrawn_at')
    .select('s.*', 'p.name as person_name');
  latestFirst(query, { at: 's.at', id: 's.id' }, page);
  if (machineId !== undefined) void query.where('s.machine_id', machineId);
  if (surfaceId !== undefined) void query.where('s.surface_id', surfaceId);
  const rows = (await query) as (ShapeRow & { person_name: string | null })[];
  const found = rows.map((row): ShapeRecord => ({
    id: row.id,
    kind: row.kind,
    machineId: row.machine_id,
    surfaceId: row.surface_id,
    at: row.at,
    raw: JSON.parse(row.raw) as ShapeRaw,
    result: JSON.parse(row.result) as ShapeResult,
    jobId: row.job_id,
    personName: row.person_name,
  }));
  return pageFrom(found, page.limit, ({ at, id }) => placeOf(at, id));
}
