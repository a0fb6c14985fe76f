import fs from 'node:fs';
import path from 'node:path';
import type { Knex } from 'knex';

/** Where the book ended at some time, kept outside the database. */
export interface BookHead {
  at: number;
  entries: number;
  lastHash: string;
  /** A restore began the book anew from here: heads beyond it count no more. */
  restored?: true;
}

const headsFile = (dataFolder: string) => path.join(dataFolder, 'backups', 'book-heads.jsonl');

/** Writes down where the book ends, beside the backups and for good. */
export function keepHead(dataFolder: string, head: BookHead): void {
  fs.mkdirSync(path.dirname(headsFile(dataFolder)), { recursive: true });
  fs.appendFileSync(headsFile(dataFolder), `${JSON.stringify(head)}\n`);
}

/** All heads that still count: those up to the last restore's, and those since. */
export function bookHeads(dataFolder: string): BookHead[] {
  let text: string;
  try {
    text = fs.readFileSync(headsFile(dataFolder), 'utf8');
  } catch {
    return [];
  }
  const heads: BookHead[] = [];
  for (const line of text.split('\n')) {
    if (line.trim() === '') continue;
    try {
      const head = JSON.parse(line) as BookHead;
      if (head.restored) heads.splice(0, heads.length, ...heads.filter(({ entries }) => entries <= head.entries));
      heads.push(head);
    } catch {
      // A line that was cut off by a power cut says nothing.
    }
  }
  return heads;
}

/**
 * Holds the book against where it ended before: a chain that is whole in itself may have lost its end, or be a new one.
 * @returns null when it holds every head; else what is missing, in words
 */
export async function headMissing(db: Knex, heads: readonly BookHead[]): Promise<string | null> {
  for (const { at, entries, lastHash } of heads) {
    if (entries === 0) continue;
    const row = (await db('book').where({ seq: entries }).first('hash')) as { hash: string } | undefined;
    if (row?.hash === lastHash) continue;
    const when = new Date(at).toISOString().slice(0, 16).replace('T', ' ');
    return row
      ? `The book is not the one that was backed up on ${when} UTC: its line ${entries} has another mark. It was rewritten.`
      : `The book has lost its end: on ${when} UTC it had ${entries} lines, and line ${entries} is not there.`;
  }
  return null;
}
