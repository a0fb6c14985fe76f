import { applySurfaceEvent, ImpossibleEvent, isHeld, type SurfaceEvent, type SurfaceState } from './surfaceState';

/** What was written down of a surface, and how it stood right before. */
export interface RecordedEvent {
  event: SurfaceEvent;
  was: SurfaceState;
}

/**
 * The events that bring a surface back to how it stood before one event, in their order.
 * @param now the surface as it stands
 * @param at epoch ms of the taking back
 * @param why stands where an event wants a reason
 * @throws ImpossibleEvent somebody has changed since what the event had changed
 */
export function takeBack({ event, was }: RecordedEvent, now: SurfaceState, at: number, why: string): SurfaceEvent[] {
  switch (event.kind) {
    case 'mounted':
      if (now.where.kind !== 'machine' || now.where.machineId !== event.machineId || now.where.slot !== event.slot)
        throw changed('It lies elsewhere by now.');
      return [{ kind: 'taken-off', at, place: was.where.kind === 'rack' ? was.where.place : '' }];
    case 'taken-off':
      if (now.where.kind === 'machine') throw changed('It was put on a machine since.');
      return mountedAs(was, at);
    case 'moved':
      if (now.where.kind === 'machine' || now.where.place !== event.place) throw changed('It lies elsewhere by now.');
      return was.where.kind === 'rack' ? [{ kind: 'moved', at, place: was.where.place }] : [];
    case 'turned':
      if (now.where.kind !== 'machine' || now.where.sideUp !== event.sideUp || now.where.turned !== event.turned)
        throw changed('It lies otherwise by now.');
      return was.where.kind === 'machine'
        ? [{ kind: 'turned', at, sideUp: was.where.sideUp, turned: was.where.turned }]
        : [];
    case 'held':
      if (now.hold?.kind !== event.hold || now.hold.until !== event.until) throw changed('Its hold was changed since.');
      return [...(isHeld(now, at) ? [{ kind: 'hold-cut' as const, at, reason: why }] : []), ...heldAs(was, at)];
    case 'hold-cut':
      if (isHeld(now, at)) throw changed('It was put on hold since.');
      return heldAs(was, at);
    case 'work-asked':
      if (now.awaiting !== event.what) throw changed('What it waits for was changed since.');
      return [{ kind: 'work-undone', at, awaiting: was.awaiting, reason: why }];
    case 'work-done':
      if (now.awaiting !== null) throw changed('Work was asked of it since.');
      return [{ kind: 'work-undone', at, awaiting: was.awaiting, reason: why }];
    case 'retired': {
      if (now.retired !== event.why) throw changed('It was brought back since.');
      const place = was.where.kind === 'rack' ? was.where.place : '';
      return [
        { kind: 'brought-back', at, why, place },
        ...mountedAs(was, at),
        ...heldAs(was, at),
        ...(was.awaiting === null ? [] : [{ kind: 'work-asked' as const, at, what: was.awaiting }]),
      ];
    }
    case 'added':
    case 'brought-back':
    case 'work-undone':
      throw changed('This is not taken back by undoing a step.');
  }
}

/** Whether a surface stands as before an event, its time and a hold that has run out apart. */
export function standsAs(was: SurfaceState, now: SurfaceState, at: number): boolean {
  const seen = ({ where, awaiting, retired, ...state }: SurfaceState) =>
    JSON.stringify([where, awaiting, retired, isHeld(state, at) ? [state.hold!.kind, state.hold!.until] : null]);
  return seen(was) === seen(now);
}

const changed = (message: string) => new ImpossibleEvent('no-change', message);

function mountedAs({ where }: SurfaceState, at: number): SurfaceEvent[] {
  if (where.kind === 'rack') return [];
  const { machineId, slot, sideUp, turned } = where;
  return [{ kind: 'mounted', at, machineId, slot, sideUp, turned }];
}

function heldAs(was: SurfaceState, at: number): SurfaceEvent[] {
  if (!isHeld(was, at)) return [];
  const { kind, until, reason } = was.hold!;
  return [{ kind: 'held', at, hold: kind, until, reason }];
}

/** A surface after events, from a state. @throws ImpossibleEvent */
export const afterAll = (state: SurfaceState, events: readonly SurfaceEvent[]): SurfaceState =>
  events.reduce<SurfaceState>(applySurfaceEvent, state);
