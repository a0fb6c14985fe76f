import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import type { Knex } from 'knex';
import { v7 as uuid } from 'uuid';
import { listEntries } from '../apps/server/src/book/store';
import { listInspections } from '../apps/server/src/care/store';
import { connect, migrate } from '../apps/server/src/db/connect';
import { listMachines } from '../apps/server/src/fleet/store';
import { acting } from '../apps/server/src/kernel/acting';
import { fingerprintOf } from '../apps/server/src/people/secrets';
import { databaseFile } from '../apps/server/src/settings';
import { readStack } from '../apps/server/src/surfaces/stackStore';
import { listSurfaces } from '../apps/server/src/surfaces/store';
import { listPrints, logPrint } from '../apps/server/src/wear/store';
import { fillShop, LAST, machineId, PERSON, SIZE, surfaceId } from './fullShop';
import { medianMs, medianMsAsync, report } from './measure';

const PAGE = 50;
const POSTS_A_SECOND = 50;
const POST_SECONDS = 30;
const WARM_UP_SECONDS = 3;
const PORT = 4977;
const SESSION = 'bench-session';

async function main(): Promise<void> {
  // Making the shop takes minutes: a folder that is named is kept and used again.
  const kept = process.argv[2];
  const folder = kept ?? fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-bench-'));
  const file = databaseFile(folder);
  const made = fs.existsSync(file);
  const db = connect(file);
  await migrate(db);
  const start = performance.now();
  if (!made) fillShop(file);
  console.log(
    `${SIZE.machines} machines, ${SIZE.surfaces} surfaces, ${SIZE.prints} prints, ${SIZE.book} lines of the book: ${Math.round(fs.statSync(file).size / 1e6)} MB, made in ${Math.round((performance.now() - start) / 1000)} s`,
  );
  const bare = new Database(file);
  await reads(db, bare);
  await posts(db, bare);
  bare.close();
  await db.destroy();
  await load(folder, file);
  if (kept === undefined) fs.rmSync(folder, { recursive: true });
}

const NAMED = `SELECT b.*, m.name AS machine_name, s.tag AS surface_tag, p.name AS person_name FROM book b
  LEFT JOIN machines m ON m.id = b.machine_id LEFT JOIN surfaces s ON s.id = b.surface_id LEFT JOIN people p ON p.id = b.person_id`;
const PRINTS = `SELECT p.*, m.name AS machine_name, s.tag AS surface_tag FROM prints p
  JOIN machines m ON m.id = p.machine_id LEFT JOIN surfaces s ON s.id = p.surface_id`;
const SURFACES = `SELECT s.*, k.*, m.name AS machine_name FROM surfaces s
  JOIN surface_kinds k ON k.id = s.kind_id LEFT JOIN machines m ON m.id = s.machine_id`;

async function reads(db: Knex, bare: Database.Database): Promise<void> {
  const all = (sql: string, ...values: unknown[]) => {
    const statement = bare.prepare(sql);
    return () => statement.all(...values);
  };
  const book = (filter: object) => () => listEntries(db, { search: '', limit: PAGE, ...filter });
  const prints = (filter: object) => () => listPrints(db, { search: '', limit: PAGE, ...filter });
  const rack = (filter: object) => () => listSurfaces(db, { search: '', limit: 100, ...filter }, LAST);
  const inText = `b.seq IN (SELECT rowid FROM book_text WHERE book_text MATCH ? ORDER BY rowid DESC LIMIT ${PAGE + 1})`;
  const like = (term: string) => Array.from({ length: 7 }, () => `%${term}%`);
  const anyOf = (columns: string[]) => `(${columns.map((column) => `${column} LIKE ?`).join(' OR ')})`;
  const someRack = anyOf(['s.tag', 'k.name', 'm.name', 's.place', 's.note', 's.retired', 's.awaiting']);
  const machine = machineId(123);
  const cases: [string, () => Promise<unknown>, () => unknown][] = [
    [
      'all machines of the floor',
      () => listMachines(db, Date.now()),
      both(
        all(`SELECT m.*, a.name, r.every_days, r.next_due_at,
          (SELECT id FROM level_checks l WHERE l.machine_id = m.id AND outcome = 'finished' ORDER BY ended_at DESC LIMIT 1) AS last,
          (SELECT id FROM level_checks o WHERE o.machine_id = m.id AND outcome IS NULL ORDER BY started_at DESC LIMIT 1) AS open
          FROM machines m JOIN areas a ON a.id = m.area_id LEFT JOIN rules r ON r.machine_id = m.id ORDER BY a.position, m.name`),
        all('SELECT * FROM adjusters ORDER BY machine_id, position'),
      ),
    ],
    [
      "a machine's page: facts, stack, prints, what was seen",
      () => machinePage(db, machine),
      both(
        all('SELECT m.*, a.name FROM machines m JOIN areas a ON a.id = m.area_id WHERE m.id = ?', machine),
        all('SELECT * FROM adjusters WHERE machine_id = ? ORDER BY position', machine),
        all('SELECT * FROM stack_layers WHERE machine_id = ? ORDER BY position', machine),
        all(`${SURFACES} WHERE s.machine_id = ?`, machine),
        all(
          `SELECT b.*, p.name AS person FROM book b LEFT JOIN people p ON p.id = b.person_id WHERE b.seq =
          (SELECT max(seq) FROM book WHERE surface_id = ? AND kind = 'surface-mounted')`,
          surfaceId(123),
        ),
        all(
          `${PRINTS} WHERE p.machine_id = ? AND withdrawn_at IS NULL ORDER BY p.ended_at DESC, p.id DESC LIMIT 51`,
          machine,
        ),
        all('SELECT * FROM inspections WHERE machine_id = ? ORDER BY at DESC LIMIT 50', machine),
      ),
    ],
    ['first page of the rack', rack({}), all(`${SURFACES} ORDER BY s.tag LIMIT 101`)],
    [
      'rack: a tag',
      rack({ search: 'S-4711' }),
      all(`${SURFACES} WHERE ${someRack} ORDER BY s.tag LIMIT 101`, ...like('S-4711')),
    ],
    [
      'rack: a word of few notes',
      rack({ search: 'scratch' }),
      all(`${SURFACES} WHERE ${someRack} ORDER BY s.tag LIMIT 101`, ...like('scratch')),
    ],
    [
      'rack: what lies in one place',
      rack({ place: 'Rack 7' }),
      all(`${SURFACES} WHERE s.place = 'Rack 7' AND s.machine_id IS NULL ORDER BY s.tag LIMIT 101`),
    ],
    [
      'first page of the prints',
      prints({}),
      all(`${PRINTS} WHERE withdrawn_at IS NULL ORDER BY p.ended_at DESC, p.id DESC LIMIT 51`),
    ],
    [
      'prints on a surface',
      prints({ surfaceId: surfaceId(9) }),
      all(
        `${PRINTS} WHERE p.surface_id = ? AND withdrawn_at IS NULL ORDER BY p.ended_at DESC, p.id DESC LIMIT 51`,
        surfaceId(9),
      ),
    ],
    ['prints: a material of 1 in 5', prints({ search: 'ASA' }), bareSearch(bare, 'ASA')],
    ['prints: a machine by its name', prints({ search: 'Plover 123' }), bareSearch(bare, 'Plover 123')],
    ['prints: a word of 5 notes', prints({ search: 'harbour' }), bareSearch(bare, 'harbour')],
    ['prints: a word that is nowhere', prints({ search: 'zeppelin' }), bareSearch(bare, 'zeppelin')],
    ['first page of the book', book({}), all(`${NAMED} ORDER BY b.seq DESC LIMIT 51`)],
    [
      'book of a machine',
      book({ machineId: machine }),
      all(`${NAMED} WHERE b.machine_id = ? ORDER BY b.seq DESC LIMIT 51`, machine),
    ],
    [
      'book: a word of 5 lines',
      book({ search: 'harbour' }),
      all(`${NAMED} WHERE ${inText} ORDER BY b.seq DESC`, '"harbour"*'),
    ],
    [
      'book: a word of 200,000 lines',
      book({ search: 'whimbrel' }),
      all(`${NAMED} WHERE ${inText} ORDER BY b.seq DESC`, '"whimbrel"*'),
    ],
    [
      'book: a word on one machine',
      book({ search: 'asa', machineId: machine }),
      all(`${NAMED} WHERE b.machine_id = ? AND b.text LIKE '%ASA%' ORDER BY b.seq DESC LIMIT 51`, machine),
    ],
    [
      'book: a week',
      book({ from: LAST - 7 * 86_400_000 }),
      all(`${NAMED} WHERE b.at >= ? ORDER BY b.seq DESC LIMIT 51`, LAST - 7 * 86_400_000),
    ],
  ];
  for (const [name, ours, other] of cases)
    compare(name, await medianMsAsync(ours, { rounds: 41 }), medianMs(other, { rounds: 41 }));
}

const both =
  (...queries: (() => unknown)[]) =>
  () =>
    queries.forEach((query) => query());

async function machinePage(db: Knex, id: string): Promise<void> {
  await listMachines(db, Date.now(), id);
  await readStack(db, id);
  await listPrints(db, { search: '', machineId: id, limit: PAGE });
  await listInspections(db, { machineId: id, limit: PAGE });
}

function compare(name: string, ours: number, other: number): void {
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

const newPrint = (i: number, at: number) => ({
  ...{ id: uuid(), machineId: machineId(i % SIZE.machines), material: 'PLA', endedAt: at, duration: 3600, grams: 20 },
  ...{ held: true, failure: null, release: null, note: '' },
});

/** The same search by hand: what the word names, then the latest page of each through its index. */
function bareSearch(bare: Database.Database, word: string): () => unknown {
  const part = `%${word}%`;
  const names: [string, Database.Statement<unknown[]>][] = [
    ['machine_id', bare.prepare('SELECT id FROM machines WHERE name LIKE ?').pluck()],
    ['surface_id', bare.prepare('SELECT id FROM surfaces WHERE tag LIKE ? AND prints_a + prints_b > 0').pluck()],
    [
      'material',
      bare
        .prepare(
          `WITH RECURSIVE k(m) AS (SELECT min(material) FROM prints UNION ALL
            SELECT (SELECT min(material) FROM prints WHERE material > k.m) FROM k WHERE k.m IS NOT NULL)
            SELECT m FROM k WHERE m LIKE ?`,
        )
        .pluck(),
    ],
  ];
  const page = (where: string) =>
    `SELECT id FROM (SELECT id FROM prints WHERE ${where} AND withdrawn_at IS NULL ORDER BY ended_at DESC, id DESC LIMIT 51)`;
  return () => {
    const found = names.flatMap(([column, statement]) => statement.all(part).map((value) => [column, value] as const));
    const pages = [page(`note <> '' AND note LIKE ?`), ...found.map(([column]) => page(`${column} = ?`))];
    return bare
      .prepare(`${PRINTS} WHERE p.id IN (${pages.join(' UNION ALL ')}) ORDER BY p.ended_at DESC, p.id DESC LIMIT 51`)
      .all(part, ...found.map(([, value]) => value));
  };
}

/** Posting a print: with the surface that lay there, its counts and its line in the chained book. */
async function posts(db: Knex, bare: Database.Database): Promise<void> {
  let i = 0;
  const as = acting(db, PERSON);
  const ours = await medianMsAsync(() =>
    as.transaction((trx) => logPrint(trx, newPrint(i++, LAST), { source: 'machine', now: LAST })),
  );
  const lay = bare.prepare(`SELECT surface_id FROM mounts WHERE machine_id = ? AND slot = 'top' AND to_at IS NULL`);
  const print = bare.prepare(
    `INSERT INTO prints (id, machine_id, surface_id, side, material, ended_at, held, note, source, created_at) VALUES (?, ?, ?, 'A', 'PLA', ?, 1, '', 'machine', ?)`,
  );
  const count = bare.prepare('UPDATE surfaces SET prints_a = prints_a + 1 WHERE id = ?');
  const end = bare.prepare('SELECT seq, hash FROM book ORDER BY seq DESC LIMIT 1');
  const line = bare.prepare(
    `INSERT INTO book (seq, id, at, kind, machine_id, surface_id, text, data, before_hash, hash) VALUES (?, ?, ?, 'print-logged', ?, ?, 'print held', '{}', ?, ?)`,
  );
  bare.pragma('synchronous = FULL');
  const one = bare.transaction(() => {
    const machine = machineId(i++ % SIZE.machines);
    const { surface_id } = lay.get(machine) as { surface_id: string };
    print.run(uuid(), machine, surface_id, LAST, LAST);
    count.run(surface_id);
    const { seq, hash } = end.get() as { seq: number; hash: string };
    line.run(seq + 1, uuid(), LAST, machine, surface_id, hash, hash);
  });
  compare('posting a print', ours, medianMs(one));
}

/** Prints that machines post, so many a second, through the real server; from when each was due to its answer. */
async function load(folder: string, file: string): Promise<void> {
  const raw = new Database(file);
  raw
    .prepare(
      'INSERT OR IGNORE INTO sessions (id, token_hash, person_id, device, shared, created_at, last_seen_at) VALUES (?, ?, ?, ?, 0, ?, ?)',
    )
    .run(uuid(), fingerprintOf(SESSION), PERSON, 'bench', Date.now(), Date.now());
  raw.close();
  const server = spawn(process.execPath, ['--import', 'tsx', path.join(process.cwd(), 'apps/server/src/main.ts')], {
    env: { ...process.env, PORT: String(PORT), EVEN_BED_DATA: folder, EVEN_BED_BACKUPS: '0', LOG_LEVEL: 'error' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await opened(server);
  // The first posts find a server that has just started: they are sent and not counted.
  const begin = performance.now() + WARM_UP_SECONDS * 1000;
  const times: number[] = [];
  let refused = 0;
  await Promise.all(
    Array.from({ length: POSTS_A_SECOND * (WARM_UP_SECONDS + POST_SECONDS) }, async (_, i) => {
      const due = begin - WARM_UP_SECONDS * 1000 + (i * 1000) / POSTS_A_SECOND;
      await new Promise((resolve) => setTimeout(resolve, due - performance.now()));
      const { id, ...body } = newPrint(i, Date.now());
      const answer = await fetch(`http://127.0.0.1:${PORT}/api/prints/${id}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json', Cookie: `even-bed-session=${SESSION}` },
        body: JSON.stringify(body),
      });
      await answer.arrayBuffer();
      if (!answer.ok) refused++;
      if (due >= begin) times.push(performance.now() - due);
    }),
  );
  const took = (performance.now() - begin) / 1000;
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  times.sort((p, q) => p - q);
  const at = (share: number) => times[Math.floor(share * (times.length - 1))]!.toFixed(1);
  const sustained = refused === 0 && took < POST_SECONDS + 1;
  console.log(
    `${sustained ? 'met     ' : 'NOT MET '} ${POSTS_A_SECOND} prints a second for ${POST_SECONDS} s over HTTP: ${times.length - refused} taken in ${took.toFixed(1)} s; median ${at(0.5)} ms, 99th percentile ${at(0.99)} ms, longest ${at(1)} ms (aim: all taken, sustained)`,
  );
}

function opened(server: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    server.stdout!.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('is open at')) resolve();
    });
    server.once('exit', (code) => reject(new Error(`the server ended early: ${code}`)));
  });
}

void main();
