import type { SurfaceEvent } from '@even-bed/core';
import { eventsOf, type EventFacts } from '../kit/event';
import type { PlainLayer, SurfaceFacts, SurfaceKindFacts } from './records';

/** What happened to a surface, and what its kind was then. */
export interface Happened<Kind extends SurfaceEvent['kind']> {
  event: Extract<SurfaceEvent, { kind: Kind }>;
  kindName: string;
  sides: string[];
}

/** Lengths in mm. */
export interface SurfaceEvents {
  'kind-added': { kindId: string; to: SurfaceKindFacts };
  'kind-changed': { kindId: string; from: SurfaceKindFacts; to: SurfaceKindFacts };
  'stack-changed': { from: Pick<PlainLayer, 'name' | 'under' | 'thickness'>[]; to: PlainLayer[] };
  'surface-added': Happened<'added'>;
  /** `measuredIn`: the job in which calipers said how thick it is; null: a person changed its facts. */
  'surface-changed': { from: SurfaceFacts; to: SurfaceFacts; measuredIn: string | null };
  'surface-mounted': Happened<'mounted'>;
  'surface-taken-off': Happened<'taken-off'>;
  'surface-moved': Happened<'moved'>;
  'surface-turned': Happened<'turned'>;
  'surface-held': Happened<'held'>;
  'surface-hold-cut': Happened<'hold-cut'>;
  'surface-work-asked': Happened<'work-asked'>;
  'surface-work-done': Happened<'work-done'>;
  'surface-work-undone': Happened<'work-undone'>;
  'surface-retired': Happened<'retired'>;
  'surface-brought-back': Happened<'brought-back'>;
  'offset-kept': { offsetId: string; offset: number; weight: number; note: string };
  'offset-withdrawn': { offsetId: string; offset: number };
}

const surface: EventFacts = { touches: ['Surface', 'Stack', 'Machine'] };

export const surfaceEvents = eventsOf<SurfaceEvents>()({
  'kind-added': { touches: ['Kind'] },
  'kind-changed': { touches: ['Kind', 'Surface', 'Stack'] },
  'stack-changed': { touches: ['Stack'] },
  'surface-added': surface,
  'surface-changed': surface,
  'surface-mounted': surface,
  'surface-taken-off': surface,
  'surface-moved': surface,
  'surface-turned': surface,
  'surface-held': surface,
  'surface-hold-cut': surface,
  'surface-work-asked': surface,
  'surface-work-done': surface,
  'surface-work-undone': surface,
  'surface-retired': surface,
  'surface-brought-back': surface,
  'offset-kept': { touches: ['Offset'] },
  'offset-withdrawn': { touches: ['Offset'] },
});
