import type { LevelRound, MachineLearned } from '@even-bed/contract';
import { learnAdjusters, parseHeights, UnreadableHeights, type Adjuster, type HeightPoint } from '@even-bed/core';
import { feltHistory } from '@even-bed/core/level/feltText';
import { learningTurns, type TurnsSeen } from '@even-bed/core/level/learnAdjusters';
import { learnByFeel, type FeltRun } from '@even-bed/core/level/learnByFeel';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { LIMITS } from '../kernel/limits';
import { lastZMark } from './noteStore';
import { findCheck } from './store';

/** So many of the latest checks are looked back upon. */
const LATEST_CHECKS = 10;
/** Levels by paper that are played again for it, and events of each. */
const LATEST_RUNS = 4;
const MOST_FELT = 120;

/** What a machine's adjusters really do, from the rounds since they were last changed; null: there is no such machine. */
export async function learnedOf(db: Knex, machineId: string): Promise<MachineLearned | null> {
  const machine = await findMachine(db, machineId);
  if (!machine) return null;
  if (machine.adjusters.length < 3) return { adjusters: [], rounds: 0, felt: 0, since: null, teach: [] };
  const adjusters = lookingDown(machine.adjusters.map(plainAdjuster), machine.seenFrom);
  const anew = await lastZMark(db, machineId, 'learn-anew');
  const ids = (await db('level_checks')
    .where({ machine_id: machineId, outcome: 'finished' })
    .where('started_at', '>=', anew?.at ?? 0)
    .orderBy('started_at', 'desc')
    .limit(LATEST_CHECKS)
    .select('id')) as { id: string }[];
  const rounds: TurnsSeen[] = [];
  const runs: FeltRun[] = [];
  // The oldest first.
  for (const { id } of ids.reverse()) {
    const { setup, roundList } = (await findCheck(db, id))!;
    if (!same(setup.said ?? setup.adjusters, adjusters)) continue;
    rounds.push(...turnsIn(roundList, adjusters));
    runs.push(...runsIn(roundList));
  }
  const felt = runs.slice(-LATEST_RUNS);
  const learned = learnAdjusters({
    adjusters,
    rounds,
    ...(felt.length > 0 ? { likely: learnByFeel({ adjusters, runs: felt }) } : {}),
  });
  const teach = learningTurns({ adjusters, learned, done: rounds.map(({ turns }) => turns) });
  return {
    adjusters: learned,
    rounds: rounds.length,
    felt: felt.length,
    since: anew?.at ?? null,
    teach: adjusters.flatMap(({ id }, i) => (teach[i] === 0 ? [] : [{ adjusterId: id, turns: teach[i]! }])),
  };
}

/** Levels by paper in a check, in which something was turned. */
const runsIn = (rounds: readonly LevelRound[]): FeltRun[] =>
  rounds.flatMap(({ source, raw }) => {
    const felt = source === 'felt' && raw.length <= LIMITS.heightsAtOnce ? feltHistory(raw) : null;
    if (!felt?.history.some((event) => event.do === 'turn')) return [];
    const { thickness, uncertainty, history } = felt;
    return [{ gauge: { thickness, uncertainty }, history: history.slice(0, MOST_FELT) }];
  });

/** They stand where they stood, with the same thread and sense: what was learned then still holds. */
const same = (then: readonly Adjuster[], now: readonly Adjuster[]) =>
  then.length === now.length &&
  now.every(({ id, x, y, pitch, clockwise }) =>
    then.some(
      (one) => one.id === id && one.x === x && one.y === y && one.pitch === pitch && one.clockwise === clockwise,
    ),
  );

/** Turns between two readings of a check, each with the heights around it. */
function turnsIn(rounds: readonly LevelRound[], adjusters: readonly Adjuster[]): TurnsSeen[] {
  const heights = rounds.map(heightsOf);
  return rounds.slice(1).flatMap((round, i) => {
    const { made, source } = rounds[i]!;
    const [before, now] = [heights[i], heights[i + 1]];
    // What was felt rests on what its turns were thought to do: its feels teach, its heights don't.
    if (!before || !now || made.length === 0 || source === 'felt' || round.source === 'felt') return [];
    const turns = adjusters.map(({ id }) => made.find(({ adjusterId }) => adjusterId === id)?.turns ?? 0);
    return [{ before, now, turns }];
  });
}

/** Heights of a round; null where its text is long, or can no longer be read. */
function heightsOf({ raw, reading }: LevelRound): readonly HeightPoint[] | null {
  if (raw.length > LIMITS.heightsAtOnce) return null;
  try {
    return parseHeights(raw, reading).points;
  } catch (error) {
    if (error instanceof UnreadableHeights) return null;
    throw error;
  }
}
