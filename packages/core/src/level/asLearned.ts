import type { AdjusterLearned } from './learnAdjusters';
import type { Adjuster } from './planTurns';

/** Shares that a plan goes by: an adjuster that moves less than half is stuck, and is freed, not turned ten times as far. */
const LEAST = 0.5;
const MOST = 2;
/** And known so well: one standard deviation of the share. */
const KNOWN = 0.12;

/** An adjuster that a plan takes otherwise than it is written down. */
export interface TakenOtherwise {
  id: string;
  /** What a turn moves as a share of what its thread says; − the other way. */
  share: number;
}

/**
 * Adjusters as a plan takes them: those that are known well enough to do something else than is written down, by what they do.
 * Stuck ones stay as they are written: more of the same turn would only wind up what holds them.
 * @returns the adjusters in their order, and those that are taken otherwise
 */
export function asLearned(
  adjusters: readonly Adjuster[],
  learned: readonly AdjusterLearned[],
): { adjusters: Adjuster[]; otherwise: TakenOtherwise[] } {
  const otherwise: TakenOtherwise[] = [];
  const taken = adjusters.map((adjuster): Adjuster => {
    const known = learned.find(({ id }) => id === adjuster.id);
    if (!known || (known.way !== 'other-thread' && known.way !== 'reversed')) return { ...adjuster };
    const size = Math.abs(known.share);
    if (!(size >= LEAST && size <= MOST && known.uncertainty <= KNOWN)) return { ...adjuster };
    // As much as its thread says: only the way round.
    const share = known.way === 'reversed' && Math.abs(size - 1) < known.uncertainty ? -1 : known.share;
    otherwise.push({ id: adjuster.id, share });
    return {
      ...adjuster,
      pitch: adjuster.pitch * Math.abs(share),
      clockwise: share > 0 ? adjuster.clockwise : adjuster.clockwise === 'raises' ? 'lowers' : 'raises',
    };
  });
  return { adjusters: taken, otherwise };
}
