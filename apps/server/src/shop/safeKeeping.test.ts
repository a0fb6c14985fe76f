import { spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { writeEntry } from '../kernel/book';
import { checkDatabase } from './copy';
import { connect, migrate, pendingMigrations } from '../db/connect';
import { databaseFile } from '../settings';
import { backupIsDue, finishRestore, listBackups, makeBackup, restoreBackup } from './backup';
import { bookHeads, headMissing, keepHead } from './bookHeads';
import { takeFolder } from '../db/folderLock';

const NOW = Date.UTC(2026, 10, 26, 12);
const DAY = 86_400_000;
let data: string;
beforeEach(() => {
  data = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-keep-'));
});
afterEach(() => fs.rmSync(data, { recursive: true, force: true }));

async function shopWith(lines: number): Promise<void> {
  const db = connect(databaseFile(data));
  await migrate(db);
  for (let i = 1; i <= lines; i++)
    await writeEntry(db, { at: NOW + i, kind: 'area-added', data: { areaId: 'x', name: `line ${i}`, position: 0 } });
  await db.destroy();
}
const linesNow = async () => {
  const db = connect(databaseFile(data));
  try {
    return ((await db('book').select('text')) as { text: string }[]).length;
  } finally {
    await db.destroy();
  }
};

describe('one server for a folder', () => {
  test('the second is refused before it opens anything, also from another process; a killed one lets go', async () => {
    const letGo = takeFolder(data);
    expect(() => takeFolder(data)).toThrow('in hand');
    const child = (script: string) =>
      new Promise<string>((resolve) => {
        const one = spawn(process.execPath, ['--import', 'tsx', '-e', script], {
          cwd: path.resolve(__dirname, '../../../..'),
        });
        let said = '';
        one.stdout.on('data', (chunk: Buffer) => {
          said += chunk.toString();
          if (said.includes('held')) one.kill('SIGKILL');
        });
        one.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
        one.on('exit', () => resolve(said));
      });
    const file = JSON.stringify(path.join(__dirname, '../db/folderLock.ts'));
    const take = `import(${file}).then((m) => { (m.takeFolder ?? m.default.takeFolder)(${JSON.stringify(data)}); console.log('held'); setInterval(() => {}, 1000); })`;
    expect(await child(take)).toContain('in hand');
    letGo();
    expect(await child(take)).toContain('held');
    takeFolder(data)();
  }, 60_000);
});

describe('the end of the book', () => {
  test('cut off or written anew it is whole in itself, and noticed against what was backed up', async () => {
    await shopWith(30);
    await makeBackup(data, { now: NOW, keep: 3 });
    const raw = new Database(databaseFile(data));
    for (const { name } of raw.prepare("SELECT name FROM sqlite_master WHERE type = 'trigger'").all() as {
      name: string;
    }[])
      raw.exec(`DROP TRIGGER "${name}"`);
    raw.exec('DELETE FROM book WHERE seq > 10');
    raw.close();
    expect((await checkDatabase(databaseFile(data))).sound).toBe(true);
    const db = connect(databaseFile(data));
    expect(await headMissing(db, bookHeads(data))).toMatch(/lost its end.*30 lines/);
    await db.destroy();
    await expect(makeBackup(data, { now: NOW + DAY, keep: 3 })).rejects.toThrow('lost its end');
    expect(listBackups(data)).toHaveLength(1);
    // As many lines again, all with sound hashes: another book.
    const other = connect(databaseFile(data));
    for (let i = 11; i <= 40; i++)
      await writeEntry(other, {
        at: NOW + i,
        kind: 'area-added',
        data: { areaId: 'x', name: `other ${i}`, position: 0 },
      });
    expect((await checkDatabase(databaseFile(data))).sound).toBe(true);
    expect(await headMissing(other, bookHeads(data))).toMatch(/rewritten/);
    await other.destroy();
  });

  test('a restore begins anew from its own end, and what was older still counts', async () => {
    await shopWith(3);
    await makeBackup(data, { now: NOW, keep: 3 });
    keepHead(data, { at: NOW + 1, entries: 9, lastHash: 'x' });
    await restoreBackup(data, listBackups(data)[0]!, NOW + 2);
    expect(bookHeads(data).map(({ entries }) => entries)).toEqual([3, 3]);
    const db = connect(databaseFile(data));
    expect(await headMissing(db, bookHeads(data))).toBeNull();
    await db.destroy();
  });
});

describe('a restore', () => {
  test('cut off after any of its renames is finished by the next start, and nothing is lost', async () => {
    await shopWith(5);
    fs.mkdirSync(path.join(data, 'photos'));
    fs.writeFileSync(path.join(data, 'photos', 'a.jpg'), 'old');
    await makeBackup(data, { now: NOW, keep: 3 });
    const more = connect(databaseFile(data));
    for (let i = 0; i < 4; i++)
      await writeEntry(more, {
        at: NOW + 50 + i,
        kind: 'area-added',
        data: { areaId: 'x', name: `later ${i}`, position: 0 },
      });
    await more.destroy();
    const [name] = listBackups(data);
    for (let cut = 1; cut < 9; cut++) {
      const rename = fs.renameSync.bind(fs);
      let count = 0;
      const renames = jest.spyOn(fs, 'renameSync').mockImplementation((from, to) => {
        if (++count > cut) throw new Error('the power went');
        rename(from, to);
      });
      await restoreBackup(data, name!, NOW + cut * 1000).catch(() => {});
      renames.mockRestore();
      finishRestore(data);
      expect((await checkDatabase(databaseFile(data))).sound).toBe(true);
      expect([5, 9]).toContain(await linesNow());
      expect(fs.existsSync(path.join(data, 'photos', 'a.jpg'))).toBe(true);
      expect(fs.existsSync(path.join(data, 'restore.json'))).toBe(false);
    }
    expect(await linesNow()).toBe(5);
    const aside = fs.readdirSync(data).filter((one) => one.startsWith('before-restore-'));
    expect(aside.length).toBeGreaterThan(0);
  });

  test('lets nobody in who was signed out, and no token that was taken out of force', async () => {
    await shopWith(1);
    const db = connect(databaseFile(data));
    const person = {
      role: 'lead',
      secret: 'x',
      secret_kind: 'pin',
      active: true,
      version: 1,
      created_at: 1,
      updated_at: 1,
    };
    await db('people').insert({ id: 'p', name: 'A', name_key: 'a', ...person });
    await db('sessions').insert({
      id: 's',
      token_hash: 'h',
      person_id: 'p',
      device: '',
      shared: false,
      created_at: 1,
      last_seen_at: 1,
    });
    await db('areas')
      .insert({ id: 'r', name: 'R', position: 1, version: 1 })
      .catch(() => {});
    await db.destroy();
    await makeBackup(data, { now: NOW, keep: 3 });
    await restoreBackup(data, listBackups(data)[0]!, NOW + 5);
    const after = connect(databaseFile(data));
    expect(await after('sessions').select('ended_at')).toEqual([{ ended_at: NOW + 5 }]);
    await after.destroy();
  });
});

test('a backup that is dated in the future keeps none from being made', async () => {
  await shopWith(1);
  fs.mkdirSync(path.join(data, 'backups', '2031-01-01T00-00-00Z'), { recursive: true });
  expect(backupIsDue(data, NOW)).toBe(true);
  await makeBackup(data, { now: NOW, keep: 5 });
  expect(backupIsDue(data, NOW + 1000)).toBe(false);
});

test('a database of a newer version is known as one', async () => {
  await shopWith(1);
  const db = connect(databaseFile(data));
  expect(await pendingMigrations(db)).toMatchObject({ known: true, missing: [], newer: [] });
  await db('knex_migrations').insert({ name: '20990101_01_later', batch: 9, migration_time: new Date().toISOString() });
  expect((await pendingMigrations(db)).newer).toEqual(['20990101_01_later']);
  await db.destroy();
});

describe('what was closed since a backup stays closed when it is put back', () => {
  const person = (id: string, more: object = {}) => ({
    ...{ id, name: id, name_key: id, role: 'lead', secret: `secret of ${id}`, secret_kind: 'passphrase', active: true },
    ...{ version: 1, created_at: NOW, updated_at: NOW },
    ...more,
  });
  const inShop = async <T>(act: (db: ReturnType<typeof connect>) => Promise<T>): Promise<T> => {
    const db = connect(databaseFile(data));
    try {
      return await act(db);
    } finally {
      await db.destroy();
    }
  };
  const people = () =>
    inShop(async (db) => {
      const rows = (await db('people').orderBy('id')) as { id: string; role: string; active: number; secret: string }[];
      return rows.map(({ id, role, active, secret }) => [id, role, Boolean(active), secret]);
    });

  test('who may no longer come in may not, a right that was taken is not given back, a newer secret counts', async () => {
    await shopWith(1);
    await inShop((db) => db('people').insert(['ada', 'bo', 'cy', 'di'].map((id) => person(id))));
    await makeBackup(data, { now: NOW, keep: 3 });
    await inShop(async (db) => {
      await db('people')
        .where({ id: 'bo' })
        .update({ active: false, version: 2, updated_at: NOW + 1 });
      await db('people')
        .where({ id: 'cy' })
        .update({ role: 'looker', version: 2, updated_at: NOW + 1 });
      await db('people')
        .where({ id: 'di' })
        .update({ secret: 'another', version: 2, updated_at: NOW + 1 });
    });
    const { message } = await restoreBackup(data, listBackups(data)[0]!, NOW + 5);
    expect(await people()).toEqual([
      ['ada', 'lead', true, 'secret of ada'],
      ['bo', 'lead', false, 'secret of bo'],
      ['cy', 'looker', true, 'secret of cy'],
      ['di', 'lead', true, 'another'],
    ]);
    expect(message).toContain('bo still may not come in. cy stays a looker. di keeps the newer secret.');
  });

  test('a right that was given since is not taken along, and a shop keeps a lead', async () => {
    await shopWith(1);
    await inShop((db) => db('people').insert([person('ada'), person('bo', { role: 'looker' })]));
    await makeBackup(data, { now: NOW, keep: 3 });
    await inShop(async (db) => {
      await db('people')
        .where({ id: 'ada' })
        .update({ active: false, version: 2, updated_at: NOW + 1 });
      await db('people')
        .where({ id: 'bo' })
        .update({ role: 'technician', version: 2, updated_at: NOW + 1 });
      await db('people').insert(person('eve', { created_at: NOW + 1, updated_at: NOW + 1 }));
    });
    await restoreBackup(data, listBackups(data)[0]!, NOW + 5);
    expect((await people()).map((row) => row.slice(0, 3))).toEqual([
      ['ada', 'lead', false],
      ['bo', 'looker', true],
      ['eve', 'lead', true],
    ]);
  });
});
