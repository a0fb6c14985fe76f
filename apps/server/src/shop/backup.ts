import fs from 'node:fs';
import path from 'node:path';
import { connect } from '../db/connect';
import { copyDatabase } from '../db/databaseFile';
import { checkDatabase } from './copy';
import { databaseFile, photoFolder } from '../settings';
import { bookHeads, headMissing, keepHead } from './bookHeads';
import { shutDoors } from './doors';
import { nameSince } from './namedSince';
import { takeFolder } from '../db/folderLock';

const NAME = /^\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}Z$/;
const DAY_MS = 86_400_000;
/** Clocks may differ by so much. */
const CLOCK_MS = 300_000;

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

/** When the last backup was made, epoch ms; one that is dated in the future counts as none. Null: there is none. */
export function lastBackupAt(dataFolder: string, now: number): number | null {
  const latest = listBackups(dataFolder).find((name) => timeOf(name) <= now + CLOCK_MS);
  return latest === undefined ? null : timeOf(latest);
}

/** Whether the last backup is a day old, or there is none. */
export function backupIsDue(dataFolder: string, now: number): boolean {
  const last = lastBackupAt(dataFolder, now);
  return last === null || now - last >= DAY_MS;
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
  const folder = backupFolder(dataFolder);
  const letGo = takeFolder(folder, `Another backup of ${dataFolder} is being made. Wait for it.`);
  try {
    // What a backup that was cut off has left, since nobody makes one now.
    for (const left of fs.readdirSync(folder).filter((entry) => entry.endsWith('.part')))
      fs.rmSync(path.join(folder, left), { recursive: true, force: true });
    return await makeOne(dataFolder, nameOf(now), { now, keep });
  } finally {
    letGo();
  }
}

async function makeOne(
  dataFolder: string,
  name: string,
  { now, keep }: { now: number; keep: number },
): Promise<{ name: string; message: string }> {
  const target = path.join(backupFolder(dataFolder), name);
  const part = `${target}.part`;
  copyDatabase(databaseFile(dataFolder), databaseFile(part));
  copyPhotos(photoFolder(dataFolder), photoFolder(part));
  const { sound, message, book } = await checkDatabase(databaseFile(part));
  for (const suffix of ['-wal', '-shm']) fs.rmSync(databaseFile(part) + suffix, { force: true });
  if (!sound) throw new Error(`The backup is not sound; a copy is at ${leave(part)}. ${message}`);
  const copy = connect(databaseFile(part));
  const missing = await headMissing(copy, bookHeads(dataFolder)).finally(() => copy.destroy());
  for (const suffix of ['-wal', '-shm']) fs.rmSync(databaseFile(part) + suffix, { force: true });
  if (missing !== null)
    throw new Error(`${missing} No backup takes the place of an earlier one; a copy is at ${leave(part)}.`);
  const about = { at: now, entries: book!.entries, lastHash: book!.lastHash };
  fs.writeFileSync(path.join(part, 'backup.json'), `${JSON.stringify(about, null, 2)}\n`);
  fs.rmSync(target, { recursive: true, force: true });
  fs.renameSync(part, target);
  keepHead(dataFolder, about);
  for (const old of listBackups(dataFolder).slice(Math.max(1, keep)))
    fs.rmSync(path.join(backupFolder(dataFolder), old), { recursive: true });
  return { name, message };
}

/** Keeps a copy that is no backup, to be looked at: the last such one alone. @returns where */
function leave(part: string): string {
  const left = path.join(path.dirname(part), 'not-sound');
  fs.rmSync(left, { recursive: true, force: true });
  fs.renameSync(part, left);
  return left;
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
  const letGo = takeFolder(dataFolder);
  try {
    finishRestore(dataFolder);
    const part = partOf(dataFolder);
    fs.rmSync(part, { recursive: true, force: true });
    fs.cpSync(source, part, { recursive: true });
    const { sound, message, book } = await checkDatabase(databaseFile(part));
    if (!sound) {
      fs.rmSync(part, { recursive: true, force: true });
      throw new Error(`This backup is not sound, nothing was changed. ${message}`);
    }
    const doors = await shutDoors(dataFolder, databaseFile(part), now);
    for (const suffix of ['-wal', '-shm']) fs.rmSync(databaseFile(part) + suffix, { force: true });
    const aside = path.join(dataFolder, `before-restore-${nameOf(now)}`);
    const since = nameSince(databaseFile(dataFolder), book!.entries, path.join(aside, 'not-in-the-backup.csv'));
    // From here on a start finishes what is begun, wherever it was cut off.
    const journal: Journal = { name, aside, entries: book!.entries, lastHash: book!.lastHash, at: now };
    writeWhole(journalOf(dataFolder), JSON.stringify(journal));
    finishRestore(dataFolder);
    return { aside, message: [message, ...doors, ...(since === null ? [] : [since])].join(' ') };
  } finally {
    letGo();
  }
}

interface Journal {
  name: string;
  aside: string;
  entries: number;
  lastHash: string;
  at: number;
}

const partOf = (dataFolder: string) => path.join(dataFolder, 'restore.part');
const journalOf = (dataFolder: string) => path.join(dataFolder, 'restore.json');

/** A file that is there whole or not at all, also after a power cut. */
function writeWhole(file: string, text: string): void {
  const handle = fs.openSync(`${file}.part`, 'w');
  fs.writeSync(handle, text);
  fs.fsyncSync(handle);
  fs.closeSync(handle);
  fs.renameSync(`${file}.part`, file);
}

/**
 * Finishes a restore that was cut off between its renames; does nothing when there is none. Each step may have been done
 * already: what still lies in the part has not been put in its place yet.
 * @returns what was finished, in words; null: nothing
 */
export function finishRestore(dataFolder: string): string | null {
  if (!fs.existsSync(journalOf(dataFolder))) return null;
  const { name, aside, entries, lastHash, at } = JSON.parse(fs.readFileSync(journalOf(dataFolder), 'utf8')) as Journal;
  const part = partOf(dataFolder);
  fs.mkdirSync(aside, { recursive: true });
  if (fs.existsSync(databaseFile(part))) {
    for (const suffix of ['-wal', '-shm', '']) move(databaseFile(dataFolder) + suffix, aside);
    fs.renameSync(databaseFile(part), databaseFile(dataFolder));
  }
  if (fs.existsSync(photoFolder(part))) {
    move(photoFolder(dataFolder), aside);
    fs.renameSync(photoFolder(part), photoFolder(dataFolder));
  }
  keepHead(dataFolder, { at, entries, lastHash, restored: true });
  fs.rmSync(part, { recursive: true, force: true });
  fs.rmSync(journalOf(dataFolder));
  return `Backup ${name} is in its place. What was there before lies in ${aside}`;
}

function move(from: string, toFolder: string): void {
  if (fs.existsSync(from)) fs.renameSync(from, path.join(toFolder, path.basename(from)));
}
