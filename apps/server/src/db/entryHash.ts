import { createHash } from 'node:crypto';

/** What of a line of the book its hash is made of. */
export interface HashedEntry {
  seq: number;
  id: string;
  at: number;
  kind: string;
  machine_id: string | null;
  check_id: string | null;
  surface_id: string | null;
  person_id: string | null;
  text: string;
  data: string;
  corrects: string | null;
  /** The server's own time, epoch ms; lines from before it was kept have none. */
  written_at?: number | null;
}

/** What stands before the first line. */
export const FIRST_HASH = '0'.repeat(64);

/**
 * Hash of a line: SHA-256 over the hash of the line before and every field of this one, as a JSON list. Whoever changes,
 * takes out or slips in a line has to make every later hash anew.
 */
export function entryHash(before: string, entry: HashedEntry): string {
  const { seq, id, at, kind, machine_id, check_id, surface_id, person_id, text, data, corrects } = entry;
  return createHash('sha256')
    .update(
      JSON.stringify([
        ...[before, seq, id, at, kind, machine_id, check_id, surface_id, person_id, text, data, corrects],
        ...(typeof entry.written_at === 'number' ? [entry.written_at] : []),
      ]),
    )
    .digest('hex');
}
