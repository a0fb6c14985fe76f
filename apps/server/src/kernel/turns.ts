import { Problem } from './problem';

interface Caller {
  running: number;
  /** Begins each, in the order in which they came. */
  waiting: (() => void)[];
}

export interface Bounds {
  /** Doings at once, of all and of one caller. */
  atOnce: number;
  each: number;
  /** How many of one caller may wait. */
  waitingEach: number;
}

/**
 * Lets so many through at once: each caller's in the order in which they came, callers by turns. Whoever asks for a
 * hundred things waits for a hundred; whoever asks for one waits for those that run.
 */
export class Turns {
  private running = 0;
  /** Those who wait or are served, the one whose turn is next first. */
  private readonly callers = new Map<string, Caller>();

  constructor(private readonly bounds: Bounds) {}

  /**
   * Waits until it is somebody's turn.
   * @returns ends the turn; called again it does nothing
   * @throws Problem 429 where too many of theirs wait, 499 where whoever asked has gone
   */
  take(who: string, signal?: AbortSignal): Promise<() => void> {
    const caller = this.callers.get(who) ?? { running: 0, waiting: [] };
    if (caller.waiting.length >= this.bounds.waitingEach)
      return Promise.reject(
        new Problem(429, 'busy', 'So much that you asked for is under way already. Try again in a little while.'),
      );
    if (signal?.aborted) return Promise.reject(gone());
    this.callers.set(who, caller);
    return new Promise((resolve, reject) => {
      const leave = () => {
        caller.waiting.splice(caller.waiting.indexOf(begin), 1);
        this.forget(who, caller);
        reject(gone());
      };
      const begin = () => {
        signal?.removeEventListener('abort', leave);
        let ended = false;
        resolve(() => {
          if (ended) return;
          ended = true;
          this.running -= 1;
          caller.running -= 1;
          this.toTheEnd(who, caller);
          this.forget(who, caller);
          this.next();
        });
      };
      signal?.addEventListener('abort', leave, { once: true });
      caller.waiting.push(begin);
      this.next();
    });
  }

  /** Does something in somebody's turn. */
  async run<T>(who: string, doing: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    const end = await this.take(who, signal);
    try {
      return await doing();
    } finally {
      end();
    }
  }

  private next(): void {
    for (const [who, caller] of this.callers) {
      if (this.running >= this.bounds.atOnce) return;
      if (caller.waiting.length === 0 || caller.running >= this.bounds.each) continue;
      this.running += 1;
      caller.running += 1;
      this.toTheEnd(who, caller);
      caller.waiting.shift()!();
    }
  }

  /** Behind all others for the next. */
  private toTheEnd(who: string, caller: Caller): void {
    this.callers.delete(who);
    this.callers.set(who, caller);
  }

  private forget(who: string, caller: Caller): void {
    if (caller.running === 0 && caller.waiting.length === 0) this.callers.delete(who);
  }
}

/** Whoever asked has gone. */
export const gone = () => new Problem(499, 'gone', 'Nobody waits for this any more.');
