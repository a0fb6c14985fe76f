import type { CheckSetup, HeightSource, MachineLearned, MadeTurn } from '@even-bed/contract';
import { learnAdjusters, type Adjuster } from '@even-bed/core';
import { feltHistory } from '@even-bed/core/level/feltText';
import { learningTurns, type TurnsSeen } from '@even-bed/core/level/learnAdjusters';
import { learnByFeel, type FeltRun } from '@even-bed/core/level/learnByFeel';
import { probeNoise } from '@even-bed/core/level/probeNoise';
import { plainAdjuster } from '@even-bed/core/level/plainAdjuster';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { lastZMark } from './noteStore';
import { lookingBack, shortText, type RoundText } from './roundHeights';

/** So many of the latest checks are looked back upon. */
const LATEST_CHECKS = 10;
/** Levels by paper that are played again for it, and events of each. */
const LATEST_RUNS = 4;
const MOST_FELT = 120;

/** What a machine's adjusters really do, from the rounds since they were last changed; null: there is no such machine. */
export async function learnedOf(db: Knex, machineId: string): Promise<MachineLearned | null> {
  const machine = await findMachine(db, machineId);
  if (!machine) return null;
  if (machine.adjusters.length < 3) return { adjusters: [], rounds: 0, felt: 0, noise: null, since: null, teach: [] };
  const adjusters = lookingDown(machine.adjusters.map(plainAdjuster), machine.seenFrom);
  const anew = await lastZMark(db, machineId, 'learn-anew');
  const checks = (await db('level_checks')
    .where({ machine_id: machineId, outcome: 'finished' })
    .where('started_at', '>=', anew?.at ?? 0)
    .orderBy('started_at', 'desc')
    .limit(LATEST_CHECKS)
    .select('id', 'setup')) as { id: string; setup: string }[];
  const held = checks.filter(({ setup }) => {
    const { said, adjusters: then } = JSON.parse(setup) as CheckSetup;
    return same(said ?? then, adjusters);
  });
  const seen = await roundsOf(
    db,
    held.map(({ id }) => id),
  );
  const heightsOf = lookingBack();
  // Read with the latest first, told with the oldest first.
  const rounds = held
    .map(({ id }) => turnsIn(seen.get(id) ?? [], adjusters, heightsOf))
    .reverse()
    .flat();
  const runs = held
    .map(({ id }) => runsIn(seen.get(id) ?? []))
    .reverse()
    .flat();
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
    noise: probeNoise(
      held.map(({ id }) =>
        (seen.get(id) ?? []).flatMap((round) => (round.source === 'felt' ? [] : [heightsOf(round) ?? []])),
      ),
    ),
    since: anew?.at ?? null,
    teach: adjusters.flatMap(({ id }, i) => (teach[i] === 0 ? [] : [{ adjusterId: id, turns: teach[i]! }])),
  };
}

interface RoundSeen extends RoundText {
  id: string;
  check_id: string;
  source: HeightSource;
  made: MadeTurn[];
}

/** The rounds of checks, each check's in order, with the turns made after them. */
async function roundsOf(db: Knex, checks: readonly string[]): Promise<Map<string, RoundSeen[]>> {
  const rows = (await db('level_rounds as r')
    .whereIn('r.check_id', checks)
    .orderBy(['r.check_id', 'r.seq'])
    .select('r.id', 'r.check_id', 'r.source', 'r.reading', shortText(db))) as Omit<RoundSeen, 'made'>[];
  const made = (await db('made_turns as m')
    .join('level_rounds as r', 'r.id', 'm.round_id')
    .whereIn('r.check_id', checks)
    .select('m.round_id', 'm.adjuster_id', 'm.turns')) as { round_id: string; adjuster_id: string; turns: number }[];
  const turns = new Map<string, MadeTurn[]>();
  for (const { round_id, adjuster_id: adjusterId, turns: by } of made)
    turns.set(round_id, [...(turns.get(round_id) ?? []), { adjusterId, turns: by }]);
  const rounds = new Map<string, RoundSeen[]>();
  for (const row of rows)
    rounds.set(row.check_id, [...(rounds.get(row.check_id) ?? []), { ...row, made: turns.get(row.id) ?? [] }]);
  return rounds;
}

/** Levels by paper in a check, in which something was turned. */
const runsIn = (rounds: readonly RoundSeen[]): FeltRun[] =>
  rounds.flatMap(({ source, raw }) => {
    const felt = source === 'felt' && raw !== null ? feltHistory(raw) : null;
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
function turnsIn(
  rounds: readonly RoundSeen[],
  adjusters: readonly Adjuster[],
  heightsOf: ReturnType<typeof lookingBack>,
): TurnsSeen[] {
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
