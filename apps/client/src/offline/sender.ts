import { isAnswer } from '../api/errorOf';
import type { Parked, Waiting } from './waiting';

/**
 * sent: the server has it · refused: it never will, with its words · waiting: no answer now, try again · broken: the server
 * failed on it.
 */
export type SendResult =
  | { kind: 'sent' }
  | { kind: 'refused'; message: string; fields?: Record<string, string> }
  | { kind: 'waiting' }
  | { kind: 'broken'; status: number };

const TIMEOUT_MS = 15_000;
/** Nobody is signed in, too much at once, a full disk, or nobody behind the proxy: none of it is the operation's own fault. */
const AGAIN_LATER = [401, 408, 429, 502, 503, 504, 507];
/** An operation on which the server fails so often is parked, so that the others go on. */
const MOST_FAILURES = 3;
/** Pauses between tries, ms; the last one repeats. */
const PAUSES_MS = [500, 1_000, 2_000, 5_000, 10_000, 20_000];

/** Sends one operation. A plain refusal (4xx) ends it; a failure of the server's own is told from no answer. */
export async function sendOne(
  { key, method, path, body }: Pick<Waiting, 'key' | 'method' | 'path' | 'body'>,
  send: typeof fetch = fetch,
): Promise<SendResult> {
  const controller = new AbortController();
  const timer = setTimeout(() => controller.abort(), TIMEOUT_MS);
  try {
    const response = await send(`/api${path}`, {
      method: method.toUpperCase(),
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key },
      body: JSON.stringify(body),
      signal: controller.signal,
    });
    if (response.ok) return { kind: 'sent' };
    if (AGAIN_LATER.includes(response.status)) return { kind: 'waiting' };
    if (response.status >= 500) return { kind: 'broken', status: response.status };
    const data: unknown = await response.json().catch(() => null);
    return {
      kind: 'refused',
      message: isAnswer(data) ? data.error.message : `The server refused it (${response.status}).`,
      fields: (isAnswer(data) && data.error.fields) || {},
    };
  } catch {
    return { kind: 'waiting' };
  } finally {
    clearTimeout(timer);
  }
}

export interface SenderParts {
  /** Everything that waits, in order. */
  list: () => readonly Waiting[];
  /** Whether it may be sent now: by the person who did it, on a device that isn't locked. */
  mine: (waiting: Waiting) => boolean;
  onSent: (waiting: Waiting) => Promise<void>;
  onPark: (waiting: Waiting, parked: Parked) => Promise<void>;
  /** The server failed on it once more. */
  onTry: (waiting: Waiting, tries: number) => Promise<void>;
  /** Told whether the server answers. */
  onAnswers: (answers: boolean) => void;
  send?: (waiting: Waiting) => Promise<SendResult>;
  /** Lets one tab send at a time: runs when it is this one's turn. */
  inTurn?: (run: () => Promise<void>) => Promise<void>;
  pause?: (ms: number) => Promise<void>;
  now?: () => number;
}

/**
 * Sends what waits, in the order in which it was done, for as long as it takes. What is parked, and what waits for it, holds
 * nothing else back. `nudge` starts it, or ends its present pause.
 */
export function createSender(parts: SenderParts) {
  const { list, mine, onSent, onPark, onTry, onAnswers, send = sendOne, now = Date.now } = parts;
  const inTurn = parts.inTurn ?? ((run) => run());
  let running = false;
  let nudged = false;
  let wake: (() => void) | null = null;
  const sleep =
    parts.pause ??
    ((ms: number) =>
      new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, ms);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
      }));

  /** The next one that may be sent, past the records that are held back. */
  const next = (held: ReadonlySet<string>): Waiting | null => {
    const stopped = new Set(held);
    for (const one of list()) {
      if (!stopped.has(one.of) && one.parked === null && mine(one)) return one;
      stopped.add(one.of);
    }
    return null;
  };

  /** One pass over all that waits; whether something has to be tried again later. */
  async function pass(): Promise<boolean> {
    const held = new Set<string>();
    for (let one = next(held); one; one = next(held)) {
      const result = await send(one);
      if (result.kind === 'waiting') {
        onAnswers(false);
        return true;
      }
      onAnswers(true);
      if (result.kind === 'sent') await onSent(one);
      else if (result.kind === 'refused')
        await onPark(one, { kind: 'refused', reason: result.message, fields: result.fields ?? {}, at: now() });
      else if (one.tries + 1 >= MOST_FAILURES)
        await onPark(one, {
          kind: 'broken',
          reason: `The server failed on this ${one.tries + 1} times (${result.status}).`,
          at: now(),
        });
      else {
        await onTry(one, one.tries + 1);
        held.add(one.of);
      }
    }
    return held.size > 0;
  }

  async function run(): Promise<void> {
    for (let tries = 0; ; tries++) {
      nudged = false;
      const again = await pass();
      if (nudged) continue;
      if (!again) return;
      await sleep(PAUSES_MS[Math.min(tries, PAUSES_MS.length - 1)]!);
    }
  }

  return {
    nudge(): void {
      nudged = true;
      wake?.();
      if (running) return;
      running = true;
      void inTurn(run).finally(() => {
        running = false;
        if (nudged && next(new Set())) this.nudge();
      });
    },
  };
}
