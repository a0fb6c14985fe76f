import type { BookHappening } from '@even-bed/contract';
import type { bookOperations } from '@even-bed/contract/book/operations';
import type { Knex } from 'knex';
import type { Context } from 'koa';
import { onWritten } from '../kernel/changes';
import { eventStream } from '../kernel/eventStream';
import { breathe, LIMITS } from '../kernel/limits';
import { Problem } from '../kernel/problem';
import type { CallOf } from '../kernel/route';

/** Lines that are told in one go. */
const AT_ONCE = 200;

/** Streams under way, of all shops of this process, by who listens. */
const streams = new Map<string, number>();
const underWay = () => [...streams.values()].reduce((sum, one) => sum + one, 0);

/** Tells every line of the book as it is written, from after the one that was heard last. */
export async function followBook(
  ctx: Context,
  { db, query, person, programId, mayStill, log }: CallOf<typeof bookOperations.followBook>,
) {
  const who = person?.id ?? programId ?? '';
  if (underWay() >= LIMITS.streams)
    throw new Problem(429, 'too-many-streams', 'So many follow the shop already that no more can. Try again later.');
  if ((streams.get(who) ?? 0) >= LIMITS.streamsEach)
    throw new Problem(429, 'too-many-streams', 'You follow the shop from so many places already. Close one of them.');
  const heard = /^\d{1,15}$/.exec(ctx.get('Last-Event-ID'))?.[0] ?? query.after;
  let last = heard === undefined ? await lastLine(db) : Number(heard);
  let open = true;
  let telling = false;
  let again = false;
  const tell = async (): Promise<void> => {
    again = telling;
    if (telling || !open) return;
    telling = true;
    try {
      do {
        again = false;
        if (!(await mayStill())) return stream.close();
        const lines = await linesAfter(db, last);
        for (const line of lines) stream.send(line, line.seq);
        last = lines[lines.length - 1]?.seq ?? last;
        if (!(await stream.taken())) return stream.close();
        again ||= lines.length === AT_ONCE;
        // SQLite answers at once: without this nobody else would get a turn until all is told.
        if (again) await breathe();
      } while (again && open);
    } catch (error) {
      log.error({ err: error }, 'the stream of events failed');
      stream.close();
    } finally {
      telling = false;
    }
  };
  const unwatch = onWritten(() => void tell());
  streams.set(who, (streams.get(who) ?? 0) + 1);
  const stream = eventStream(ctx, {
    onBeat: () => void tell(),
    onClose: () => {
      open = false;
      const left = (streams.get(who) ?? 1) - 1;
      if (left > 0) streams.set(who, left);
      else streams.delete(who);
      unwatch();
    },
  });
  void tell();
}

async function lastLine(db: Knex): Promise<number> {
  const row = (await db('book').max('seq as seq').first()) as { seq: number | null };
  return row.seq ?? 0;
}

async function linesAfter(db: Knex, seq: number): Promise<BookHappening[]> {
  return (await db('book').where('seq', '>', seq).orderBy('seq').limit(AT_ONCE).select({
    id: 'id',
    seq: 'seq',
    at: 'at',
    kind: 'kind',
    machineId: 'machine_id',
    checkId: 'check_id',
    surfaceId: 'surface_id',
    personId: 'person_id',
  })) as BookHappening[];
}
