import type { Adjuster } from './planTurns';

/** From where a technician looks at the adjusters: down on the bed, or up at the knobs from below. */
export type SeenFrom = 'above' | 'below';

/**
 * Adjusters as planTurns wants them, looking down, from the sense a technician wrote down while looking from somewhere.
 * Seen from below, clockwise is anticlockwise from above.
 * @example lookingDown([{ id, x, y, pitch, clockwise: 'lowers' }], 'below')[0].clockwise // 'raises'
 */
export function lookingDown(adjusters: readonly Adjuster[], seenFrom: SeenFrom): Adjuster[] {
  if (seenFrom === 'above') return adjusters.map((adjuster) => ({ ...adjuster }));
  return adjusters.map((adjuster) => ({
    ...adjuster,
    // A motor has no side from which it is seen.
    clockwise: (adjuster.clockwise === 'raises') === (adjuster.motor === true) ? 'raises' : 'lowers',
  }));
}

/**
 * A turn, + clockwise looking down, as the technician sees it: the sign turns over from below.
 * @example turnsAsSeen(0.25, 'below') // -0.25
 */
export function turnsAsSeen(turns: number, seenFrom: SeenFrom): number {
  return (seenFrom === 'above' ? turns : -turns) + 0;
}
