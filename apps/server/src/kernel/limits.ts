import { Problem } from './problem';

/**
 * What may be asked of the server, in one place. Each is checked before anything costly runs: bytes while they come in,
 * nodes before a schema looks at them, pieces and cells before a sum begins, time while it runs.
 */
export const LIMITS = {
  /** Bytes of a JSON body, where a route says no other number. */
  body: 64 * 1024,
  /** Bytes of a JSON body on a route that anyone may use. */
  openBody: 4 * 1024,
  /** Values and keys in a JSON body, where a route says no other number. */
  nodes: 5_000,
  /** Nesting of a JSON body. */
  depth: 20,
  /** Past so many nodes a body's faults are told one at a time. */
  nodesForAllFaults: 500,
  /** Secrets hashed at once, and waiting for it. */
  hashes: 2,
  hashesWaiting: 8,
  /** Requests that are answered at once, of all and of one caller, and how many of one caller wait. */
  requests: { atOnce: 64, each: 3, waitingEach: 2_000 },
  /** Long sums go to the worker one at a time; how many of one caller wait for it, and how long one may take. */
  heavy: { atOnce: 1, each: 1, waitingEach: 4 },
  heavyMs: 20_000,
  /** How long the worker waits for something to do before it gives its memory back. */
  heavyIdleMs: 5_000,
  /** Photos are read one at a time. */
  photos: { atOnce: 1, each: 1, waitingEach: 12 },
  /** Seconds that reading one photo may take. */
  photoSeconds: 8,
  /** Pixels of a photo: of one that is read line by line, that is unpacked as a whole, that comes in passes. */
  photoPixels: 60_000_000,
  photoPixelsWhole: 16_000_000,
  photoPixelsInPasses: 9_000_000,
  /** Memory of the worker, MB. */
  heavyMb: 384,
  /** Text of heights up to this many characters is read at once, longer text in the worker. */
  heightsAtOnce: 8_000,
  /** Characters of kept heights that one look back reads again: some two hundred ordinary maps. */
  heightsLookedBack: 150_000,
  /** Readings of one level check, and characters of all their texts. */
  rounds: 60,
  roundsText: 4_000_000,
  /** Events of one job: each new one is checked by playing all of them again. */
  jobEvents: 800,
  /** Answer of a machine's console as a whole, bytes. */
  consoleAnswer: 4 * 1024 * 1024,
  /** Lines of a list between which others get their turn. */
  linesAtOnce: 250,
  /** Requests of one session or token: at once, and given back a second. */
  paceKnown: { burst: 1_500, perSecond: 50 },
  /** Requests of one address that is not signed in. */
  paceUnknown: { burst: 400, perSecond: 10 },
  /** Listeners that follow the shop's events at once. */
  streams: 200,
  /** Of these, of one person or program. */
  streamsEach: 12,
  /** Days for which the answer of a write is kept for its repetition. */
  writesKeptDays: 30,
} as const;

/**
 * Refuses a body of more values and keys, or deeper, than a route takes; a walk that ends as soon as that is known.
 * @throws Problem 413
 */
export function refuseTooMuch(body: unknown, most: number): number {
  const stack: [value: unknown, depth: number][] = [[body, 0]];
  let nodes = 0;
  while (stack.length > 0) {
    const [value, depth] = stack.pop()!;
    if (++nodes > most) throw new Problem(413, 'too-much', `That holds more than ${most} values. Send it in parts.`);
    if (value === null || typeof value !== 'object') continue;
    if (depth >= LIMITS.depth) throw new Problem(413, 'too-deep', 'That is nested deeper than anything here.');
    for (const part of Array.isArray(value) ? value : Object.values(value)) {
      stack.push([part, depth + 1]);
      if (stack.length > most)
        throw new Problem(413, 'too-much', `That holds more than ${most} values. Send it in parts.`);
    }
  }
  return nodes;
}
