import { afterFeel, afterTurn, asWritten, FEELS, feelShares, startFeel, type FeelEvent, type FeelGauge } from './feel';
import { ADJUSTER_WAYS, ALL_ALIKE, WAY_PRIOR, type AdjusterWay } from './learnAdjusters';
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
 * a time is thought of, and all of them alike.
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
  const odd = ADJUSTER_WAYS.filter((way) => way !== 'as-said');
  const tried = (way: AdjusterWay, ids: readonly string[], likely: number) => {
    const shares = way === 'other-thread' ? OTHER_THREADS : [way === 'stuck' ? STUCK : -1];
    const logs = shares.map((share) => logOf(withShare(adjusters, ids, share), runs));
    return { way, ids, log: Math.log(likely / WAY_PRIOR['as-said']) + logMean(logs) };
  };
  const everyId = adjusters.map(({ id }) => id);
  const all = [
    { way: 'as-said' as const, ids: [] as string[], log: logOf(adjusters, runs) },
    ...adjusters.flatMap(({ id }) => odd.map((way) => tried(way, [id], WAY_PRIOR[way]))),
    ...(['reversed', 'other-thread'] as const).map((way) =>
      tried(
        way,
        everyId,
        ALL_ALIKE.reduce((sum, one) => sum + (one.way === way ? one.likely : 0), 0),
      ),
    ),
  ];
  const best = Math.max(...all.map(({ log }) => log));
  const total = all.reduce((sum, { log }) => sum + Math.exp(log - best), 0);
  return adjusters.map(({ id }) => {
    const likely = Object.fromEntries(
      ADJUSTER_WAYS.map((way) => [
        way,
        all.reduce((sum, one) => sum + (one.way === way && one.ids.includes(id) ? Math.exp(one.log - best) : 0), 0) /
          total,
      ]),
    ) as Record<AdjusterWay, number>;
    return { ...likely, 'as-said': 1 - odd.reduce((sum, way) => sum + likely[way], 0) };
  });
}

const logMean = (logs: readonly number[]) => {
  const best = Math.max(...logs);
  return best + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - best), 0) / logs.length);
};

const withShare = (adjusters: readonly Adjuster[], ids: readonly string[], share: number): Adjuster[] =>
  adjusters.map((one) =>
    ids.includes(one.id)
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
    let state = asWritten(startFeel({ adjusters, gauge }));
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
