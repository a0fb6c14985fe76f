import { MOST_MAP_POINTS, type BedMap, type MachineMaps } from '@even-bed/contract';
import type { HeightPoint, QuarterTurn, Side } from '@even-bed/core';
import { thinMap } from '@even-bed/core/level/thinMap';
import { probeNoise } from '@even-bed/core/level/probeNoise';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { lookingBack, shortText, type RoundText } from './roundHeights';

/** So many of the latest maps are given out. */
const LATEST = 24;

interface RoundRow extends RoundText {
  id: string;
  check_id: string;
  taken_at: number;
  source: BedMap['source'];
}
interface TopRow {
  surface_id: string;
  tag: string;
  turned: QuarterTurn;
  side_up: Side;
  from_at: number;
  to_at: number | null;
}

/** The maps of a machine's bed with the sheet that lay on it; null: there is no such machine. */
export async function mapsOf(db: Knex, machineId: string): Promise<MachineMaps | null> {
  if (!(await findMachine(db, machineId))) return null;
  const rounds = (await db('level_rounds as r')
    .join('level_checks as c', 'c.id', 'r.check_id')
    .where('c.machine_id', machineId)
    .whereNot('r.source', 'felt')
    .orderBy([
      { column: 'r.taken_at', order: 'desc' },
      { column: 'r.id', order: 'desc' },
    ])
    .limit(LATEST)
    .select('r.id', 'r.check_id', 'r.taken_at', 'r.source', 'r.reading', shortText(db))) as RoundRow[];
  const tops = (await db('mounts as m')
    .join('surfaces as s', 's.id', 'm.surface_id')
    .where({ 'm.machine_id': machineId, 'm.slot': 'top' })
    .orderBy('m.from_at', 'desc')
    .select('m.surface_id', 's.tag', 'm.turned', 'm.side_up', 'm.from_at', 'm.to_at')) as TopRow[];
  const heightsOf = lookingBack();
  const items = rounds.flatMap(({ id, check_id: checkId, taken_at: at, source, ...text }): BedMap[] => {
    const points = heightsOf(text);
    if (points === null || points.length < 3) return [];
    const top = tops.find(({ from_at, to_at }) => from_at <= at && (to_at === null || to_at > at));
    return [
      {
        id,
        checkId,
        at,
        source,
        points: thinMap(points, MOST_MAP_POINTS),
        sheet: top ? { id: top.surface_id, tag: top.tag, turned: top.turned, side: top.side_up } : null,
      },
    ];
  });
  return { items, noise: noiseOf(items) };
}

/** From the maps of each check that follow each other. */
function noiseOf(latestFirst: readonly BedMap[]): number | null {
  const checks = new Map<string, HeightPoint[][]>();
  for (const { checkId, points } of [...latestFirst].reverse())
    checks.set(checkId, [...(checks.get(checkId) ?? []), points]);
  return probeNoise([...checks.values()]);
}
