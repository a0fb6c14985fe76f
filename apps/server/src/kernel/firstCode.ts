import { randomInt, timingSafeEqual } from 'node:crypto';
import { Problem } from './problem';

/** Wrong codes of one address after which it pauses, and how long at first, ms; it doubles with each wrong one after. */
const FREE_TRIES = 5;
const FIRST_PAUSE_MS = 30_000;
const LONGEST_PAUSE_MS = 60 * 60_000;
/** After so many wrong ones in all there is another code: no one, from however many addresses, gets far with one. */
const MOST_WRONG = 200;

export const newFirstCode = (): string => String(randomInt(100_000, 1_000_000));

/**
 * What the first account, or whoever brings a shop along, has to say: a code on the server's terminal. Whoever guesses
 * pauses, and nobody else with them.
 */
export class FirstCode {
  private code: string | null;
  private wrong = 0;
  private readonly callers = new Map<string, { wrong: number; until: number }>();
  private readonly now: () => number;
  private readonly onNew: (code: string) => void;

  /**
   * @param code null: nothing is asked
   * @param onNew says a code that takes the place of one that too many have guessed at
   */
  constructor(
    code: string | null,
    {
      onNew = () => undefined,
      now = () => performance.now(),
    }: { onNew?: (code: string) => void; now?: () => number } = {},
  ) {
    this.code = code;
    this.onNew = onNew;
    this.now = now;
  }

  /**
   * Whether this is the code.
   * @param who whose tries they are
   * @throws Problem 429 with the seconds to wait
   */
  is(said: string | undefined, who: string): boolean {
    if (this.code === null) return true;
    const now = this.now();
    const caller = this.callers.get(who) ?? { wrong: 0, until: -Infinity };
    if (now < caller.until) throw tooMany(Math.ceil((caller.until - now) / 1000));
    const [here, there] = [this.code, said?.trim() ?? ''].map((text) => Buffer.from(text));
    if (here!.length === there!.length && timingSafeEqual(here!, there!)) return true;
    caller.wrong += 1;
    const over = caller.wrong - FREE_TRIES;
    if (over >= 0) caller.until = now + Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** over);
    this.callers.set(who, caller);
    this.wrong += 1;
    if (this.wrong >= MOST_WRONG) this.renew();
    return false;
  }

  private renew(): void {
    this.code = newFirstCode();
    this.wrong = 0;
    this.callers.clear();
    this.onNew(this.code);
  }
}

function tooMany(retryAfter: number): Problem {
  const wait = retryAfter < 120 ? `${retryAfter} seconds` : `${Math.ceil(retryAfter / 60)} minutes`;
  return new Problem(429, 'too-fast', `Too many wrong codes. Try again in ${wait}.`, { retryAfter });
}
