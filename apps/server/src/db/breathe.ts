import { setImmediate } from 'node:timers';

/** How long the thread that serves everybody may go from query to query before others get their turn, ms. */
const AT_A_STRETCH = 10;
let breathedAt = -Infinity;

/** As `breathe`, where the thread has gone on for a while since it last did. */
export async function breatheNowAndThen(): Promise<void> {
  if (performance.now() - breathedAt < AT_A_STRETCH) return;
  await breathe();
  breathedAt = performance.now();
}

/** Lets whatever waits have its turn: SQLite answers at once, so that a loop of queries would never give one. */
export const breathe = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
