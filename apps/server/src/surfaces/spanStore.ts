import type { Slot } from '@even-bed/core';
import type { Knex } from 'knex';

/** When a surface was fitted where it lies now, epoch ms; null: it lies on no machine. */
export const fittedAt = async (db: Knex, surfaceId: string): Promise<number | null> =>
  (
    (await db('mounts').where({ surface_id: surfaceId, to_at: null }).first('fitted_at')) as
      { fitted_at: number } | undefined
  )?.fitted_at ?? null;

/** Whether something lies in a machine's slot now. */
export const isTaken = async (db: Knex, machineId: string, slot: Slot): Promise<boolean> =>
  (await db('mounts').where({ machine_id: machineId, slot, to_at: null }).first('seq')) !== undefined;
