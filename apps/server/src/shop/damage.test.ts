import { execFile, spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import Database from 'better-sqlite3';
import { v7 as uuid } from 'uuid';
import { databaseFile } from '../settings';
import { backupFolder, listBackups, makeBackup } from './backup';
import { Damage, isDamage, whyNotOpened } from './damage';

const ROOT = path.resolve(__dirname, '../../../..');
const MAIN = path.join(ROOT, 'apps/server/src/main.ts');
const COMMAND = path.join(ROOT, 'apps/server/src/shopCommand.ts');
const SECRET = 'tide and tern 7';

let data: string;
let server: ChildProcess | null = null;
beforeEach(() => {
  data = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-damage-'));
});
afterEach(() => {
  server?.kill('SIGKILL');
  server = null;
  fs.rmSync(data, { recursive: true, force: true });
});

const envOf = (folder: string) => ({
  ...process.env,
  EVEN_BED_DATA: folder,
  PORT: '0',
  EVEN_BED_BACKUPS: '0',
  LOG_LEVEL: 'silent',
});

/** Starts a server; says what it printed when it is open, or when it has given up. */
async function start(folder = data): Promise<{ out: string; err: () => string; open: boolean; url: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', MAIN], { env: envOf(folder) });
  server = child;
  let [out, err] = ['', ''];
  child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()));
  const open = await new Promise<boolean>((resolve) => {
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString();
      if (out.includes('data lies')) resolve(true);
    });
    child.on('exit', () => resolve(false));
  });
  return { out, err: () => err, open, url: `${/http:\/\/\S+/.exec(out)?.[0]}/api` };
}

async function stop(): Promise<void> {
  const child = server!;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await gone;
  server = null;
}

const command = (...args: string[]) =>
  promisify(execFile)(process.execPath, ['--import', 'tsx', COMMAND, ...args], { env: envOf(data) }).then(
    ({ stdout }) => stdout,
    (error: { stdout: string; stderr: string }) => error.stdout + error.stderr,
  );

/** Writes nothing over a stretch of the file. */
function smear(at: number, length: number): void {
  const handle = fs.openSync(databaseFile(data), 'r+');
  fs.writeSync(handle, Buffer.alloc(length, 0xa5), 0, length, at);
  fs.closeSync(handle);
}

const JSON_TYPE = { 'Content-Type': 'application/json' };
const cookieOf = (answer: Response) =>
  answer.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');

async function signIn(url: string): Promise<string> {
  const body = JSON.stringify({ name: 'Merle', secret: SECRET, shared: false });
  return cookieOf(await fetch(`${url}/session`, { method: 'POST', headers: JSON_TYPE, body }));
}

async function addAreas(url: string, Cookie: string, names: readonly string[]): Promise<void> {
  for (const name of names) {
    const body = JSON.stringify({ name, position: 1, version: 0, at: Date.now() });
    const headers = { ...JSON_TYPE, Cookie };
    expect((await fetch(`${url}/areas/${uuid()}`, { method: 'PUT', headers, body })).status).toBe(200);
  }
}

/** Starts a new shop with a lead and areas. */
async function shopWithAreas(count: number): Promise<void> {
  const { out, url } = await start();
  const code = /code (\d{6})/.exec(out)![1];
  const first = { id: uuid(), name: 'Merle', secret: SECRET, shared: false, at: Date.now(), code };
  const made = await fetch(`${url}/people/first`, { method: 'POST', headers: JSON_TYPE, body: JSON.stringify(first) });
  await addAreas(
    url,
    cookieOf(made),
    Array.from({ length: count }, (_, i) => `Room ${i}`),
  );
}

const NO_STACK = /\n\s+at |node_modules|\.ts:/;

test('a damaged head: the server says so in words, and the command it names puts the shop back', async () => {
  await shopWithAreas(3);
  await stop();
  const { name } = await makeBackup(data, { now: Date.now(), keep: 3 });
  smear(0, 100);
  const { open, err } = await start();
  expect(open).toBe(false);
  expect(err()).toContain('is damaged. Stop the server and put the latest backup back: npm run restore --');
  expect(err()).not.toMatch(NO_STACK);
  expect(/restore -- (\S+)/.exec(err())![1]).toBe(name);
  // To the letter.
  expect(await command('restore', name)).toContain('is in its place');
  expect((await start()).open).toBe(true);
}, 60_000);

test('damage in the middle: told at the start and to a lead; what was acknowledged is back, or named', async () => {
  await shopWithAreas(40);
  await stop();
  await makeBackup(data, { now: Date.now(), keep: 3 });
  const before = await start();
  await addAreas(before.url, await signIn(before.url), ['Loft', 'Cellar', 'Attic']);
  await stop();
  // Everything into the one file, then the first page of the areas is lost.
  const raw = new Database(databaseFile(data));
  raw.pragma('wal_checkpoint(TRUNCATE)');
  const pageOf = (name: string) =>
    (raw.prepare('SELECT rootpage FROM sqlite_master WHERE name = ?').get(name) as { rootpage: number }).rootpage;
  const size = raw.pragma('page_size', { simple: true }) as number;
  const lost = pageOf('areas');
  raw.close();
  smear((lost - 1) * size, size);

  const { open, err, url } = await start();
  expect(open).toBe(true);
  for (let i = 0; i < 100 && !err().includes('damaged'); i++) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(err()).toContain('The shop’s file is damaged');
  const Cookie = await signIn(url);
  const areas = await fetch(`${url}/areas`, { headers: { Cookie } });
  expect([areas.status, await areas.json()]).toMatchObject([500, { error: { code: 'damaged' } }]);
  const told = (await (await fetch(`${url}/backups/last`, { headers: { Cookie } })).json()) as { damage: string };
  const [, name] = /npm run restore -- (\S+)/.exec(told.damage)!;
  await stop();

  const said = await command('restore', name!);
  expect(said).toContain('is in its place');
  const [, file] = / in (\S+\.csv): what matters of them is written down anew/.exec(said)!;
  const list = fs.readFileSync(file!, 'utf8');
  for (const area of ['Loft', 'Cellar', 'Attic']) expect(list).toContain(area);
  const back = await start();
  expect(back.open).toBe(true);
  await new Promise((resolve) => setTimeout(resolve, 500));
  expect(back.err()).toBe('');
  await stop();
  const whole = new Database(databaseFile(data), { readonly: true });
  expect(whole.prepare("SELECT count(*) AS n FROM areas WHERE name LIKE 'Room %'").get()).toEqual({ n: 40 });
  whole.close();
}, 120_000);

test('a file that was cut short, and one that is no database at all', async () => {
  await shopWithAreas(20);
  await stop();
  const raw = new Database(databaseFile(data));
  raw.pragma('wal_checkpoint(TRUNCATE)');
  raw.close();
  fs.truncateSync(databaseFile(data), 3 * 4096 + 100);
  const cut = await start();
  for (let i = 0; i < 100 && !/damaged/.test(cut.err()); i++) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(cut.err()).toContain('damaged');
  expect(cut.err()).toContain('There is no backup to put back');
  expect(cut.err()).not.toMatch(NO_STACK);
  server?.kill('SIGKILL');
  fs.writeFileSync(databaseFile(data), 'a letter, not a shop\n'.repeat(1_000));
  const { open, err } = await start();
  expect([open, err().includes('is damaged'), NO_STACK.test(err())]).toEqual([false, true, false]);
}, 60_000);

test('a folder that nobody may write to is said plainly', async () => {
  // The kernel lets nobody make a folder there.
  const { open, err } = await start('/sys/even-bed');
  expect(open).toBe(false);
  expect(err()).toContain('The server may not write to /sys/even-bed');
  expect(err()).not.toMatch(NO_STACK);
});

test.each([
  ['ENOSPC', 'is full'],
  ['SQLITE_FULL', 'is full'],
  ['EROFS', 'may not write'],
  ['SQLITE_READONLY_DIRECTORY', 'may not write'],
  ['SQLITE_IOERR_READ', 'is damaged'],
  ['SQLITE_NOTADB', 'is damaged'],
])('%s is told in words', (code, words) => {
  expect(whyNotOpened(Object.assign(new Error('x'), { code }), data)).toContain(words);
});

test('what is no fault of the disk is none', () => {
  for (const error of [new Error('PORT is "x"'), null, undefined, 'text', { code: 5 }]) {
    expect(isDamage(error)).toBe(false);
    expect(whyNotOpened(error, data)).toBeNull();
  }
  const damage = new Damage(data);
  damage.noticed(new Error('no such table: x'));
  expect(damage.words()).toBeNull();
  damage.noticed(Object.assign(new Error('database disk image is malformed'), { code: 'SQLITE_CORRUPT' }));
  expect(damage.words()).toContain('There is no backup');
});

test('what a killed backup left is gone with the next; two at once are not made', async () => {
  await shopWithAreas(1);
  await stop();
  const left = path.join(backupFolder(data), '2026-01-01T00-00-00Z.part');
  fs.mkdirSync(left, { recursive: true });
  fs.writeFileSync(path.join(left, 'half'), 'x');
  const at = Date.now();
  const both = await Promise.allSettled([
    makeBackup(data, { now: at, keep: 3 }),
    makeBackup(data, { now: at + 1_000, keep: 3 }),
  ]);
  expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  expect(listBackups(data)).toHaveLength(1);
  expect(fs.existsSync(left)).toBe(false);
});
