import type { Slot } from '@even-bed/core';
import type { Knex } from 'knex';
import { pageFrom } from '../kernel/page';

/** When a surface was fitted where it lies now, epoch ms; null: it lies on no machine. */
export const fittedAt = async (db: Knex, surfaceId: string): Promise<number | null> =>
  (
    (await db('mounts').where({ surface_id: surfaceId, to_at: null }).first('fitted_at')) as
      { fitted_at: number } | undefined
  )?.fitted_at ?? null;

/** Whether something lies in a machine's slot now. */
export const isTaken = async (db: Knex, machineId: string, slot: Slot): Promise<boolean> =>
  (await db('mounts').where({ machine_id: machineId, slot, to_at: null }).first('seq')) !== undefined;

/** A span of time for which something lay in a machine's slot, one side up. */
export interface MountSpan {
  seq: number;
  surfaceTag: string;
  machineName: string;
  slot: string;
  sideUp: string;
  from: number;
  /** Null: it lies there now. */
  until: number | null;
  personName: string | null;
}

/** What lay where and when, the latest first, a page at a time. */
export async function listSpans(db: Knex, { limit, after }: { limit: number; after: string | undefined }) {
  const query = db('mounts as o')
    .join('surfaces as s', 's.id', 'o.surface_id')
    .join('machines as m', 'm.id', 'o.machine_id')
    .leftJoin('people as p', 'p.id', 'o.fitted_by')
    .orderBy('o.seq', 'desc')
    .limit(limit + 1)
    .select({
      seq: 'o.seq',
      surfaceTag: 's.tag',
      machineName: 'm.name',
      slot: 'o.slot',
      sideUp: 'o.side_up',
      from: 'o.from_at',
      until: 'o.to_at',
      personName: 'p.name',
    });
  if (after !== undefined) void query.where('o.seq', '<', Number(after));
  return pageFrom((await query) as MountSpan[], limit, ({ seq }) => String(seq));
}
