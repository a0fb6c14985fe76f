import type { Life } from './surfaceKind';

const DAY_MS = 86_400_000;

export interface LifeUse {
  /** Prints and grams on the side in question since it was new or renewed. */
  prints: number;
  grams: number;
  /** Epoch ms since when it serves; null when not known. */
  since: number | null;
  now: number;
}

/** How much of a surface's life is used, in its own unit. */
export interface LifeLeft extends Life {
  used: number;
  /** Until the expected end; below 0 it has outlived it. */
  left: number;
  /** ready: before the band · due: in the band of its end · over: past it. */
  state: 'ready' | 'due' | 'over';
}

/**
 * Where a surface stands in its expected life.
 * @returns null when there is nothing to count by: no expected life, or a life in days without a first day
 * @example lifeOf({ unit: 'prints', expected: 300, spread: 60 }, { prints: 250, grams: 0, since: null, now: 0 })!.state // 'due'
 */
export function lifeOf(life: Life | null, { prints, grams, since, now }: LifeUse): LifeLeft | null {
  if (life === null || !(life.expected > 0)) return null;
  if (life.unit === 'days' && since === null) return null;
  const used = life.unit === 'prints' ? prints : life.unit === 'grams' ? grams : Math.max(0, (now - since!) / DAY_MS);
  const state = used > life.expected + life.spread ? 'over' : used >= life.expected - life.spread ? 'due' : 'ready';
  return { ...life, used, left: life.expected - used, state };
}
