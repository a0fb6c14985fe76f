import { timingSafeEqual } from 'node:crypto';
import { Problem } from './problem';

/** Wrong codes after which there is a pause, and how long it is at first, ms; it doubles with each wrong one after. */
const FREE_TRIES = 5;
const FIRST_PAUSE_MS = 30_000;
const LONGEST_PAUSE_MS = 60 * 60_000;

/** What the first account, or whoever brings a shop along, has to say: a code on the server's terminal. */
export class FirstCode {
  private wrong = 0;
  private pausedUntil = -Infinity;

  /** @param code null: nothing is asked */
  constructor(
    private readonly code: string | null,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /**
   * Whether this is the code; whoever guesses waits longer each time.
   * @throws Problem 429 with the seconds to wait
   */
  is(said: string | undefined): boolean {
    if (this.code === null) return true;
    const now = this.now();
    if (now < this.pausedUntil) {
      const retryAfter = Math.ceil((this.pausedUntil - now) / 1000);
      throw new Problem(
        429,
        'too-fast',
        `Too many wrong codes. Try again in ${retryAfter < 120 ? `${retryAfter} seconds` : `${Math.ceil(retryAfter / 60)} minutes`}.`,
        { retryAfter },
      );
    }
    const [here, there] = [this.code, said?.trim() ?? ''].map((text) => Buffer.from(text));
    if (here!.length === there!.length && timingSafeEqual(here!, there!)) {
      this.wrong = 0;
      return true;
    }
    this.wrong += 1;
    const over = this.wrong - FREE_TRIES;
    if (over >= 0) this.pausedUntil = now + Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** over);
    return false;
  }
}
