import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { csv } from '../kernel/csv';

interface Line {
  seq: number;
  at: number;
  kind: string;
  data: string;
}

const AT_ONCE = 200;

/**
 * What stands in the book of a shop after a backup was made, and so is not in it: as far as it can still be read, written
 * as a list that can be worked through by hand.
 * @param entries lines that the backup holds
 * @returns what was found, in words; null: nothing is known to have been written since
 */
export function nameSince(file: string, entries: number, target: string): string | null {
  if (!fs.existsSync(file)) return null;
  const { lines, broken } = readAfter(file, entries);
  if (lines.length === 0 && !broken) return null;
  const parts: string[] = [];
  if (lines.length > 0) {
    const rows = lines.map(({ seq, at, kind, data }) => [seq, new Date(at).toISOString(), kind, data]);
    fs.mkdirSync(path.dirname(target), { recursive: true });
    fs.writeFileSync(target, csv([['line', 'at', 'kind', 'what'], ...rows]), { mode: 0o600 });
    const [what, stand] =
      lines.length === 1 ? ['One line of the book', 'stands'] : [`${lines.length} lines of the book`, 'stand'];
    parts.push(
      `${what} written since, not in the backup, ${stand} in ${target}: what matters of them is written down anew.`,
    );
  }
  if (broken) parts.push('Some of what was written since could not be read, and is lost.');
  return parts.join(' ');
}

/** Reads on past what is damaged: in parts, and where a part can't be read line by line. */
function readAfter(file: string, entries: number): { lines: Line[]; broken: boolean } {
  let db: Database.Database;
  try {
    db = new Database(file, { fileMustExist: true, readonly: true });
  } catch {
    return { lines: [], broken: true };
  }
  const lines: Line[] = [];
  let broken = false;
  try {
    const some = db.prepare('SELECT seq, at, kind, data FROM book WHERE seq > ? AND seq <= ? ORDER BY seq');
    const last = lastLine(db, entries);
    for (let from = entries; from < last; from += AT_ONCE) {
      try {
        lines.push(...(some.all(from, Math.min(last, from + AT_ONCE)) as Line[]));
      } catch {
        for (let seq = from; seq < Math.min(last, from + AT_ONCE); seq++) {
          try {
            lines.push(...(some.all(seq, seq + 1) as Line[]));
          } catch {
            broken = true;
          }
        }
      }
    }
  } catch {
    broken = true;
  } finally {
    db.close();
  }
  return { lines, broken };
}

/** The last line there is; where not even that can be read, as far as it may still go. */
function lastLine(db: Database.Database, entries: number): number {
  try {
    return (db.prepare('SELECT max(seq) AS last FROM book').get() as { last: number | null }).last ?? 0;
  } catch {
    return entries + 5_000;
  }
}
