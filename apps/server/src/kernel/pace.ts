import { LIMITS } from './limits';
import { Problem } from './problem';

interface Bucket {
  left: number;
  at: number;
}

interface Pace {
  /** Requests at once, and how many are given back a second. */
  burst: number;
  perSecond: number;
}

/** Callers that are remembered; past these the one that was longest quiet is forgotten. */
const MOST_CALLERS = 10_000;

/**
 * Keeps anybody from taking the server for themselves: each caller has a bucket of requests that fills up again with
 * time. A session or a machine's token has its own; whoever is not signed in shares one by address.
 */
export class Pacer {
  private readonly buckets = new Map<string, Bucket>();

  /** @throws Problem 429 with the seconds until the next request is taken */
  take(caller: string, known: boolean, now: number): void {
    const { burst, perSecond }: Pace = known ? LIMITS.paceKnown : LIMITS.paceUnknown;
    const old = this.buckets.get(caller);
    // A clock set back gives nothing and takes nothing.
    const refilled = old ? old.left + (Math.max(0, now - old.at) / 1000) * perSecond : burst;
    const left = Math.min(burst, refilled) - 1;
    this.buckets.delete(caller);
    if (left < 0) {
      this.buckets.set(caller, { left: left + 1, at: now });
      throw new Problem(429, 'too-fast', 'That is too much at once. Wait a moment and go on.', {
        retryAfter: Math.ceil(-left / perSecond),
      });
    }
    this.buckets.set(caller, { left, at: now });
    if (this.buckets.size > MOST_CALLERS) this.buckets.delete(this.buckets.keys().next().value!);
  }
}
