import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { databaseFile, settingsFrom } from '../settings';
import { listBackups } from './backup';

/** SQLite's codes for a file that is none of its own, is damaged, or can't be read from the disk. */
const DAMAGED = /^SQLITE_(CORRUPT|NOTADB|IOERR)/;

const codeOf = (error: unknown): string => {
  const { code, message } = (error ?? {}) as { code?: unknown; message?: unknown };
  if (typeof code === 'string') return code;
  // The query builder wraps what SQLite said.
  return typeof message === 'string' && /malformed|not a database|disk I\/O error/.test(message)
    ? 'SQLITE_CORRUPT'
    : '';
};

export const isDamage = (error: unknown): boolean => DAMAGED.test(codeOf(error));

/** What to do with a damaged shop, as whoever runs the server does it. */
export function whatHelps(dataFolder: string): string {
  const [latest] = listBackups(dataFolder);
  return latest === undefined
    ? `There is no backup to put back. Stop the server and keep a copy of ${dataFolder} before anything else is tried.`
    : `Stop the server and put the latest backup back: npm run restore -- ${latest}\nThat also says what was written since and could still be read.`;
}

/** Why a shop can't be opened, in words and with what helps; null: it is nothing of that kind. */
export function whyNotOpened(error: unknown, dataFolder: string): string | null {
  const file = databaseFile(dataFolder);
  const code = codeOf(error);
  if (isDamage(error)) return `The shop’s file ${file} is damaged. ${whatHelps(dataFolder)}`;
  if (code === 'ENOSPC' || code === 'SQLITE_FULL')
    return `The disk that holds ${dataFolder} is full. Make room on it, then start again; nothing of the shop is lost.`;
  if (
    ['EACCES', 'EPERM', 'EROFS', 'ENOTDIR', 'EEXIST', 'SQLITE_READONLY', 'SQLITE_CANTOPEN'].some((one) =>
      code.startsWith(one),
    )
  )
    return `The server may not write to ${dataFolder}. Let the account that runs it write there, or choose another folder with EVEN_BED_DATA.`;
  return null;
}

/** Says why a program of the server can't go on, in words where there are some, and ends it. */
export function giveUp(error: unknown): never {
  const { dataFolder } = settingsFrom({ EVEN_BED_DATA: process.env['EVEN_BED_DATA'] }, 'data');
  const why = whyNotOpened(error, dataFolder) ?? (error instanceof Error ? error.message : String(error));
  process.stderr.write(`${why}\n`);
  process.exit(1);
}

/** What is known of damage to a shop's file: by a look at all its pages at the start, and by what could not be read. */
export class Damage {
  private known: string | null = null;

  constructor(private readonly dataFolder: string) {}

  /** Notes what could not be read. */
  noticed(error: unknown): void {
    if (isDamage(error)) this.known ??= error instanceof Error ? error.message : String(error);
  }

  /** Looks at every page, beside the thread that serves. Resolves when it has. */
  look(): Promise<void> {
    return new Promise((resolve) => {
      const worker = new Worker(path.join(__dirname, 'pageCheck.cjs'), {
        workerData: databaseFile(this.dataFolder),
        execArgv: [],
      });
      worker.unref();
      worker.on('message', (fault: string | null) => (this.known ??= fault));
      worker.on('error', () => resolve());
      worker.on('exit', () => resolve());
    });
  }

  /** What is wrong and what helps, in words; null: nothing is known to be wrong. */
  words(): string | null {
    if (this.known === null) return null;
    return `The shop’s file is damaged: some of what was written can’t be read. ${whatHelps(this.dataFolder)}`;
  }
}
