import type { MachineLevels, MachineZero } from '@even-bed/contract';
import type { LevelNoteResult, MeasuredLevel } from '@even-bed/core';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { feltHistory } from '@even-bed/core/level/feltText';
import { levelDrift, lookAgain, type DriftSpan, type LevelEvent } from '@even-bed/core/level/levelDrift';
import { probeNoise } from '@even-bed/core/level/probeNoise';
import { zeroStands } from '@even-bed/core/level/zeroStands';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { zeroEvents } from '../fleet/zeroStore';
import { lastZMark } from './noteStore';
import { lookingBack, shortText, type RoundText } from './roundHeights';

/** So many of the latest levels are looked back upon. */
const LATEST = 40;
/** So many of the latest checks tell the probe's scatter. */
const NOISE_CHECKS = 10;
const DAY_MS = 86_400_000;

/** Home and zero of a machine, and what has changed since zero was set; null: there is no such machine. */
export async function zeroOf(db: Knex, machineId: string): Promise<MachineZero | null> {
  if (!(await findMachine(db, machineId))) return null;
  const [home, zero] = [await lastZMark(db, machineId, 'home'), await lastZMark(db, machineId, 'zero')];
  const events = zero === null ? [] : await eventsSince(db, machineId, zero.at);
  return { home, zero, stands: zeroStands(zero?.at ?? null, events) };
}

const eventsSince = async (db: Knex, machineId: string, since: number) =>
  (await zeroEvents(db, new Map([[machineId, since]]))).get(machineId)!;

interface CheckLine {
  id: string;
  started_at: number;
  ended_at: number;
  before_range: number;
  after_range: number;
  aim: number;
}

/** A machine's level over time, whatever the way, and when to look again; null: there is no such machine. */
export async function levelsOf(db: Knex, machineId: string, now: number): Promise<MachineLevels | null> {
  const machine = await findMachine(db, machineId);
  if (!machine) return null;
  const checks = (await db('level_checks')
    .where({ machine_id: machineId, outcome: 'finished' })
    .orderBy('ended_at', 'desc')
    .limit(LATEST)
    .select('id', 'started_at', 'ended_at', 'before_range', 'after_range', 'aim')) as CheckLine[];
  const notes = (await db('level_notes')
    .where({ machine_id: machineId, withdrawn_at: null })
    .orderBy('at', 'desc')
    .limit(LATEST)
    .select('id', 'at', 'way', 'result')) as { id: string; at: number; way: MeasuredLevel['way']; result: string }[];
  const rounds = await roundsOf(db, checks);
  // The latest say how the probe is now.
  const noise = noiseOf([...rounds.values()].slice(0, NOISE_CHECKS));
  const items = [...checks.map((check) => ofCheck(check, rounds.get(check.id)!.at(-1), noise)), ...notes.map(ofNote)]
    .sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1))
    .slice(0, LATEST);
  const aim = aimOf(machine);
  const spans = spansOf(checks);
  const levelledAt = items[0]?.at ?? null;
  const events = levelledAt === null ? [] : await levelEvents(db, machineId, levelledAt);
  const last = checks[0];
  const left = last && last.ended_at === levelledAt ? last.after_range : null;
  const again = lookAgain({ levelledAt, events, drift: levelDrift(spans), left, aim, spans: spans.length, now });
  return { items, again };
}

/** From the end of each check to the beginning of the next. */
const spansOf = (latestFirst: readonly CheckLine[]): DriftSpan[] =>
  latestFirst.slice(0, -1).map((check, i) => {
    const before = latestFirst[i + 1]!;
    return {
      left: before.after_range,
      found: check.before_range,
      days: Math.max(0, (check.started_at - before.ended_at) / DAY_MS),
    };
  });

interface RoundLine extends RoundText {
  check_id: string;
  source: string;
}

/** The rounds of checks, each check's in order. */
async function roundsOf(db: Knex, checks: readonly CheckLine[]): Promise<Map<string, RoundLine[]>> {
  const rows = (await db('level_rounds as r')
    .whereIn(
      'r.check_id',
      checks.map(({ id }) => id),
    )
    .orderBy(['r.check_id', 'r.seq'])
    .select('r.check_id', 'r.source', 'r.reading', shortText(db))) as RoundLine[];
  const rounds = new Map<string, RoundLine[]>(checks.map(({ id }) => [id, []]));
  for (const row of rows) rounds.get(row.check_id)!.push(row);
  return rounds;
}

/** Standard deviation of a reading of the machine's probe, from all that it read twice, mm; null: nothing says it. */
const noiseOf = (rounds: Iterable<RoundLine[]>): number | null => {
  const heightsOf = lookingBack();
  return probeNoise(
    [...rounds].map((list) => list.flatMap((round) => (round.source === 'felt' ? [] : [heightsOf(round) ?? []]))),
  );
};

function ofCheck(
  { id, ended_at: at, after_range: range, aim }: CheckLine,
  last: RoundLine | undefined,
  noise: number | null,
): MeasuredLevel {
  const felt = last?.source === 'felt';
  const scatter = felt ? FELT + ((last.raw && feltHistory(last.raw)?.uncertainty) || 0) : noise;
  return {
    id,
    kind: 'check',
    at,
    way: felt ? 'felt' : last?.source === 'typed' ? 'typed' : 'probe',
    // Highest and lowest each scatter: twice the root of two, for nineteen in twenty.
    least: scatter === null ? range : Math.max(0, range - 2 * Math.SQRT2 * scatter),
    most: scatter === null ? range : range + 2 * Math.SQRT2 * scatter,
    verdict: range <= aim ? 'even' : 'uneven',
    aim,
  };
}

/** A gap that drags is known to a third of its class, mm. Common practice. */
const FELT = 0.012;

function ofNote({
  id,
  at,
  way,
  result,
}: {
  id: string;
  at: number;
  way: MeasuredLevel['way'];
  result: string;
}): MeasuredLevel {
  const { verdict, range } = JSON.parse(result) as LevelNoteResult;
  return { id, kind: 'note', at, way, least: range?.least ?? null, most: range?.most ?? null, verdict, aim: null };
}

/** What has happened since that moves a level. */
async function levelEvents(db: Knex, machineId: string, since: number): Promise<LevelEvent[]> {
  const prints = (await db('prints')
    .where({ machine_id: machineId, withdrawn_at: null })
    .where('ended_at', '>', since)
    .andWhere((q) => void q.where('release', 'forced').orWhereIn('failure', ['let-go', 'lifted-corner', 'foot']))
    .select('ended_at', 'release', 'failure')) as {
    ended_at: number;
    release: string | null;
    failure: string | null;
  }[];
  const events = prints.flatMap(({ ended_at: at, release, failure }): LevelEvent[] => [
    ...(release === 'forced' ? [{ at, kind: 'forced-off' } as const] : []),
    ...(failure === null ? [] : [{ at, kind: 'failed', how: failure } as const]),
  ]);
  // How a print came off, as a tap on the piece or a job says it: where it lay on this machine then.
  const forced = (await db('inspections as i')
    .leftJoin('mounts as m', (on) =>
      on
        .on('m.surface_id', 'i.surface_id')
        .andOn('m.from_at', '<=', 'i.at')
        .andOn((till) => void till.onNull('m.to_at').orOn('m.to_at', '>=', 'i.at')),
    )
    .where({ 'i.card': 'release', 'i.code': 'force' })
    .where('i.at', '>', since)
    .andWhere((q) => void q.where('i.machine_id', machineId).orWhere('m.machine_id', machineId))
    .distinct('i.id', 'i.at')) as { at: number }[];
  for (const { at } of forced) events.push({ at, kind: 'forced-off' });
  for (const { at, what } of await eventsSince(db, machineId, since)) {
    if (what.kind === 'fitted')
      events.push({ at, kind: what.slot === 'film' ? 'film' : what.slot === 'top' ? 'stack' : 'refit' });
    if (what.kind === 'layers') events.push({ at, kind: 'stack' });
  }
  return events;
}
