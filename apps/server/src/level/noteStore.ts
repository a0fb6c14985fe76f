import type {
  LevelNote,
  LevelNoteFilter,
  LevelNoteWrite,
  Page,
  PageAsk,
  ZMark,
  ZMarkKind,
  ZMarkWrite,
} from '@even-bed/contract';
import {
  CORE_VERSION,
  DegenerateAdjusters,
  type LevelNoteRaw,
  type LevelNoteResult,
  type NoteWay,
} from '@even-bed/core';
import { levelNoteResult } from '@even-bed/core/level/levelNote';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { actorOf } from '../kernel/acting';
import { writeEntry } from '../kernel/book';
import { latestFirst, pageFrom, placeOf } from '../kernel/page';
import { atField, idTaken } from '../kernel/problem';
import { takeBack } from '../kernel/takeBack';

interface NoteRow {
  id: string;
  machine_id: string;
  at: number;
  way: NoteWay;
  raw: string;
  result: string;
  job_id: string | null;
  person_id: string | null;
  core_version: string;
  withdrawn_at: number | null;
}

/** Keeps a level by hand, raw. The same again changes nothing. @throws Problem 422 readings that can't be */
export async function keepLevelNote(
  db: Knex,
  id: string,
  { machineId, at, raw }: LevelNoteWrite,
  jobId: string | null = null,
): Promise<void> {
  const before = await db<NoteRow>('level_notes').where({ id }).first();
  if (before) {
    if (before.machine_id !== machineId || before.raw !== JSON.stringify(raw)) throw idTaken('level');
    return;
  }
  const machine = await findMachine(db, machineId);
  if (!machine) throw atField('machineId', 'This machine is not here.');
  const result = resultOf(raw);
  await db<NoteRow>('level_notes').insert({
    id,
    machine_id: machineId,
    at,
    way: raw.way,
    raw: JSON.stringify(raw),
    result: JSON.stringify(result),
    job_id: jobId,
    person_id: actorOf(db),
    core_version: CORE_VERSION,
    withdrawn_at: null,
  });
  const { verdict, range } = result;
  await writeEntry(db, { at, kind: 'level-noted', machineId, data: { noteId: id, way: raw.way, verdict, range } });
}

function resultOf(raw: LevelNoteRaw): LevelNoteResult {
  try {
    return levelNoteResult(raw);
  } catch (error) {
    if (error instanceof RangeError || error instanceof DegenerateAdjusters) throw atField('raw', error.message);
    throw error;
  }
}

/** Takes a level by hand back. */
export async function withdrawLevelNote(db: Knex, id: string, at: number): Promise<void> {
  const row = await takeBack<NoteRow>(db, 'level_notes', { id, at, what: 'This level' });
  if (!row) return;
  await writeEntry(db, {
    at,
    kind: 'level-note-withdrawn',
    machineId: row.machine_id,
    data: { noteId: id, way: row.way },
  });
}

/** Levels by hand that stand, the latest first. */
export async function listLevelNotes(
  db: Knex,
  { machineId, ...page }: LevelNoteFilter & PageAsk,
): Promise<Page<LevelNote>> {
  const query = db('level_notes as n')
    .leftJoin('people as p', 'p.id', 'n.person_id')
    .whereNull('n.withdrawn_at')
    .select('n.*', 'p.name as person_name');
  latestFirst(query, { at: 'n.at', id: 'n.id' }, page);
  if (machineId !== undefined) void query.where('n.machine_id', machineId);
  const rows = (await query) as (NoteRow & { person_name: string | null })[];
  const found = rows.map((row): LevelNote => ({
    id: row.id,
    machineId: row.machine_id,
    at: row.at,
    way: row.way,
    raw: JSON.parse(row.raw) as LevelNoteRaw,
    result: JSON.parse(row.result) as LevelNoteResult,
    jobId: row.job_id,
    personName: row.person_name,
  }));
  return pageFrom(found, page.limit, ({ at, id }) => placeOf(at, id));
}

interface MarkRow {
  id: string;
  machine_id: string;
  kind: ZMarkKind;
  at: number;
  job_id: string | null;
  person_id: string | null;
  withdrawn_at: number | null;
}

/** Writes down that zero was set, or home moved. The same again changes nothing. */
export async function keepZMark(
  db: Knex,
  id: string,
  { machineId, kind, at }: ZMarkWrite,
  jobId: string | null = null,
): Promise<void> {
  const before = await db<MarkRow>('z_marks').where({ id }).first();
  if (before) {
    if (before.machine_id !== machineId || before.kind !== kind || before.at !== at) throw idTaken('mark');
    return;
  }
  if (!(await findMachine(db, machineId))) throw atField('machineId', 'This machine is not here.');
  await db<MarkRow>('z_marks').insert({
    id,
    machine_id: machineId,
    kind,
    at,
    job_id: jobId,
    person_id: actorOf(db),
    withdrawn_at: null,
  });
  await writeEntry(db, { at, kind: 'z-marked', machineId, data: { markId: id, mark: kind } });
}

/** Takes back that zero was set, or home moved: the one before counts again. */
export async function withdrawZMark(db: Knex, id: string, at: number): Promise<void> {
  const row = await takeBack<MarkRow>(db, 'z_marks', { id, at, what: 'This mark' });
  if (!row) return;
  await writeEntry(db, {
    at,
    kind: 'z-mark-withdrawn',
    machineId: row.machine_id,
    data: { markId: id, mark: row.kind },
  });
}

/** The latest mark of a kind that stands, or null. */
export async function lastZMark(db: Knex, machineId: string, kind: ZMarkKind): Promise<ZMark | null> {
  const row = (await db('z_marks as z')
    .leftJoin('people as p', 'p.id', 'z.person_id')
    .where({ 'z.machine_id': machineId, 'z.kind': kind })
    .whereNull('z.withdrawn_at')
    .orderBy([
      { column: 'z.at', order: 'desc' },
      { column: 'z.id', order: 'desc' },
    ])
    .first('z.id', 'z.at', 'p.name as person_name')) as
    { id: string; at: number; person_name: string | null } | undefined;
  return row ? { id: row.id, at: row.at, personName: row.person_name } : null;
}
