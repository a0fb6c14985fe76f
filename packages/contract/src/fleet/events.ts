import { eventsOf } from '../kit/event';
import type { MachineFacts } from './records';

/** What was changed, old and new. */
export type Changed<T> = { [Key in keyof T]?: { from: T[Key] | null; to: T[Key] } };

export interface FleetEvents {
  'area-added': { areaId: string; name: string; position: number };
  'area-changed': { areaId: string; name: string; position: number; was: string };
  'machine-added': { facts: MachineFacts; areaName: string };
  'machine-changed': { changed: Changed<MachineFacts> };
}

export const fleetEvents = eventsOf<FleetEvents>()({
  'area-added': { touches: ['Area', 'Machine'] },
  'area-changed': { touches: ['Area', 'Machine'] },
  'machine-added': { touches: ['Machine'] },
  'machine-changed': { touches: ['Machine'] },
});
