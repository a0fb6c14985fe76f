import type { JobStart, ProcedureEntry, ProcedureRecord, ProcedureWrite } from '@even-bed/contract';
import { createHash } from 'node:crypto';
import { checkProcedure, PROCEDURES, type Procedure } from '@even-bed/core';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { actorOf } from '../kernel/acting';
import { notFound, Problem, stale } from '../kernel/problem';

interface ProcedureRow {
  id: string;
  version: number;
  title: string;
  based_on: string | null;
  doc: string;
  at: number;
  person_id: string | null;
}
/** Ids of a shop's own are made by clients; those that ship have names. */
const OWN_ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
type Named = ProcedureRow & { person_name: string | null };

const entryOf = (doc: Procedure, id: string, version: number, basedOn: string | null): ProcedureEntry => ({
  id,
  version,
  title: doc.title,
  family: doc.family,
  about: doc.about,
  minutes: doc.minutes,
  basedOn,
});

function recordOf(row: Named): ProcedureRecord {
  const doc = JSON.parse(row.doc) as Procedure;
  return {
    ...entryOf(doc, row.id, row.version, row.based_on),
    doc,
    edition: null,
    at: row.at,
    personName: row.person_name,
  };
}

/** Names a document that ships by what it says: another text is another edition. */
const editionOf = (doc: Procedure) => createHash('sha256').update(JSON.stringify(doc)).digest('hex').slice(0, 16);

/** Keeps what ships with this version of the program, for jobs that are begun on it when another one is installed. */
export async function keepEditions(db: Knex, now: number): Promise<void> {
  const rows = PROCEDURES.map((doc) => ({
    procedure_id: doc.id,
    edition: editionOf(doc),
    doc: JSON.stringify(doc),
    at: now,
  }));
  await db('procedure_editions').insert(rows).onConflict(['procedure_id', 'edition']).ignore();
}

const withNames = (db: Knex) =>
  db('procedures as r').leftJoin('people as p', 'p.id', 'r.person_id').select('r.*', 'p.name as person_name');

/** Those that ship, then the shop's own, each in its latest version. */
export async function listProcedures(db: Knex): Promise<ProcedureEntry[]> {
  const rows = (await withNames(db)
    .whereRaw('r.version = (select max(version) from procedures where id = r.id)')
    .orderBy('r.title')) as Named[];
  return [
    ...PROCEDURES.map((doc) => entryOf(doc, doc.id, 0, null)),
    ...rows.map((row) => entryOf(JSON.parse(row.doc) as Procedure, row.id, row.version, row.based_on)),
  ];
}

/** A procedure in one of its versions, the latest when none is named. */
export async function findProcedure(db: Knex, id: string, version?: number): Promise<ProcedureRecord | null> {
  const shipped = PROCEDURES.find((doc) => doc.id === id);
  if (shipped) return shippedRecord(shipped);
  const query = withNames(db).where('r.id', id).orderBy('r.version', 'desc');
  if (version !== undefined) void query.where('r.version', version);
  const row = (await query.first()) as Named | undefined;
  return row ? recordOf(row) : null;
}

const shippedRecord = (doc: Procedure): ProcedureRecord => ({
  ...entryOf(doc, doc.id, 0, null),
  doc,
  edition: editionOf(doc),
  at: null,
  personName: null,
});

/** The document that a job is begun with: a version of the shop's own, or the edition that the device knows. */
export async function procedureToBegin(
  db: Knex,
  { procedureId, version, edition }: Pick<JobStart, 'procedureId' | 'version' | 'edition'>,
): Promise<ProcedureRecord | null> {
  const latest = await findProcedure(db, procedureId, version);
  if (!latest || edition === undefined || latest.edition === null || latest.edition === edition) return latest;
  const earlier = (await db('procedure_editions').where({ procedure_id: procedureId, edition }).first()) as
    { doc: string } | undefined;
  return earlier ? shippedRecord(JSON.parse(earlier.doc) as Procedure) : null;
}

/** Saves a version more of a shop's own procedure. @throws Problem a shipped one, a stale one, or one that can't be worked */
export async function saveProcedure(db: Knex, id: string, write: ProcedureWrite): Promise<ProcedureRecord> {
  if (PROCEDURES.some((doc) => doc.id === id))
    throw new Problem(409, 'shipped', 'What ships with the shop is not changed. Copy it, and change the copy.');
  if (!OWN_ID.test(id)) throw notFound('This procedure');
  const before = await findProcedure(db, id);
  const doc: Procedure = { ...write.doc, id };
  if (before && before.version === write.version + 1 && JSON.stringify(before.doc) === JSON.stringify(doc))
    return before;
  if ((before?.version ?? 0) !== write.version) throw stale('This procedure', before, write);
  const faults = checkProcedure(doc);
  if (faults.length > 0) {
    const at = (stepId: string | null) => doc.steps.findIndex((step) => step.id === stepId);
    const fields: Record<string, string> = {};
    for (const { stepId, message } of faults) fields[stepId === null ? 'doc' : `doc.steps.${at(stepId)}`] ??= message;
    const [{ stepId, message }] = faults as [(typeof faults)[0]];
    const where = doc.steps[at(stepId)]?.title;
    throw new Problem(422, 'not-workable', where ? `“${where}”: ${message}` : message, { fields });
  }
  await db<ProcedureRow>('procedures').insert({
    id,
    version: write.version + 1,
    title: doc.title,
    based_on: write.basedOn,
    doc: JSON.stringify(doc),
    at: write.at,
    person_id: actorOf(db),
  });
  await writeEntry(db, {
    at: write.at,
    kind: 'procedure-saved',
    data: { procedureId: id, version: write.version + 1, title: doc.title },
  });
  return (await findProcedure(db, id))!;
}
