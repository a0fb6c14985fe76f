import type { QuarterTurn, Side, Slot, SurfaceEvent } from '@even-bed/core';
import type { Knex } from 'knex';

/** A time in which a surface lay on a machine, as it lay there. */
export interface Span {
  surface_id: string;
  machine_id: string;
  slot: Slot;
  side_up: Side;
  turned: QuarterTurn;
  fitted_at: number;
}

/** Where a surface lies now; null: on no machine. */
export const openSpan = async (db: Knex, surfaceId: string): Promise<Span | null> =>
  ((await db('mounts').where({ surface_id: surfaceId, to_at: null }).first()) as Span | undefined) ?? null;

/** Where a surface lay at a time and was taken off since; null: it lay on no machine then, or has not moved. */
export const endedSpan = async (db: Knex, surfaceId: string, since: number): Promise<Span | null> =>
  ((await db('mounts')
    .where({ surface_id: surfaceId })
    .where('to_at', '>=', since)
    .where('fitted_at', '<', since)
    .orderBy('to_at', 'desc')
    .first()) as Span | undefined) ?? null;

/** What was taken off to make room for a span, and lies on no machine now. */
export const gaveWayTo = async (db: Knex, { surface_id, machine_id, slot, fitted_at }: Span): Promise<Span[]> =>
  (await db('mounts')
    .where({ machine_id, slot, to_at: fitted_at })
    .whereNot({ surface_id })
    .whereNotIn('surface_id', db('mounts').select('surface_id').whereNull('to_at'))) as Span[];

/** Whether something lies in the place of a span now. */
export const isTaken = async (db: Knex, { machine_id, slot }: Span): Promise<boolean> =>
  (await db('mounts').where({ machine_id, slot, to_at: null }).first()) !== undefined;

/** Putting a surface back as it lay: place, side and turn. */
export const mountedAs = ({ machine_id, slot, side_up, turned }: Span, at: number): SurfaceEvent => ({
  kind: 'mounted',
  at,
  machineId: machine_id,
  slot,
  sideUp: side_up,
  turned,
});
