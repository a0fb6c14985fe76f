import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { listEntries } from '../apps/server/src/book/store';
import { connect, migrate } from '../apps/server/src/db/connect';
import { seededRandom } from '../packages/core/src/level/seededMap.fixture';
import { medianMs, medianMsAsync, report } from './measure';

const ENTRIES = 100_000;
const PAGE = 50;
const NAMES = ['Dunlin', 'Avocet', 'Knot', 'Plover', 'Turnstone', 'Whimbrel', 'Godwit', 'Curlew'];

async function main(): Promise<void> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-bench-'));
  const file = path.join(folder, 'book.sqlite');
  const db = connect(file);
  await migrate(db);
  fill(file);
  const bare = new Database(file, { readonly: true });

  const first = bare.prepare(
    `SELECT book.*, machines.name AS machine_name FROM book LEFT JOIN machines ON machines.id = book.machine_id ORDER BY book.seq DESC LIMIT ${PAGE + 1}`,
  );
  const found = bare.prepare(
    `SELECT book.*, machines.name AS machine_name FROM book LEFT JOIN machines ON machines.id = book.machine_id
     WHERE book.seq IN (SELECT rowid FROM book_text WHERE book_text MATCH ?) ORDER BY book.seq DESC LIMIT ${PAGE + 1}`,
  );
  for (const [name, search, query] of [
    ['first page of 100,000 lines', '', () => first.all()],
    ['search for a word in 1 of 8 lines', 'whimb', () => found.all('"whimb"*')],
    ['search for two words in 1 of 80 lines', 'curlew 0.07', () => found.all('"curlew"* "0"* "07"*')],
  ] as const) {
    const page = await listEntries(db, { search, limit: PAGE });
    const rows = query() as { id: string }[];
    if (page.items.length !== PAGE || page.items.some(({ id }, i) => id !== rows[i]!.id))
      throw new Error(`${name}: the two answers differ`);
    const ours = await medianMsAsync(() => listEntries(db, { search, limit: PAGE }));
    const other = medianMs(query);
    report(name, {
      ours,
      other,
      otherName: 'bare SQLite',
      unit: 'ms',
      ratio: `${(ours / other).toFixed(2)} times as long`,
      aim: 'within 2 times',
      met: ours / other <= 2,
    });
  }
  bare.close();
  await db.destroy();
  fs.rmSync(folder, { recursive: true });
}

/** Lines like those of a shop's book, made up from a seed. */
function fill(file: string): void {
  const raw = new Database(file);
  const random = seededRandom(7);
  const insert = raw.prepare('INSERT INTO book (id, at, kind, text, data) VALUES (?, ?, ?, ?, ?)');
  raw.transaction(() => {
    for (let i = 0; i < ENTRIES; i++) {
      const name = NAMES[i % NAMES.length]!;
      const range = (0.02 + 0.09 * random()).toFixed(2);
      insert.run(
        `e${i}`,
        i,
        'heights-read',
        `${name}: reading ${1 + (i % 3)}, 25 points, range ${range} mm.`,
        '{"range":0.1}',
      );
    }
  })();
  raw.close();
}

void main();
