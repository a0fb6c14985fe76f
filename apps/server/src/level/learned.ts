import type { LevelRound, MachineLearned } from '@even-bed/contract';
import { learnAdjusters, parseHeights, UnreadableHeights, type Adjuster, type HeightPoint } from '@even-bed/core';
import { learningTurns, type TurnsSeen } from '@even-bed/core/level/learnAdjusters';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { LIMITS } from '../kernel/limits';
import { findCheck } from './store';

/** So many of the latest checks are looked back upon. */
const LATEST_CHECKS = 10;

/** What a machine's adjusters really do, from the rounds since they were last changed; null: there is no such machine. */
export async function learnedOf(db: Knex, machineId: string): Promise<MachineLearned | null> {
  const machine = await findMachine(db, machineId);
  if (!machine) return null;
  if (machine.adjusters.length < 3) return { adjusters: [], rounds: 0, teach: [] };
  const adjusters = lookingDown(
    machine.adjusters.map(({ id, x, y, pitch, clockwise }) => ({ id, x, y, pitch, clockwise })),
    machine.seenFrom,
  );
  const ids = (await db('level_checks')
    .where({ machine_id: machineId, outcome: 'finished' })
    .orderBy('started_at', 'desc')
    .limit(LATEST_CHECKS)
    .select('id')) as { id: string }[];
  const rounds: TurnsSeen[] = [];
  // The oldest first.
  for (const { id } of ids.reverse()) {
    const check = (await findCheck(db, id))!;
    if (same(check.setup.adjusters, adjusters)) rounds.push(...turnsIn(check.roundList, adjusters));
  }
  const learned = learnAdjusters({ adjusters, rounds });
  const teach = learningTurns({ adjusters, learned, done: rounds.map(({ turns }) => turns) });
  return {
    adjusters: learned,
    rounds: rounds.length,
    teach: adjusters.flatMap(({ id }, i) => (teach[i] === 0 ? [] : [{ adjusterId: id, turns: teach[i]! }])),
  };
}

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
    // What was felt rests on what its turns were thought to do: it teaches nothing of them.
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
