import type {
  Inspection,
  InspectionWrite,
  Page,
  PageAsk,
  Photo,
  PhotoFilter,
  PhotoUpload,
  Subject,
} from '@even-bed/contract';
import { checkInspection } from '@even-bed/core';
import type { Knex } from 'knex';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { writeEntry } from '../kernel/book';
import { actorOf } from '../kernel/acting';
import { atField, idTaken, notFound, Problem } from '../kernel/problem';
import { findPrint } from '../wear/store';

interface InspectionRow {
  id: string;
  surface_id: string | null;
  machine_id: string | null;
  card: string;
  code: string;
  numbers: string;
  note: string;
  at: number;
  person_id: string | null;
}

interface PhotoRow {
  id: string;
  surface_id: string | null;
  machine_id: string | null;
  inspection_id: string | null;
  print_id: string | null;
  at: number;
  note: string;
  width: number;
  height: number;
  bytes: number;
  sha256: string;
  person_id: string | null;
}

/** @throws Problem at the field: what it is of isn't here */
async function needSubject(db: Knex, { surfaceId, machineId }: Subject): Promise<void> {
  const there = surfaceId
    ? await db('surfaces').where({ id: surfaceId }).first('id')
    : await db('machines')
        .where({ id: machineId ?? '' })
        .first('id');
  if (!there)
    throw surfaceId
      ? atField('surfaceId', 'This surface is not here.')
      : atField('machineId', 'This machine is not here.');
}

/** Writes down what was seen. The same again changes nothing. */
export async function saveInspection(db: Knex, id: string, write: InspectionWrite): Promise<void> {
  const before = await db<InspectionRow>('inspections').where({ id }).first();
  if (before) {
    if (before.card !== write.card || before.code !== write.code) throw idTaken('inspection');
    return;
  }
  const faults = checkInspection(write.card, write.code, write.numbers);
  const [first] = Object.values(faults);
  if (first !== undefined) throw new Problem(422, 'not-valid', first, { fields: faults });
  const subject = { surfaceId: write.surfaceId ?? undefined, machineId: write.machineId ?? undefined };
  await needSubject(db, subject);
  await db<InspectionRow>('inspections').insert({
    id,
    surface_id: write.surfaceId,
    machine_id: write.machineId,
    card: write.card,
    code: write.code,
    numbers: JSON.stringify(write.numbers),
    note: write.note,
    at: write.at,
    person_id: actorOf(db),
  });
  await writeEntry(db, {
    at: write.at,
    kind: 'inspected',
    machineId: write.machineId,
    surfaceId: write.surfaceId ?? undefined,
    data: { inspectionId: id, card: write.card, code: write.code, numbers: write.numbers, note: write.note },
  });
}

const IDS_AT_ONCE = 500;

/** What was seen of a surface or a machine, the latest first. */
export async function listInspections(
  db: Knex,
  { surfaceId, machineId, ...page }: Subject & PageAsk,
): Promise<Page<Inspection>> {
  const query = db('inspections as i')
    .leftJoin('people as p', 'p.id', 'i.person_id')
    .select('i.*', 'p.name as person_name');
  latestFirst(query, { at: 'i.at', id: 'i.id' }, page);
  if (surfaceId !== undefined) void query.where('i.surface_id', surfaceId);
  if (machineId !== undefined) void query.where('i.machine_id', machineId);
  const rows = (await query) as (InspectionRow & { person_name: string | null })[];
  const photos = new Map<string, string[]>();
  // In parts: a statement holds so many values and no more.
  for (let i = 0; i < rows.length; i += IDS_AT_ONCE) {
    const ids = rows.slice(i, i + IDS_AT_ONCE).map(({ id }) => id);
    const found = (await db<PhotoRow>('photos').whereIn('inspection_id', ids).select('id', 'inspection_id')) as Pick<
      PhotoRow,
      'id' | 'inspection_id'
    >[];
    for (const { id, inspection_id: of } of found) photos.set(of!, [...(photos.get(of!) ?? []), id]);
  }
  const found = rows.map((row) => ({
    id: row.id,
    surfaceId: row.surface_id,
    machineId: row.machine_id,
    card: row.card,
    code: row.code,
    numbers: JSON.parse(row.numbers) as Record<string, number>,
    note: row.note,
    at: row.at,
    personName: row.person_name,
    photoIds: photos.get(row.id) ?? [],
  }));
  return pageFrom(found, page.limit, ({ at, id }) => placeOf(at, id));
}

export async function findPhoto(db: Knex, id: string): Promise<Photo | null> {
  const [photo] = (await listPhotos(db, { id, limit: 1 })).items;
  return photo ?? null;
}

/** Notes a photo whose files are in place. */
export async function savePhoto(
  db: Knex,
  id: string,
  { inspectionId, printId, at, note, ...of }: PhotoUpload,
  file: { width: number; height: number; bytes: number; sha256: string },
): Promise<Photo> {
  const print = printId ? await findPrint(db, printId) : null;
  if (printId && !print) throw atField('printId', 'This print is not here.');
  // A photo of a print is one of its machine and of what lay there too.
  const surfaceId = print ? (print.surfaceId ?? undefined) : of.surfaceId;
  const machineId = print ? print.machineId : of.machineId;
  await needSubject(db, { surfaceId, machineId });
  if (inspectionId && !(await db<InspectionRow>('inspections').where({ id: inspectionId }).first()))
    throw atField('inspectionId', 'This inspection is not here.');
  await db<PhotoRow>('photos').insert({
    id,
    surface_id: surfaceId ?? null,
    machine_id: machineId ?? null,
    inspection_id: inspectionId ?? null,
    print_id: printId ?? null,
    at,
    note,
    ...file,
    person_id: actorOf(db),
  });
  await writeEntry(db, {
    at,
    kind: 'photo-added',
    machineId,
    surfaceId,
    data: { photoId: id, sha256: file.sha256, note },
  });
  const photo = await findPhoto(db, id);
  if (!photo) throw notFound('This photo');
  return photo;
}

/** Photos of a surface, a machine or a print, the latest first. */
export async function listPhotos(db: Knex, filter: PhotoFilter & PageAsk & { id?: string }): Promise<Page<Photo>> {
  const query = db('photos as f').leftJoin('people as p', 'p.id', 'f.person_id').select('f.*', 'p.name as person_name');
  latestFirst(query, { at: 'f.at', id: 'f.id' }, filter);
  if (filter.id !== undefined) void query.where('f.id', filter.id);
  if (filter.surfaceId !== undefined) void query.where('f.surface_id', filter.surfaceId);
  if (filter.machineId !== undefined) void query.where('f.machine_id', filter.machineId);
  if (filter.printId !== undefined) void query.where('f.print_id', filter.printId);
  const rows = (await query) as (PhotoRow & { person_name: string | null })[];
  const found = rows.map((row) => ({
    id: row.id,
    surfaceId: row.surface_id,
    machineId: row.machine_id,
    inspectionId: row.inspection_id,
    printId: row.print_id,
    at: row.at,
    note: row.note,
    width: row.width,
    height: row.height,
    personName: row.person_name,
  }));
  return pageFrom(found, filter.limit, ({ at, id }) => placeOf(at, id));
}
