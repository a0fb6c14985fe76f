import { execFile, spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import Database from 'better-sqlite3';
import type { Knex } from 'knex';
import pino from 'pino';
import request from 'supertest';
import yauzl from 'yauzl';
import yazl from 'yazl';
import { proved, trials } from '../../../../packages/core/src/simulated/prove.fixture';
import { CSV_LISTS, DEFAULT_SETTINGS } from '@even-bed/contract';
import { connect, migrate } from '../db/connect';
import { checkDatabase } from './copy';
import { loadDemo } from '../demo/loadDemo';
import { buildApp } from '../app/app';
import { facts, newId, NOW, openShop } from '../app/shop.fixture';
import { databaseFile, photoFolder } from '../settings';
import { backupIsDue, listBackups, makeBackup, restoreBackup } from './backup';
import { takeFolder } from '../db/folderLock';
import { exportShop } from './exportShop';
import { csvOf } from './lists';
import { TAKEN_TABLES } from './tables';

const ROOT = path.resolve(__dirname, '../../../..');
const CHEAP = { log2N: 4, r: 1, p: 1 };
const ROUNDS = trials(50, 15);
let folder: string;
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-along-'));
});
/** Servers begun in a test: none outlives it, also when it fails. */
const begun = new Set<ChildProcess>();
afterEach(() => {
  for (const child of begun) child.kill('SIGKILL');
  begun.clear();
  fs.rmSync(folder, { recursive: true, force: true });
});

/** The entries of a zip with their bytes. */
async function unpacked(file: string): Promise<Map<string, Buffer>> {
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.open(file, { lazyEntries: true, autoClose: false }, (error, opened) =>
      error ? reject(error) : resolve(opened),
    ),
  );
  const found = new Map<string, Buffer>();
  await new Promise<void>((resolve, reject) => {
    zip.on('end', resolve).on('error', reject);
    zip.on('entry', (entry: yauzl.Entry) =>
      zip.openReadStream(entry, (error, stream) => {
        if (error) return reject(error);
        const chunks: Buffer[] = [];
        stream.on('data', (chunk: Buffer) => chunks.push(chunk));
        stream.on('end', () => {
          found.set(entry.fileName, Buffer.concat(chunks));
          zip.readEntry();
        });
      }),
    );
    zip.readEntry();
  });
  zip.close();
  return found;
}

async function zipped(file: string, entries: Record<string, Buffer | string>): Promise<void> {
  const zip = new yazl.ZipFile();
  for (const [name, content] of Object.entries(entries)) zip.addBuffer(Buffer.from(content), name);
  zip.end();
  await new Promise<void>((resolve) => zip.outputStream.pipe(fs.createWriteStream(file)).on('close', () => resolve()));
}

const appOf = (db: Knex, photos: string) =>
  buildApp({ db, log: pino({ level: 'silent' }), photoFolder: photos, secretCost: CHEAP, now: () => NOW });
const send = (db: Knex, photos: string, file: string) =>
  request(appOf(db, photos).callback())
    .put(`/api/import/${newId()}`)
    .set('Content-Type', 'application/zip')
    .set('Idempotency-Key', newId())
    .send(fs.readFileSync(file));

async function emptyShop(): Promise<Knex> {
  const db = connect(':memory:');
  await migrate(db);
  return db;
}

describe('a shop is taken along', () => {
  test('into an empty one: the same rows, and the same bytes when it is taken along again', async () => {
    const db = connect(path.join(folder, 'demo.sqlite'));
    await migrate(db);
    await loadDemo(db, { now: NOW, seed: 'along', consoleBasePort: 4300, secretCost: CHEAP });
    const photos = path.join(folder, 'photos');
    const photoIds = (await db('photos').select('id')) as { id: string }[];
    fs.mkdirSync(photos, { recursive: true });
    for (const { id } of photoIds)
      for (const name of [`${id}.jpg`, `${id}-small.jpg`]) fs.writeFileSync(path.join(photos, name), name);
    const first = path.join(folder, 'first.zip');
    await exportShop(db, { file: first, photoFolder: photos, at: NOW });

    // Each list has a line for each record, however many parts it comes in.
    for (const [list, table] of [
      ['checks', 'level_checks'],
      ['jobs', 'jobs'],
      ['mounts', 'mounts'],
    ] as const) {
      let text = '';
      for await (const part of csvOf(db, list, NOW)) text += part;
      const { count } = (await db(table).count('* as count').first()) as { count: number };
      expect([list, text.trim().split(/\r?\n/).length]).toEqual([list, count + 1]);
    }

    const copy = await emptyShop();
    const copyPhotos = path.join(folder, 'copy-photos');
    const { body } = await send(copy, copyPhotos, first).expect(200);
    for (const { name, order, without, json = [] } of TAKEN_TABLES) {
      const rows = (table: Knex) => {
        const query = table(name).orderBy([...order]);
        return without ? query.whereNot(without.column, without.value) : query;
      };
      const wanted = (await rows(db)) as Record<string, unknown>[];
      // What holds JSON is known to: it is looked at before it is read in.
      const held = Object.keys(wanted[0] ?? {}).filter((column) => {
        const there = wanted.map((row) => row[column]).filter((value) => value !== null);
        return there.length > 0 && there.every((value) => typeof value === 'string' && /^[[{]/.test(value));
      });
      expect([name, held.filter((column) => !json.includes(column))]).toEqual([name, []]);
      expect(await rows(copy)).toEqual(wanted);
      expect(body.rows[name]).toBe(wanted.length);
    }
    const second = path.join(folder, 'second.zip');
    await exportShop(copy, { file: second, photoFolder: copyPhotos, at: NOW + 1 });
    const [before, after] = [await unpacked(first), await unpacked(second)];
    // The one field that differs is when it was made, in the manifest.
    const manifest = (entries: Map<string, Buffer>) => JSON.parse(entries.get('manifest.json')!.toString()) as object;
    expect(manifest(after)).toEqual({ ...manifest(before), exportedAt: NOW + 1 });
    before.delete('manifest.json');
    after.delete('manifest.json');
    expect([...after.keys()]).toEqual([...before.keys()]);
    for (const [name, bytes] of before) if (!bytes.equals(after.get(name)!)) throw new Error(`${name} differs`);
    expect(before.get('tables/people.csv')!.toString()).not.toContain('scrypt');
    expect(before.get('data/people.jsonl')!.toString()).toContain('scrypt');

    // Everybody signs in as before, and a second import is refused.
    const lead = { name: 'Wren Sallow', secret: 'tide over the marsh' };
    await request(appOf(copy, copyPhotos).callback()).post('/api/session').send(lead).expect(200);
    await send(copy, copyPhotos, first).expect(409);
    await Promise.all([db.destroy(), copy.destroy()]);
  });

  const NO_BOOK = { entries: 0, lastHash: null };
  const MANIFEST = JSON.stringify({ format: 'even-bed-shop', version: 1, rows: { areas: 1 }, book: NO_BOOK });
  const AREA = JSON.stringify({ id: 'a', name: 'Loft', position: 0, version: 1, created_at: 1, updated_at: 1 });
  test.each<[string, Record<string, Buffer | string>, string]>([
    ['without a manifest', { 'data/areas.jsonl': AREA }, 'no manifest'],
    ['of something else', { 'manifest.json': '{"format":"x"}' }, 'no export of a shop'],
    ['of another version', { 'manifest.json': '{"format":"even-bed-shop","version":9}' }, 'another version'],
    ['with a stranger in it', { 'manifest.json': MANIFEST, 'data/areas.jsonl': AREA, 'run.sh': 'x' }, 'no place'],
    ['with fewer rows than it says', { 'manifest.json': MANIFEST }, 'has 0 rows'],
    [
      'with a column that is none',
      { 'manifest.json': MANIFEST, 'data/areas.jsonl': AREA.replace('name', 'x"; DROP') },
      '',
    ],
    ['with broken JSON', { 'manifest.json': MANIFEST, 'data/areas.jsonl': '{"id":' }, 'damaged'],
    [
      'with rows that lead nowhere',
      {
        'manifest.json': JSON.stringify({ format: 'even-bed-shop', version: 1, rows: { rules: 1 }, book: NO_BOOK }),
        'data/rules.jsonl': JSON.stringify({
          id: 'r',
          machine_id: 'none',
          kind: 'level',
          every_days: 1,
          next_due_at: 1,
          version: 1,
        }),
      },
      'damaged',
    ],
    [
      'with a photo that is none',
      { 'manifest.json': MANIFEST, 'data/areas.jsonl': AREA, 'photos/x.jpg': 'x' },
      'no place',
    ],
  ])('a zip %s is refused and nothing is read in', async (_, entries, message) => {
    const file = path.join(folder, 'bad.zip');
    await zipped(file, entries);
    const db = await emptyShop();
    const { body } = await send(db, path.join(folder, 'photos'), file).expect(422);
    expect(body.error.message).toContain(message);
    expect(await db('areas')).toEqual([]);
    expect(await db('surface_kinds')).not.toEqual([]);
    await db.destroy();
  });

  test('a zip that unpacks without end, one that leads out of its folder, and no zip at all', async () => {
    const db = await emptyShop();
    const bomb = path.join(folder, 'bomb.zip');
    await zipped(bomb, { 'manifest.json': MANIFEST, 'data/areas.jsonl': Buffer.alloc(300 * 1024 * 1024) });
    expect(fs.statSync(bomb).size).toBeLessThan(1024 * 1024);
    expect((await send(db, folder, bomb).expect(422)).body.error.message).toContain('far more than a shop holds');
    // yazl refuses to write such a name; the bytes of a plain one are changed to it.
    const slip = path.join(folder, 'slip.zip');
    await zipped(slip, { 'manifest.json': MANIFEST, 'photos/aaaaaaa': 'x' });
    const bytes = fs.readFileSync(slip).toString('latin1').replaceAll('photos/aaaaaaa', '../../../../xyz');
    fs.writeFileSync(slip, Buffer.from(bytes, 'latin1'));
    await send(db, folder, slip).expect(422);
    fs.writeFileSync(path.join(folder, 'no.zip'), 'no zip');
    await send(db, folder, path.join(folder, 'no.zip')).expect(422);
    expect(await db('areas')).toEqual([]);
    await db.destroy();
  });

  test('an export whose book was changed on the way is refused', async () => {
    const shop = await openShop();
    const file = path.join(folder, 'shop.zip');
    await exportShop(shop.db, { file, photoFolder: shop.photoFolder, at: NOW });
    await shop.close();
    const entries = await unpacked(file);
    entries.set(
      'data/book.jsonl',
      Buffer.from(entries.get('data/book.jsonl')!.toString().replaceAll('Long Room', 'Loft')),
    );
    await zipped(file, Object.fromEntries(entries));
    const db = await emptyShop();
    expect((await send(db, folder, file).expect(422)).body.error.message).toContain(
      'book in this export was changed: line 2',
    );
    expect(await db('people')).toEqual([]);
    await db.destroy();
  });

  test.each<[string, string, (lines: string) => string, RegExp]>([
    [
      'a secret that costs a gigabyte',
      'data/people.jsonl',
      (t) => t.replace(/scrypt\$\d+\$\d+\$\d+/, 'scrypt$20$8$64'),
      /hash of a secret/,
    ],
    [
      'settings that are no JSON',
      'data/settings.jsonl',
      (t) => t.replace(/"value":"/, '"value":"x'),
      /settings can’t be taken/,
    ],
    [
      'settings that can’t be',
      'data/settings.jsonl',
      (t) => t.replace(/\\"lockMinutes\\":\d+/, '\\"lockMinutes\\":-1'),
      /settings can’t be taken/,
    ],
    [
      'no lead at all',
      'data/people.jsonl',
      (t) => t.replaceAll('"role":"lead"', '"role":"looker"'),
      /Nobody in this export is a lead/,
    ],
    [
      'a manifest that does not say where the book ends',
      'manifest.json',
      (t) => JSON.stringify({ ...(JSON.parse(t) as object), book: undefined }),
      /where its book ends/,
    ],
    [
      'a setup of a machine that is none',
      'data/machines.jsonl',
      (t) => t.replace(/"console":null/, '"console":"{"'),
      /machines can’t be taken: console/,
    ],
  ])('%s is refused, and nothing read in', async (_, name, change, said) => {
    const shop = await openShop();
    await shop.api
      .put('/api/settings')
      .send({ ...DEFAULT_SETTINGS, at: NOW })
      .expect(200);
    const file = path.join(folder, 'shop.zip');
    await exportShop(shop.db, { file, photoFolder: shop.photoFolder, at: NOW });
    await shop.close();
    const entries = await unpacked(file);
    const before = entries.get(name)!.toString();
    const changed = change(before);
    expect(changed).not.toBe(before);
    entries.set(name, Buffer.from(changed));
    await zipped(file, Object.fromEntries(entries));
    const db = await emptyShop();
    expect((await send(db, folder, file).expect(422)).body.error.message).toMatch(said);
    expect(await db('people')).toEqual([]);
    await db.destroy();
  });

  test('lists come as CSV, defused; only a lead takes the whole shop', async () => {
    const shop = await openShop({ name: '=HYPERLINK("http://x")', note: 'a "quoted", note' });
    const looker = await shop.signedIn('looker');
    const { text } = await looker
      .get('/api/csv/machines')
      .expect(200)
      .expect('Content-Disposition', /machines\.csv/);
    expect(text).toContain(`"'=HYPERLINK(""http://x"")"`);
    for (const head of ['print width mm', 'left margin mm', 'adjusters', 'finds z']) expect(text).toContain(head);
    expect(text).not.toMatch(/\d\.\d{7}/);
    for (const list of CSV_LISTS)
      expect((await looker.get(`/api/csv/${list}`).expect(200)).text.length).toBeGreaterThan(20);
    await looker.get('/api/csv/sessions').expect(404);
    await looker.get('/api/export').expect(403);
    const zip = await shop.api.get('/api/export').responseType('blob').expect(200).expect('Content-Type', /zip/);
    fs.writeFileSync(path.join(folder, 'all.zip'), zip.body as Buffer);
    expect((await unpacked(path.join(folder, 'all.zip'))).get('README.txt')!.toString()).toContain(
      'Keep this file like a key',
    );
    await shop.close();
  });
});

/** A server of its own on a folder. */
class Server {
  private constructor(
    private readonly child: ChildProcess,
    readonly url: string,
    /** What it asks of the first account. */
    readonly code: string,
  ) {}

  static async start(data: string): Promise<Server> {
    const env = { ...process.env, PORT: '0', EVEN_BED_DATA: data, EVEN_BED_BACKUPS: '0', LOG_LEVEL: 'error' };
    const child = spawn(process.execPath, ['--import', 'tsx', path.join(ROOT, 'apps/server/src/main.ts')], {
      cwd: ROOT,
      env,
    });
    begun.add(child);
    const [url, code] = await new Promise<[string, string]>((resolve, reject) => {
      let said = '';
      child.stdout.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        const [, found] = /open at (http:\S+)/.exec(said) ?? [];
        if (found) resolve([found, /code (\d{6})/.exec(said)?.[1] ?? '']);
      });
      child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
      child.once('exit', () => reject(new Error(`ended early: ${said}`)));
    });
    return new Server(child, url, code);
  }

  async end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    this.child.kill(signal);
    await gone;
  }
}

const LEAD = { id: newId(), name: 'Merle Quay', secret: 'a long evening' };

/** A client of a server: signed in, and writing prints. */
class Writer {
  private cookie = '';
  machineId = '';
  /** Ids of prints that the server has acknowledged. */
  readonly acknowledged: string[] = [];

  async call(url: string, method: string, address: string, body: unknown): Promise<Response> {
    const response = await fetch(`${url}/api${address}`, {
      method,
      headers: { 'Content-Type': 'application/json', Cookie: this.cookie, 'Idempotency-Key': newId() },
      body: JSON.stringify(body),
    });
    const [cookie] = response.headers.get('set-cookie')?.split(';') ?? [];
    if (cookie) this.cookie = cookie;
    return response;
  }

  async open({ url, code }: Server): Promise<void> {
    await this.call(url, 'POST', '/people/first', { ...LEAD, code, at: NOW });
    const areaId = newId();
    this.machineId = newId();
    await this.call(url, 'PUT', `/areas/${areaId}`, { name: 'Long Room', position: 0, version: 0, at: NOW });
    await this.call(url, 'PUT', `/machines/${this.machineId}`, { ...facts(areaId), version: 0, at: NOW });
  }

  /** Waits until so many prints are acknowledged, however long this machine takes. */
  async has(count: number): Promise<void> {
    while (this.acknowledged.length < count) await new Promise((resolve) => setTimeout(resolve, 1));
  }

  /** Writes one print; true when the server has acknowledged it. */
  async write(url: string): Promise<boolean> {
    const id = newId();
    const print = { machineId: this.machineId, endedAt: NOW + this.acknowledged.length, held: true };
    // No answer, or half of one: the server is gone and may or may not have it.
    const response = await this.call(url, 'PUT', `/prints/${id}`, print).catch(() => null);
    if (!response) return false;
    if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
    this.acknowledged.push(id);
    return true;
  }
}

describe('backups', () => {
  test('made by command during 200 writes a second: sound, and every write acknowledged before is in it; then restored', async () => {
    const data = path.join(folder, 'data');
    const server = await Server.start(data);
    const writer = new Writer();
    await writer.open(server);
    let running = true;
    const RATE = 200;
    const writing = (async () => {
      const under: Promise<boolean>[] = [];
      for (let due = Date.now(); running; due += 1000 / RATE) {
        const early = due - Date.now();
        if (early > 0) await new Promise((resolve) => setTimeout(resolve, early));
        under.push(writer.write(server.url));
      }
      await Promise.all(under);
    })();
    await writer.has(150);
    const before = [...writer.acknowledged];
    const env = { ...process.env, EVEN_BED_DATA: data };
    const command = (...args: string[]) =>
      promisify(execFile)(
        process.execPath,
        ['--import', 'tsx', path.join(ROOT, 'apps/server/src/shopCommand.ts'), ...args],
        { cwd: ROOT, env },
      );
    const { stdout } = await command('backup');
    const meanwhile = writer.acknowledged.length - before.length;
    running = false;
    await writing;
    expect(stdout).toContain('is made and checked');
    expect(before.length).toBeGreaterThanOrEqual(150);
    // How many got through meanwhile is the machine's matter; that writing went on is not.
    expect(meanwhile).toBeGreaterThan(20);

    const [name] = listBackups(data);
    const copy = databaseFile(path.join(data, 'backups', name!));
    expect(await checkDatabase(copy)).toMatchObject({ sound: true });
    const inCopy = idsIn(copy);
    expect(before.filter((id) => !inCopy.has(id))).toEqual([]);

    await expect(command('restore', name!)).rejects.toThrow(`has ${data} in hand. Stop it first`);
    await server.end('SIGTERM');
    const all = idsIn(databaseFile(data)).size;
    expect((await command('restore', name!)).stdout).toContain('is in its place');
    expect(idsIn(databaseFile(data))).toEqual(inCopy);
    const [aside] = fs.readdirSync(data).filter((entry) => entry.startsWith('before-restore'));
    expect(idsIn(databaseFile(path.join(data, aside!))).size).toBe(all);
    expect((await command('verify')).stdout).toContain('each follows from the one before');
  }, 120_000);

  test('are due once a day, kept as many as wanted, and never replaced by a broken one', async () => {
    const data = path.join(folder, 'data');
    const db = connect(databaseFile(data));
    await migrate(db);
    fs.mkdirSync(photoFolder(data), { recursive: true });
    fs.writeFileSync(path.join(photoFolder(data), 'a.jpg'), 'photo');
    expect(backupIsDue(data, NOW)).toBe(true);
    const DAY = 86_400_000;
    for (let i = 0; i < 4; i++) await makeBackup(data, { now: NOW + i * DAY, keep: 2 });
    expect(listBackups(data)).toEqual(['2026-11-28T12-00-00Z', '2026-11-27T12-00-00Z']);
    expect(backupIsDue(data, NOW + 3.9 * DAY)).toBe(false);
    expect(backupIsDue(data, NOW + 4 * DAY)).toBe(true);
    expect(fs.readFileSync(path.join(data, 'backups/2026-11-28T12-00-00Z/photos/a.jpg'), 'utf8')).toBe('photo');
    // A book that was changed behind the shop's back is no backup.
    await db('book').insert({ id: 'x', at: 1, kind: 'x', text: 'x', data: '{}', before_hash: 'x', hash: 'x' });
    await expect(makeBackup(data, { now: NOW + 5 * DAY, keep: 2 })).rejects.toThrow('not sound');
    expect(listBackups(data)).toHaveLength(2);
    await db.destroy();
    const letGo = takeFolder(data);
    await expect(restoreBackup(data, '2026-11-28T12-00-00Z', NOW)).rejects.toThrow('in hand');
    letGo();
    await expect(restoreBackup(data, '../backups', NOW)).rejects.toThrow('There is no backup');
    fs.writeFileSync(databaseFile(path.join(data, 'backups/2026-11-27T12-00-00Z')), 'broken');
    await expect(restoreBackup(data, '2026-11-27T12-00-00Z', NOW)).rejects.toThrow('nothing was changed');
    await restoreBackup(data, '2026-11-28T12-00-00Z', NOW);
    expect((await checkDatabase(databaseFile(data))).sound).toBe(true);
  });

  test(`${ROUNDS} rounds of concurrent writes, each ended by SIGKILL: what was acknowledged is there once, whole, and the chain holds`, async () => {
    const data = path.join(folder, 'data');
    const writer = new Writer();
    let opened = false;
    for (let round = 0; round < ROUNDS; round++) {
      const server = await Server.start(data);
      if (!opened) await writer.open(server);
      opened = true;
      let alive = true;
      const hands = Array.from({ length: 6 }, async () => {
        while (alive) if (!(await writer.write(server.url))) return;
      });
      // In the middle of writing, each round at another place of it.
      await writer.has(writer.acknowledged.length + 11 + (round % 11));
      await new Promise((resolve) => setTimeout(resolve, round % 7));
      await server.end('SIGKILL');
      alive = false;
      await Promise.all(hands);
    }
    expect(writer.acknowledged.length).toBeGreaterThan(10 * ROUNDS);
    const db = new Database(databaseFile(data));
    const prints = db.prepare('SELECT id FROM prints').all() as { id: string }[];
    const lines = db
      .prepare(`SELECT json_extract(data, '$.printId') AS id FROM book WHERE kind = 'print-logged'`)
      .all() as { id: string }[];
    db.close();
    const there = new Set(prints.map(({ id }) => id));
    expect(there.size).toBe(prints.length);
    expect(writer.acknowledged.filter((id) => !there.has(id))).toEqual([]);
    // No print without its line and no line without its print: nothing is half there.
    expect(lines.map(({ id }) => id).sort()).toEqual([...there].sort());
    expect(await checkDatabase(databaseFile(data))).toMatchObject({ sound: true });
    proved(
      'the server',
      `ended by SIGKILL while six hands write, ${ROUNDS} times`,
      `${writer.acknowledged.length} acknowledged, 0 lost, 0 half`,
    );
  }, 400_000);
});

describe('an import that is cut off by SIGKILL', () => {
  test('at four places of it: the next start is an empty shop that takes the export, or the whole one; never a part', async () => {
    const made = await emptyShop();
    const photos = path.join(folder, 'made');
    await loadDemo(made, { now: NOW, seed: 'cut off', consoleBasePort: 5400, photoFolder: photos, secretCost: CHEAP });
    const file = path.join(folder, 'shop.zip');
    await exportShop(made, { file, photoFolder: photos, at: NOW });
    const whole = await made('book').orderBy('seq', 'desc').first('seq', 'hash');
    await made.destroy();
    const bytes = fs.readFileSync(file);
    const put = ({ url, code }: Server) =>
      fetch(`${url}/api/import/${newId()}?code=${code}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/zip', 'Idempotency-Key': newId() },
        body: bytes,
      });
    /** What stands in a data folder: nobody, or everything, with each photo that its rows name. */
    const standing = (data: string): 'nothing' | 'all' => {
      const db = new Database(databaseFile(data), { readonly: true });
      const people = db.prepare('SELECT count(*) AS n FROM people').get() as { n: number };
      const last = db.prepare('SELECT seq, hash FROM book ORDER BY seq DESC LIMIT 1').get();
      const named = db.prepare('SELECT id FROM photos').all() as { id: string }[];
      db.close();
      if (people.n === 0) {
        expect(last).toBeUndefined();
        return 'nothing';
      }
      expect(last).toEqual(whole);
      const kept = fs.readdirSync(photoFolder(data));
      for (const { id } of named) expect(kept.some((name) => name.startsWith(id))).toBe(true);
      return 'all';
    };

    const timed = path.join(folder, 'timed');
    const first = await Server.start(timed);
    const since = Date.now();
    expect(await (await put(first)).text()).toContain('"rows"');
    const took = Date.now() - since;
    await first.end('SIGKILL');
    expect(standing(timed)).toBe('all');

    const found: string[] = [];
    for (let cut = 1; cut <= 4; cut++) {
      const data = path.join(folder, `cut-${cut}`);
      const server = await Server.start(data);
      const answer = put(server).then(
        ({ status }) => status,
        () => null,
      );
      await new Promise((resolve) => setTimeout(resolve, (took * cut) / 5));
      await server.end('SIGKILL');
      const told = await answer;
      const stands = standing(data);
      found.push(stands);
      if (told === 200) expect(stands).toBe('all');
      const again = await Server.start(data);
      if (stands === 'nothing') {
        // It asks for its first account as a new shop does, and takes the same export whole.
        expect(again.code).toMatch(/^\d{6}$/);
        expect((await put(again)).status).toBe(200);
      }
      await again.end('SIGTERM');
      expect(standing(data)).toBe('all');
    }
    expect(found).toContain('nothing');
  }, 300_000);
});

function idsIn(file: string): Set<string> {
  const db = new Database(file, { readonly: true });
  const rows = db.prepare('SELECT id FROM prints').all() as { id: string }[];
  db.close();
  return new Set(rows.map(({ id }) => id));
}
