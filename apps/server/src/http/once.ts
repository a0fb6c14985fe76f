import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { Problem } from './problem';
import type { Answer } from './route';

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
