import { isAnswer } from './errorOf';

/** A write that waits on this device until the server has it. Its key makes sending it twice harmless. */
export interface PendingWrite {
  key: string;
  path: string;
  body: unknown;
}

/**
 * sent: the server has it · refused: it never will, with its words · waiting: no answer now, try again · broken: the server
 * failed on it.
 */
export type SendResult =
  { kind: 'sent' } | { kind: 'refused'; message: string } | { kind: 'waiting' } | { kind: 'broken'; status: number };

const TIMEOUT_MS = 15_000;
/** Nobody is signed in, too much at once, a full disk, or nobody behind the proxy: none of it is the write's own fault. */
const AGAIN_LATER = [401, 408, 429, 502, 503, 504, 507];
/** A write on which the server fails so often is laid aside, so that the others go on. */
const MOST_FAILURES = 3;
/** Pauses between tries, ms; the last one repeats. */
const PAUSES_MS = [500, 1_000, 2_000, 5_000, 10_000, 20_000];

/** Sends one write. A plain refusal (4xx) ends it; a failure of the server's own is told from no answer. */
export async function sendWrite({ key, path, body }: PendingWrite, send: typeof fetch = fetch): Promise<SendResult> {
  const controller = new AbortController();
  const timer = setTimeout(() => controller.abort(), TIMEOUT_MS);
  try {
    const response = await send(`/api${path}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key },
      body: JSON.stringify(body),
      signal: controller.signal,
    });
    if (response.ok) return { kind: 'sent' };
    // 401: nobody is signed in now; it waits until the one who made it is.
    if (AGAIN_LATER.includes(response.status)) return { kind: 'waiting' };
    if (response.status >= 500) return { kind: 'broken', status: response.status };
    const data: unknown = await response.json().catch(() => null);
    return {
      kind: 'refused',
      message: isAnswer(data) ? data.error.message : `The server refused it (${response.status}).`,
    };
  } catch {
    return { kind: 'waiting' };
  } finally {
    clearTimeout(timer);
  }
}

export interface OutboxParts {
  /** The next write in order, or null. */
  next: () => PendingWrite | null;
  done: (write: PendingWrite, result: Extract<SendResult, { kind: 'sent' | 'refused' }>) => void;
  /** Told whether the server answers. */
  reachable: (answers: boolean) => void;
  send?: (write: PendingWrite) => Promise<SendResult>;
  pause?: (ms: number) => Promise<void>;
}

/**
 * Sends waiting writes one after another, in order, and tries again for as long as it takes.
 * `nudge` starts it, or ends its present pause.
 */
export function createOutbox({ next, done, reachable, send = sendWrite, pause }: OutboxParts) {
  let running = false;
  let wake: (() => void) | null = null;
  let nudged = false;
  const sleep =
    pause ??
    ((ms: number) =>
      new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, ms);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
      }));

  async function run(): Promise<void> {
    let tries = 0;
    const failures = new Map<string, number>();
    for (let write = next(); write; write = next()) {
      nudged = false;
      const result = await send(write);
      if (result.kind === 'broken') {
        const count = (failures.get(write.key) ?? 0) + 1;
        failures.set(write.key, count);
        reachable(true);
        if (count >= MOST_FAILURES) {
          done(write, {
            kind: 'refused',
            message: `The server failed on this ${count} times (${result.status}). It is kept here: try again later, or let it go.`,
          });
          tries = 0;
          continue;
        }
        if (!nudged) await sleep(PAUSES_MS[Math.min(tries, PAUSES_MS.length - 1)]!);
        tries++;
        continue;
      }
      if (result.kind === 'waiting') {
        reachable(false);
        if (!nudged) await sleep(PAUSES_MS[Math.min(tries, PAUSES_MS.length - 1)]!);
        tries++;
        continue;
      }
      tries = 0;
      reachable(true);
      done(write, result);
    }
  }

  return {
    nudge(): void {
      nudged = true;
      wake?.();
      if (running) return;
      running = true;
      void run().finally(() => {
        running = false;
        if (next()) this.nudge();
      });
    },
  };
}
