import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { LIMITS } from './limits';
import { Problem } from './problem';
import type { Answer } from './route';

/** Answers of writes are looked over for old ones this often. */
const PRUNE_EVERY_MS = 3_600_000;
/** Lines taken away at a time, so that nobody waits for them. */
const PRUNED_AT_ONCE = 500;
let prunedAt = 0;

/** Takes away answers that are too old for their write to come again. */
async function prune(trx: Knex.Transaction, now: number): Promise<void> {
  if (Math.abs(now - prunedAt) < PRUNE_EVERY_MS) return;
  const old = now - LIMITS.writesKeptDays * 86_400_000;
  const keys = (await trx('writes').where('at', '<', old).limit(PRUNED_AT_ONCE).select('key')) as { key: string }[];
  if (keys.length < PRUNED_AT_ONCE) prunedAt = now;
  if (keys.length > 0)
    await trx('writes')
      .whereIn(
        'key',
        keys.map(({ key }) => key),
      )
      .delete();
}

/**
 * Runs a write once for its key: in one transaction with the record of its answer. The same key again gets the same
 * answer and changes nothing; the same key with other content is refused.
 * @param key client-made, or undefined: then the write just runs in its transaction
 */
export async function once(
  db: Knex,
  { key, content, now }: { key: string | undefined; content: string; now: number },
  write: (trx: Knex.Transaction) => Promise<Answer>,
): Promise<Answer> {
  const fingerprint = createHash('sha256').update(content).digest('hex');
  return db.transaction(async (trx) => {
    if (key === undefined) return write(trx);
    const before = await trx<{ fingerprint: string; status: number; answer: string }>('writes')
      .where('key', key)
      .first();
    if (before) {
      if (before.fingerprint !== fingerprint) {
        throw new Problem(409, 'key-reused', 'This write was sent before with other content. Nothing was changed.');
      }
      return { status: before.status, body: JSON.parse(before.answer) as unknown };
    }
    await prune(trx, now);
    const answer = await write(trx);
    await trx('writes').insert({
      key,
      fingerprint,
      status: answer.status ?? 200,
      answer: JSON.stringify(answer.body),
      at: now,
    });
    return answer;
  });
}
