import fs from 'node:fs';
import path from 'node:path';
import { checkDatabase, copyDatabase } from '../db/copy';
import { databaseFile, photoFolder } from '../settings';

const NAME = /^\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}Z$/;
const DAY_MS = 86_400_000;

export const backupFolder = (dataFolder: string) => path.join(dataFolder, 'backups');
const nameOf = (at: number) => new Date(at).toISOString().slice(0, 19).replaceAll(':', '-') + 'Z';
const timeOf = (name: string) => Date.parse(name.replace(/T(\d\d)-(\d\d)-(\d\d)Z/, 'T$1:$2:$3Z'));

/** Names of the backups there are, the latest first. */
export function listBackups(dataFolder: string): string[] {
  const folder = backupFolder(dataFolder);
  if (!fs.existsSync(folder)) return [];
  return fs
    .readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort()
    .reverse();
}

/** Whether the last backup is a day old, or there is none. */
export function backupIsDue(dataFolder: string, now: number): boolean {
  const [latest] = listBackups(dataFolder);
  return latest === undefined || now - timeOf(latest) >= DAY_MS;
}

/** Photos never change: a second name for the same file where the disk can, a copy where not. */
function copyPhotos(from: string, to: string): void {
  fs.mkdirSync(to, { recursive: true });
  if (!fs.existsSync(from)) return;
  for (const name of fs.readdirSync(from)) {
    if (!name.endsWith('.jpg')) continue;
    try {
      fs.linkSync(path.join(from, name), path.join(to, name));
    } catch {
      fs.copyFileSync(path.join(from, name), path.join(to, name));
    }
  }
}

/**
 * Makes a backup while the server may run: a copy that is opened and checked before it counts as one.
 * @param keep how many are kept; older ones are taken away once the new one is sound
 * @returns its name and what the check has said
 * @throws Error the copy is not sound
 */
export async function makeBackup(
  dataFolder: string,
  { now, keep }: { now: number; keep: number },
): Promise<{ name: string; message: string }> {
  const name = nameOf(now);
  const target = path.join(backupFolder(dataFolder), name);
  const part = `${target}.part`;
  fs.rmSync(part, { recursive: true, force: true });
  copyDatabase(databaseFile(dataFolder), databaseFile(part));
  copyPhotos(photoFolder(dataFolder), photoFolder(part));
  const { sound, message, book } = await checkDatabase(databaseFile(part));
  for (const suffix of ['-wal', '-shm']) fs.rmSync(databaseFile(part) + suffix, { force: true });
  if (!sound) throw new Error(`The backup is not sound and is left at ${part}. ${message}`);
  const about = { at: now, entries: book!.entries, lastHash: book!.lastHash };
  fs.writeFileSync(path.join(part, 'backup.json'), `${JSON.stringify(about, null, 2)}\n`);
  fs.rmSync(target, { recursive: true, force: true });
  fs.renameSync(part, target);
  for (const old of listBackups(dataFolder).slice(Math.max(1, keep)))
    fs.rmSync(path.join(backupFolder(dataFolder), old), { recursive: true });
  return { name, message };
}

const lockFile = (dataFolder: string) => path.join(dataFolder, 'server.pid');

/** Notes that a server has this folder in hand, until it ends. */
export function holdFolder(dataFolder: string): () => void {
  fs.mkdirSync(dataFolder, { recursive: true });
  fs.writeFileSync(lockFile(dataFolder), String(process.pid));
  return () => fs.rmSync(lockFile(dataFolder), { force: true });
}

function serverRuns(dataFolder: string): boolean {
  if (!fs.existsSync(lockFile(dataFolder))) return false;
  const pid = Number(fs.readFileSync(lockFile(dataFolder), 'utf8'));
  try {
    process.kill(pid, 0);
    return pid !== process.pid;
  } catch {
    return false;
  }
}

/**
 * Puts a backup in the place of what is there; what is there is set aside, not thrown away.
 * @returns where the old data lies now, and what the check has said
 * @throws Error no such backup, not sound, or a server has the folder in hand
 */
export async function restoreBackup(
  dataFolder: string,
  name: string,
  now: number,
): Promise<{ aside: string; message: string }> {
  const source = path.join(backupFolder(dataFolder), name);
  if (!NAME.test(name) || !fs.existsSync(source)) {
    const there = listBackups(dataFolder);
    throw new Error(
      `There is no backup ${name}. ${there.length > 0 ? `There are: ${there.join(', ')}` : 'There is none yet.'}`,
    );
  }
  if (serverRuns(dataFolder)) throw new Error('The server is running on this data. Stop it first, then restore.');
  const part = path.join(dataFolder, 'restore.part');
  fs.rmSync(part, { recursive: true, force: true });
  fs.cpSync(source, part, { recursive: true });
  const { sound, message } = await checkDatabase(databaseFile(part));
  if (!sound) {
    fs.rmSync(part, { recursive: true, force: true });
    throw new Error(`This backup is not sound, nothing was changed. ${message}`);
  }
  const aside = path.join(dataFolder, `before-restore-${nameOf(now)}`);
  fs.mkdirSync(aside, { recursive: true });
  for (const suffix of ['', '-wal', '-shm']) move(databaseFile(dataFolder) + suffix, aside);
  move(photoFolder(dataFolder), aside);
  for (const suffix of ['-wal', '-shm']) fs.rmSync(databaseFile(part) + suffix, { force: true });
  fs.renameSync(databaseFile(part), databaseFile(dataFolder));
  fs.renameSync(photoFolder(part), photoFolder(dataFolder));
  fs.rmSync(part, { recursive: true, force: true });
  return { aside, message };
}

function move(from: string, toFolder: string): void {
  if (fs.existsSync(from)) fs.renameSync(from, path.join(toFolder, path.basename(from)));
}
