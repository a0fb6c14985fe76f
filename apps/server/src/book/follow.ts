import type { BookHappening } from '@even-bed/contract';
import type { bookOperations } from '@even-bed/contract/book/operations';
import { peopleEvents } from '@even-bed/contract/people/events';
import type { Knex } from 'knex';
import type { Context } from 'koa';
import { onWritten } from '../kernel/changes';
import { eventStream } from '../kernel/eventStream';
import { breathe } from '../db/breathe';
import type { CallOf } from '../kernel/route';

/** Lines that are told in one go. */
const AT_ONCE = 200;
/** What is written within so short a time is told together, so that telling many keeps no write waiting. */
const TOGETHER_MS = 60;
/** Whether a follower still may is looked at again after so long, and at once where the lines tell of people. */
const RIGHTS_MS = 5_000;

/** A line as it is told. */
interface Told {
  seq: number;
  kind: string;
  text: string;
}

/** Lines after a running number, read once for all who heard the same: by what reads them, as a write makes them old. */
let rounds = new WeakMap<object, Map<number, Promise<Told[]>>>();
const followers = new Set<() => void>();
let soon: NodeJS.Timeout | null = null;

onWritten(() => {
  rounds = new WeakMap();
  if (followers.size === 0 || soon) return;
  soon = setTimeout(() => {
    soon = null;
    for (const tell of followers) tell();
  }, TOGETHER_MS);
});

/** Tells every line of the book as it is written, from after the one that was heard last. */
export async function followBook(
  ctx: Context,
  { db, query, who, mayStill, log }: CallOf<typeof bookOperations.followBook>,
) {
  const heard = /^\d{1,15}$/.exec(ctx.get('Last-Event-ID'))?.[0] ?? query.after;
  let last = heard === undefined ? await lastLine(db) : Number(heard);
  let open = true;
  let telling = false;
  let again = false;
  let lookedAt = performance.now();
  const tell = async (): Promise<void> => {
    again = telling;
    if (telling || !open) return;
    telling = true;
    try {
      do {
        again = false;
        const lines = await linesAfter(db, last);
        if (performance.now() - lookedAt > RIGHTS_MS || lines.some(({ kind }) => kind in peopleEvents)) {
          if (!(await mayStill())) return stream.close();
          lookedAt = performance.now();
        }
        for (const { seq, text } of lines) stream.sendText(text, seq);
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
  const hear = () => void tell();
  const stream = eventStream(ctx, {
    who,
    onBeat: hear,
    onClose: () => {
      open = false;
      followers.delete(hear);
    },
  });
  followers.add(hear);
  hear();
}

async function lastLine(db: Knex): Promise<number> {
  const row = (await db('book').max('seq as seq').first()) as { seq: number | null };
  return row.seq ?? 0;
}

function linesAfter(db: Knex, seq: number): Promise<Told[]> {
  // One shop, however many stand for its database, has one client.
  const shop = db.client as object;
  const round = rounds.get(shop) ?? new Map<number, Promise<Told[]>>();
  rounds.set(shop, round);
  const known = round.get(seq);
  if (known) return known;
  const reading = readAfter(db, seq);
  round.set(seq, reading);
  reading.catch(() => round.delete(seq));
  return reading;
}

async function readAfter(db: Knex, seq: number): Promise<Told[]> {
  const lines = (await db('book').where('seq', '>', seq).orderBy('seq').limit(AT_ONCE).select({
    id: 'id',
    seq: 'seq',
    at: 'at',
    kind: 'kind',
    machineId: 'machine_id',
    checkId: 'check_id',
    surfaceId: 'surface_id',
    personId: 'person_id',
  })) as BookHappening[];
  return lines.map((line) => ({ seq: line.seq, kind: line.kind, text: JSON.stringify(line) }));
}
