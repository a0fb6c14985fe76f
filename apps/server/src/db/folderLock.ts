import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';

const lockFile = (dataFolder: string) => path.join(dataFolder, 'in-hand.lock');

/** A folder that another server, or a restore, has in hand. */
export class FolderTaken extends Error {
  override readonly name = 'FolderTaken';
}

/**
 * Takes a data folder in hand before anything in it is opened. The lock is the operating system's own, on a file that holds
 * nothing else: it ends with the process, however that ends, and leaves no number of a process to be misread.
 * @param taken what is said where somebody else has it; left out: what is said of a shop's folder
 * @returns lets go of it
 * @throws FolderTaken somebody else has it
 */
export function takeFolder(dataFolder: string, taken?: string): () => void {
  fs.mkdirSync(dataFolder, { recursive: true });
  const lock = new Database(lockFile(dataFolder));
  try {
    lock.pragma('busy_timeout = 0');
    lock.pragma('locking_mode = EXCLUSIVE');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new FolderTaken(
      taken ??
        `Another server, or a restore, has ${dataFolder} in hand. Stop it first, or choose another folder with EVEN_BED_DATA.`,
    );
  }
  return () => lock.close();
}
