import type {
  BookCheck,
  BookEntry,
  BookEvent,
  BookFilter,
  BookKind,
  CorrectionWrite,
  Page,
  PageAsk,
} from '@even-bed/contract';
import { bookSentence, type Reader } from '@even-bed/words';
import type { Knex } from 'knex';
import { entryHash, FIRST_HASH, type HashedEntry } from '../db/entryHash';
import { matchBookText } from '../db/searchBook';
import { writeEntry } from '../kernel/book';
import { noSuchPage, pageFrom } from '../kernel/page';
import { notFound } from '../kernel/problem';
import { shopSettings } from '../manner/store';

interface Row extends HashedEntry {
  kind: BookKind;
  machine_name: string | null;
  surface_tag: string | null;
  person_name: string | null;
  corrected_by: string | null;
  before_hash: string;
  hash: string;
}

/** A page of the book, newest line first. */
export async function listEntries(db: Knex, filter: BookFilter & PageAsk): Promise<Page<BookEntry>> {
  const reader = await shopSettings(db);
  const query = withNames(db)
    .orderBy('book.seq', 'desc')
    .limit(filter.limit + 1);
  const { search, after, limit, ...others } = filter;
  const before = after === undefined ? undefined : lineOf(after);
  const alone = Object.values(others).every((value) => value === undefined);
  await matchBookText(db, query, { search, alone, before, limit: limit + 1 });
  if (filter.machineId !== undefined) void query.where('book.machine_id', filter.machineId);
  if (filter.surfaceId !== undefined) void query.where('book.surface_id', filter.surfaceId);
  if (filter.personId !== undefined) void query.where('book.person_id', filter.personId);
  if (filter.kind !== undefined) void query.where('book.kind', filter.kind);
  if (before !== undefined) void query.where('book.seq', '<', before);
  if (filter.from !== undefined) void query.where('book.at', '>=', filter.from);
  if (filter.to !== undefined) void query.where('book.at', '<', filter.to);
  const rows = (await query) as Row[];
  return pageFrom(
    rows.map((row) => entryOf(row, reader)),
    limit,
    ({ seq }) => String(seq),
  );
}

function lineOf(after: string): number {
  if (!/^\d{1,15}$/.test(after)) throw noSuchPage();
  return Number(after);
}

export async function findEntry(db: Knex, id: string): Promise<BookEntry | null> {
  const row = (await withNames(db).where('book.id', id).first()) as Row | undefined;
  return row ? entryOf(row, await shopSettings(db)) : null;
}

const withNames = (db: Knex) =>
  db('book')
    .leftJoin('machines', 'machines.id', 'book.machine_id')
    .leftJoin('surfaces', 'surfaces.id', 'book.surface_id')
    .leftJoin('people', 'people.id', 'book.person_id')
    .select('book.*', 'machines.name as machine_name', 'surfaces.tag as surface_tag', 'people.name as person_name')
    .select(
      db('book as later')
        .select('later.id')
        .whereRaw('later.corrects = book.id')
        .orderBy('later.seq', 'desc')
        .limit(1)
        .as('corrected_by'),
    );

/** A correction is a new line that names the old one; the old one stays as it was written. */
export async function writeCorrection(db: Knex, { corrects, text, at }: CorrectionWrite): Promise<void> {
  const old = await findEntry(db, corrects);
  if (!old) throw notFound('The entry to correct');
  await writeEntry(db, {
    at,
    kind: 'correction',
    machineId: old.machineId,
    checkId: old.checkId ?? undefined,
    surfaceId: old.surfaceId ?? undefined,
    data: { corrects, was: old.text, text },
    corrects,
  });
}

/** Lines read at a time while the chain is checked. */
const CHUNK = 5_000;

/** Goes through the whole book and checks that each line follows from the one before, without a gap. */
export async function verifyBook(db: Knex): Promise<BookCheck> {
  let entries = 0;
  let before = FIRST_HASH;
  for (;;) {
    const rows = (await db('book').where('seq', '>', entries).orderBy('seq').limit(CHUNK)) as Row[];
    for (const row of rows) {
      const reason =
        row.seq !== entries + 1
          ? `line ${entries + 1} is missing`
          : row.before_hash !== before
            ? 'it does not carry the hash of the line before'
            : row.hash !== entryHash(before, row)
              ? 'what it says is not what was written'
              : null;
      if (reason !== null) return { entries, sound: false, fault: { seq: row.seq, reason }, lastHash: before };
      entries = row.seq;
      before = row.hash;
    }
    if (rows.length < CHUNK) return { entries, sound: true, fault: null, lastHash: before };
  }
}

/** A line as it is read: what happened by kind and payload, its sentence in the shop's manner and with present names. */
const entryOf = (row: Row, reader: Reader): BookEntry => ({
  ...eventOf(row),
  id: row.id,
  seq: row.seq,
  at: row.at,
  writtenAt: row.written_at ?? null,
  machineId: row.machine_id,
  machineName: row.machine_name,
  checkId: row.check_id,
  surfaceId: row.surface_id,
  surfaceTag: row.surface_tag,
  personId: row.person_id,
  personName: row.person_name,
  // Lines from before events were typed keep the sentence with which they were written.
  text:
    row.text === ''
      ? bookSentence(eventOf(row), { machine: row.machine_name, surface: row.surface_tag }, reader)
      : row.text,
  corrects: row.corrects,
  correctedBy: row.corrected_by,
  beforeHash: row.before_hash,
  hash: row.hash,
});

const eventOf = ({ kind, data }: Row) => ({ kind, data: JSON.parse(data) as unknown }) as BookEvent;
