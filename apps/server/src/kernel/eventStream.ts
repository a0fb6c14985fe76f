import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import type { Context } from 'koa';

/** A comment line this often keeps proxies from closing a quiet stream. */
const HEARTBEAT_MS = 15_000;
/** A listener that takes nothing for so long is let go; it comes again from where it was. */
const TAKE_MS = 10_000;

export interface EventStream {
  send: (data: unknown, id?: number) => void;
  close: () => void;
  /** Resolves when the listener has taken what was sent; false when it doesn't in time, or is gone. */
  taken: () => Promise<boolean>;
}

/** Answers a request with server-sent events (WHATWG HTML, server-sent events), until it is closed or the listener goes. */
export function eventStream(
  ctx: Context,
  { onBeat, onClose }: { onBeat?: () => void; onClose: () => void },
): EventStream {
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
    send: (data, id) => {
      if (open) stream.write(`${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`);
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
