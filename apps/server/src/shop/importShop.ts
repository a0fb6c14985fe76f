import fs from 'node:fs';
import path from 'node:path';
import readline from 'node:readline';
import type { Readable } from 'node:stream';
import { validate } from '@even-bed/contract';
import { settingsWriteSchema } from '@even-bed/contract/shop/records';
import type { Knex } from 'knex';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { verifyBook } from '../book/store';
import { brokenKeys, checkKeysLater, columnsOf } from '../db/snapshot';
import { Problem } from '../kernel/problem';
import { isHash } from '../people/store';
import { EXPORT_FORMAT, EXPORT_VERSION } from './exportShop';
import { TAKEN_TABLES, type TakenTable } from './tables';

/** A zip may unpack to this many times its size, and some: tables shrink tenfold, bombs a thousandfold. */
const MOST_GROWTH = 60;
const FREE_BYTES = 64 * 1024 * 1024;
const LONGEST_LINE = 8 * 1024 * 1024;
const ROWS_AT_ONCE = 200;
const MOST_ENTRIES = 400_000;

const PHOTO = /^photos\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}(?:-small)?\.jpg)$/;
const TABLE = /^data\/([a-z_]+)\.jsonl$/;
const PASSED_OVER = /^(README\.txt|tables\/[a-z_]+\.csv)$/;

const refuse = (message: string, cause?: unknown) =>
  Object.assign(new Problem(422, 'no-shop', message), cause === undefined ? {} : { cause });

const opened = (file: string) =>
  new Promise<ZipFile>((resolve, reject) =>
    // yauzl itself refuses names that lead out of a folder, and entries larger than they say.
    yauzl.open(file, { lazyEntries: true, autoClose: false, strictFileNames: true }, (error, zip) =>
      error ? reject(error) : resolve(zip),
    ),
  );

const entryStream = (zip: ZipFile, entry: Entry) =>
  new Promise<Readable>((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );

/** All entries by name, refusing what has no place in an export and what would unpack without end. */
async function entriesOf(zip: ZipFile, size: number): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  let bytes = 0;
  await new Promise<void>((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', resolve);
    zip.on('entry', (entry: Entry) => {
      const { fileName, uncompressedSize } = entry;
      bytes += uncompressedSize;
      const known = fileName === 'manifest.json' || [PHOTO, TABLE, PASSED_OVER].some((name) => name.test(fileName));
      if (!known) return reject(refuse(`“${fileName.slice(0, 60)}” has no place in an export of a shop.`));
      if (entries.has(fileName) || entries.size >= MOST_ENTRIES)
        return reject(refuse('This zip names a file twice, or too many.'));
      if (bytes > FREE_BYTES + MOST_GROWTH * size)
        return reject(refuse('This zip would unpack to far more than a shop holds. Nothing was read in.'));
      entries.set(fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
  return entries;
}

async function textOf(zip: ZipFile, entry: Entry): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of (await entryStream(zip, entry)) as AsyncIterable<Buffer>) chunks.push(chunk);
  return Buffer.concat(chunks).toString('utf8');
}

/**
 * Reads an export into an empty shop: all of it or nothing. The same rows stand there afterwards, book and its chain
 * included.
 * @throws Problem what is no export, is damaged, or was changed on the way
 */
export async function importShop(
  db: Knex,
  { file, photoFolder }: { file: string; photoFolder: string },
): Promise<Record<string, number>> {
  let zip: ZipFile;
  try {
    zip = await opened(file);
  } catch (cause) {
    throw refuse('This is no zip that can be read. Choose the file that “Take the shop along” made.', cause);
  }
  const written: string[] = [];
  try {
    const entries = await entriesOf(zip, fs.statSync(file).size);
    const { rows, book: head } = await readManifest(zip, entries.get('manifest.json'));
    await db.transaction(async (trx) => {
      if (await trx('people').first())
        throw new Problem(409, 'not-empty', 'This shop is not empty. An export is read into an empty one.');
      await checkKeysLater(trx);
      await trx('surface_kinds').delete();
      for (const table of TAKEN_TABLES) {
        const { name } = table;
        const entry = entries.get(`data/${name}.jsonl`);
        const count = entry ? await readTable(trx, table, await entryStream(zip, entry)) : 0;
        if (count !== (rows[name] ?? 0))
          throw refuse(`Table ${name} has ${count} rows, its list says ${rows[name] ?? 0}.`);
      }
      const [broken] = await brokenKeys(trx);
      if (broken !== undefined) throw refuse(`Table ${broken} has rows that lead nowhere: this export is damaged.`);
      if (!(await trx('people').where({ role: 'lead', active: true }).first()))
        throw refuse('Nobody in this export is a lead who may sign in: nobody could let others in.');
      const book = await verifyBook(trx);
      if (!book.sound)
        throw refuse(`The book in this export was changed: line ${book.fault!.seq}, ${book.fault!.reason}.`);
      if (head.entries !== book.entries || (head.entries > 0 && head.lastHash !== book.lastHash))
        throw refuse(
          `The book in this export has ${book.entries} lines, and when it was made it had ${head.entries} that ended otherwise. It was changed.`,
        );
      await fs.promises.mkdir(photoFolder, { recursive: true });
      for (const [name, entry] of entries) {
        const [, photo] = PHOTO.exec(name) ?? [];
        if (photo === undefined) continue;
        const target = path.join(photoFolder, photo);
        written.push(target);
        await fs.promises.writeFile(target, await entryStream(zip, entry), { mode: 0o640 });
      }
    });
    return rows;
  } catch (error) {
    for (const photo of written) fs.rmSync(photo, { force: true });
    if (error instanceof Problem) throw error;
    throw refuse('This export is damaged. Nothing was read in; take the shop along anew.', error);
  } finally {
    zip.close();
  }
}

interface Manifest {
  rows: Record<string, number>;
  /** Where the book ended. */
  book: { entries: number; lastHash: string | null };
}

async function readManifest(zip: ZipFile, entry: Entry | undefined): Promise<Manifest> {
  if (!entry) throw refuse('This zip has no manifest: it is no export of a shop.');
  if (entry.uncompressedSize > 100_000) throw refuse('The manifest of this zip is too long.');
  const manifest = JSON.parse(await textOf(zip, entry)) as { format?: unknown; version?: unknown } & Partial<Manifest>;
  if (manifest.format !== EXPORT_FORMAT) throw refuse('This zip is no export of a shop.');
  if (manifest.version !== EXPORT_VERSION)
    throw refuse(
      'This export was made by another version of Even Bed. Read it in there, or use the version that made it.',
    );
  const { rows, book } = manifest;
  if (!rows || typeof rows !== 'object' || !book || typeof book !== 'object' || typeof book.entries !== 'number')
    throw refuse(
      'The manifest of this zip does not say how many rows there are, or where its book ends. It was changed.',
    );
  return { rows, book };
}

/** What a row may not hold, in words; null: it is one that this program could have written. */
function wrongIn({ name, json = [] }: TakenTable, row: Record<string, unknown>): string | null {
  for (const column of json) {
    const text = row[column] ?? null;
    if (text !== null && !isJson(text)) return `${column} is not readable`;
  }
  if (name === 'people' && !isHash(String(row['secret']))) return 'the hash of a secret is none that is made here';
  if (name === 'settings' && row['key'] === 'shop') {
    const settings = { ...(JSON.parse(String(row['value'])) as object), version: row['version'], at: 0 };
    const checked = validate(settingsWriteSchema, settings);
    if (!checked.ok) return Object.values(checked.fields)[0]!;
  }
  return null;
}

function isJson(text: unknown): boolean {
  if (typeof text !== 'string') return false;
  try {
    JSON.parse(text);
    return true;
  } catch {
    return false;
  }
}

/** Reads one table, row by row. @returns how many rows */
async function readTable(trx: Knex.Transaction, taken: TakenTable, stream: Readable): Promise<number> {
  const { name: table } = taken;
  const columns = await columnsOf(trx, table);
  let count = 0;
  let batch: Record<string, unknown>[] = [];
  const flush = async () => {
    if (batch.length > 0) await trx(table).insert(batch);
    batch = [];
  };
  for await (const line of readline.createInterface({ input: stream, crlfDelay: Infinity })) {
    if (line.length > LONGEST_LINE) throw refuse(`A row of ${table} is longer than any row can be.`);
    const row = JSON.parse(line) as Record<string, unknown>;
    const strange = Object.keys(row).find((column) => !columns.includes(column));
    if (strange !== undefined) throw refuse(`Table ${table} has no column ${strange.slice(0, 40)}.`);
    const wrong = wrongIn(taken, row);
    if (wrong !== null) throw refuse(`Row ${count + 1} of ${table} can’t be taken: ${wrong}.`);
    batch.push(row);
    count++;
    if (batch.length === ROWS_AT_ONCE) await flush();
  }
  await flush();
  return count;
}
