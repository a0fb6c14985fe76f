import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import type { Context } from 'koa';
import { LIMITS } from './limits';
import { Problem } from './problem';

/** A comment line this often keeps proxies from closing a quiet stream. */
const HEARTBEAT_MS = 15_000;
/** A listener that takes nothing for so long is let go; it comes again from where it was. */
const TAKE_MS = 10_000;

/** Streams under way, of all shops of this process, by who listens. */
const streams = new Map<string, number>();

function refuseTooMany(who: string): void {
  const all = [...streams.values()].reduce((sum, one) => sum + one, 0);
  if (all >= LIMITS.streams)
    throw new Problem(429, 'too-many-streams', 'So many follow the shop already that no more can. Try again later.');
  if ((streams.get(who) ?? 0) >= LIMITS.streamsEach)
    throw new Problem(429, 'too-many-streams', 'You follow the shop from so many places already. Close one of them.');
}

function count(who: string, by: 1 | -1): void {
  const now = (streams.get(who) ?? 0) + by;
  if (now > 0) streams.set(who, now);
  else streams.delete(who);
}

export interface EventStream {
  send: (data: unknown) => void;
  /** Sends what is written as JSON already, with the id from which a listener goes on. */
  sendText: (json: string, id: number) => void;
  close: () => void;
  /** Resolves when the listener has taken what was sent; false when it doesn't in time, or is gone. */
  taken: () => Promise<boolean>;
}

/**
 * Answers a request with server-sent events (WHATWG HTML, server-sent events), until it is closed or the listener goes.
 * @throws Problem 429 when too many listen, or whoever this is does so often enough
 */
export function eventStream(
  ctx: Context,
  { who, onBeat, onClose }: { who: string; onBeat?: () => void; onClose: () => void },
): EventStream {
  refuseTooMany(who);
  count(who, 1);
  const stream = new PassThrough();
  let open = true;
  const beat = setInterval(() => {
    stream.write(':\n\n');
    onBeat?.();
  }, HEARTBEAT_MS);
  const close = () => {
    if (!open) return;
    open = false;
    clearInterval(beat);
    count(who, -1);
    onClose();
    stream.end();
  };
  ctx.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
  ctx.status = 200;
  ctx.compress = false;
  ctx.body = stream;
  ctx.req.on('close', close);
  // With its first bytes the head goes out: the listener knows that it is heard.
  stream.write(':\n\n');
  return {
    send: (data) => {
      if (open) stream.write(`data: ${JSON.stringify(data)}\n\n`);
    },
    sendText: (json, id) => {
      if (open) stream.write(`id: ${id}\ndata: ${json}\n\n`);
    },
    close,
    taken: async () => {
      if (!stream.writableNeedDrain) return open;
      const signal = AbortSignal.timeout(TAKE_MS);
      return once(stream, 'drain', { signal }).then(
        () => open,
        () => false,
      );
    },
  };
}
