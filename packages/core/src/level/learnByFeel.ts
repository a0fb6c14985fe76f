import { afterFeel, afterTurn, FEELS, feelShares, startFeel, type FeelEvent, type FeelGauge } from './feel';
import { ADJUSTER_WAYS, WAY_PRIOR, type AdjusterWay } from './learnAdjusters';
import type { Adjuster } from './planTurns';

/** What was felt and turned in one level by paper, in order. */
export interface FeltRun {
  gauge: FeelGauge;
  history: readonly FeelEvent[];
}

/** Shares by which another thread is tried: common neighbours of M3, M4 and M5. */
const OTHER_THREADS = [0.7, 1.4];
const STUCK = 0.05;
/** A feel is off by more than one class so often, whatever the bed: nothing rests on a single one. */
const ASTRAY = 0.01;

/**
 * How likely each adjuster is as said, of another thread, stuck or reversed, from feels before and after turns alone: each
 * run is played with the adjuster as it might be, and weighed by how well that foretells what was felt. One odd adjuster at
 * a time is thought of.
 * @param runs levels by paper on this bed with these adjusters
 * @returns by adjuster, in their order; without runs, what is thought beforehand
 * @throws DegenerateAdjusters adjusters that can't tilt a plate
 */
export function learnByFeel({
  adjusters,
  runs,
}: {
  adjusters: readonly Adjuster[];
  runs: readonly FeltRun[];
}): Record<AdjusterWay, number>[] {
  const plain = logOf(adjusters, runs);
  const odd = ADJUSTER_WAYS.filter((way) => way !== 'as-said');
  const tried = adjusters.map(({ id }) =>
    odd.map((way) => {
      const shares = way === 'other-thread' ? OTHER_THREADS : [way === 'stuck' ? STUCK : -1];
      const logs = shares.map((share) => logOf(withShare(adjusters, id, share), runs));
      return { way, log: Math.log(WAY_PRIOR[way] / WAY_PRIOR['as-said']) + logMean(logs) };
    }),
  );
  const best = Math.max(plain, ...tried.flat().map(({ log }) => log));
  const total = Math.exp(plain - best) + tried.flat().reduce((sum, { log }) => sum + Math.exp(log - best), 0);
  return tried.map((ways) => {
    const likely = Object.fromEntries(ways.map(({ way, log }) => [way, Math.exp(log - best) / total])) as Record<
      AdjusterWay,
      number
    >;
    return { ...likely, 'as-said': 1 - odd.reduce((sum, way) => sum + likely[way], 0) };
  });
}

const logMean = (logs: readonly number[]) => {
  const best = Math.max(...logs);
  return best + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - best), 0) / logs.length);
};

const withShare = (adjusters: readonly Adjuster[], id: string, share: number): Adjuster[] =>
  adjusters.map((one) =>
    one.id === id
      ? {
          ...one,
          pitch: one.pitch * Math.abs(share),
          clockwise: share < 0 ? (one.clockwise === 'raises' ? 'lowers' : 'raises') : one.clockwise,
        }
      : one,
  );

/** Log of how well these adjusters foretell what was felt. */
function logOf(adjusters: readonly Adjuster[], runs: readonly FeltRun[]): number {
  let log = 0;
  for (const { gauge, history } of runs) {
    let state = startFeel({ adjusters, gauge });
    for (const event of history) {
      if (event.do === 'turn') {
        state = afterTurn(state, event);
        continue;
      }
      const share = feelShares(state, event.at)[FEELS.indexOf(event.feel)]!;
      log += Math.log((1 - ASTRAY) * share + ASTRAY / FEELS.length);
      state = afterFeel(state, event);
    }
  }
  return log;
}
