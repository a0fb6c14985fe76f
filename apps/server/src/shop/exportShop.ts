import fs from 'node:fs';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { Knex } from 'knex';
import yazl from 'yazl';
import { columnsOf, onSnapshot } from '../db/snapshot';
import { csv } from '../kernel/csv';
import { TAKEN_TABLES, type TakenTable } from './tables';

export const EXPORT_FORMAT = 'even-bed-shop';
export const EXPORT_VERSION = 1;
const ROWS_AT_ONCE = 2_000;
/** Every entry carries this time: the same shop gives the same bytes whenever it is exported. */
const NO_TIME = new Date(Date.UTC(1980, 0, 1, 12));

const README = `Even Bed: one shop, taken along
================================

manifest.json   what this is, when it was made, and how many rows each table has
data/*.jsonl    every table, one row a line as JSON. This is what an empty shop reads in
tables/*.csv    the same tables for a spreadsheet (UTF-8, comma). Cells that a spreadsheet would run as a formula
                have an apostrophe in front. Hashes of secrets are left out here
photos/*.jpg    photos, by their id; "-small" is the small one

Lengths are in mm, temperatures in degrees Celsius, weights in g, spans in s; times are epoch milliseconds, UTC.
Columns that end in _id name a row of another table. "data" of the book is JSON.

Keep this file like a key: data/people.jsonl holds the hashes of passphrases and PINs, so that everybody can sign in
again. To read it in, start an empty shop and choose "Bring a shop along" on its first page.
`;

async function* rowsOf(db: Knex, { name, order, without }: TakenTable): AsyncGenerator<Record<string, unknown>[]> {
  for (let offset: unknown[] | null = null; ;) {
    const query = db(name)
      .orderBy([...order])
      .limit(ROWS_AT_ONCE);
    if (without) void query.whereNot(without.column, without.value);
    // Goes on after the last row, by its key: the same at the millionth row as at the first.
    if (offset)
      void query.whereRaw(`(${order.map(() => '??').join()}) > (${order.map(() => '?').join()})`, [
        ...order,
        ...(offset as string[]),
      ]);
    const rows = (await query) as Record<string, unknown>[];
    if (rows.length > 0) yield rows;
    if (rows.length < ROWS_AT_ONCE) return;
    offset = order.map((column) => rows[rows.length - 1]![column]);
  }
}

async function* jsonLines(db: Knex, table: TakenTable): AsyncGenerator<string> {
  for await (const rows of rowsOf(db, table)) yield rows.map((row) => `${JSON.stringify(row)}\n`).join('');
}

async function* csvLines(db: Knex, table: TakenTable): AsyncGenerator<string> {
  const columns = (await columnsOf(db, table.name)).filter((column) => !table.secret?.includes(column));
  yield csv([columns]);
  for await (const rows of rowsOf(db, table))
    yield csv(rows.map((row) => columns.map((column) => row[column]))).slice(1);
}

/**
 * Everything a shop has in one zip, as it stands at this moment: written to a file, entry after entry.
 * @param at the one thing in it that differs between two exports of the same shop
 */
export async function exportShop(
  db: Knex,
  { file, photoFolder, at }: { file: string; photoFolder: string; at: number },
): Promise<void> {
  await onSnapshot(db, async (frozen) => {
    const zip = new yazl.ZipFile();
    const options = { mtime: NO_TIME, mode: 0o100644 };
    const counts: Record<string, number> = {};
    for (const { name, without } of TAKEN_TABLES) {
      const query = frozen(name).count('* as count').first();
      if (without) void query.whereNot(without.column, without.value);
      counts[name] = ((await query) as { count: number }).count;
    }
    const last = (await frozen('book').orderBy('seq', 'desc').first('seq', 'hash')) as
      { seq: number; hash: string } | undefined;
    // Where the book ends, so that an end that was cut off is noticed.
    const book = { entries: last?.seq ?? 0, lastHash: last?.hash ?? null };
    const manifest = { format: EXPORT_FORMAT, version: EXPORT_VERSION, exportedAt: at, rows: counts, book };
    zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 2)}\n`), 'manifest.json', options);
    zip.addBuffer(Buffer.from(README), 'README.txt', options);
    for (const table of TAKEN_TABLES) {
      zip.addReadStreamLazy(`data/${table.name}.jsonl`, options, (give) =>
        give(null, Readable.from(jsonLines(frozen, table))),
      );
      zip.addReadStreamLazy(`tables/${table.name}.csv`, options, (give) =>
        give(null, Readable.from(csvLines(frozen, table))),
      );
    }
    for (const { id } of (await frozen('photos').select('id').orderBy('id')) as { id: string }[]) {
      for (const name of [`${id}.jpg`, `${id}-small.jpg`]) {
        const photo = path.join(photoFolder, name);
        // Photos are pressed already: packing them again takes time and saves nothing.
        if (fs.existsSync(photo))
          zip.addBuffer(fs.readFileSync(photo), `photos/${name}`, { ...options, compress: false });
      }
    }
    zip.end();
    await new Promise<void>((resolve, reject) => {
      const out = fs.createWriteStream(file, { mode: 0o600 });
      zip.on('error', reject);
      zip.outputStream.on('error', reject).pipe(out).on('finish', resolve).on('error', reject);
    });
  });
}
