import type { QuarterTurn, Side, Slot } from './surfaceKind';

/** Why a surface may not be used for a while. */
export type HoldKind = 'cure' | 'dry' | 'cool' | 'soak';

export interface Hold {
  kind: HoldKind;
  /** Epoch ms; always since < until. */
  since: number;
  until: number;
  reason: string;
}

/** Where a surface is: on a machine, or at a place in the rack. Never both. */
export type Whereabouts =
  | { kind: 'machine'; machineId: string; slot: Slot; sideUp: Side; turned: QuarterTurn }
  | { kind: 'rack'; place: string };

/** A surface as its events have left it. `changedAt` is the time of the last one. */
export interface SurfaceState {
  where: Whereabouts;
  hold: Hold | null;
  /** Work that it waits for, in words. */
  awaiting: string | null;
  /** Why it was taken out of use. */
  retired: string | null;
  changedAt: number;
}

export type SurfaceWork = 'wiped' | 'washed' | 'scrubbed' | 'renewed' | 'repaired' | 'other';

/** What can happen to a surface. Times are epoch ms. */
export type SurfaceEvent = { at: number } & (
  | { kind: 'added'; place: string }
  | { kind: 'mounted'; machineId: string; slot: Slot; sideUp: Side; turned: QuarterTurn }
  | { kind: 'taken-off'; place: string }
  | { kind: 'moved'; place: string }
  | { kind: 'turned'; sideUp: Side; turned: QuarterTurn }
  | { kind: 'held'; hold: HoldKind; until: number; reason: string }
  | { kind: 'hold-cut'; reason: string }
  | { kind: 'work-asked'; what: string }
  | { kind: 'work-done'; work: SurfaceWork; side: Side | null; note: string }
  /** What was done to it, or asked of it, was written down by mistake: it waits again for what it waited for before. */
  | { kind: 'work-undone'; awaiting: string | null; reason: string }
  | { kind: 'retired'; why: string }
  | { kind: 'brought-back'; why: string; place: string }
);

/** An event that can't happen to a surface as it stands. `message` is for people. */
export class ImpossibleEvent extends Error {
  override readonly name = 'ImpossibleEvent';
  constructor(
    readonly code:
      | 'added-twice'
      | 'not-added'
      | 'retired'
      | 'not-retired'
      | 'on-hold'
      | 'not-on-hold'
      | 'hold-too-short'
      | 'on-machine'
      | 'not-on-machine'
      | 'no-change'
      | 'no-reason'
      | 'out-of-order',
    message: string,
  ) {
    super(message);
  }
}

/** Whether a hold still counts at `now`: a hold ends by itself at its time. */
export const isHeld = ({ hold }: Pick<SurfaceState, 'hold'>, now: number): boolean => hold !== null && now < hold.until;

/**
 * The state after one more event. The one place that says what can follow what.
 * @param state as the events so far have left it; null before the first
 * @throws ImpossibleEvent the event can't happen to a surface in this state
 */
export function applySurfaceEvent(state: SurfaceState | null, event: SurfaceEvent): SurfaceState {
  if (state === null) {
    if (event.kind !== 'added') throw new ImpossibleEvent('not-added', 'This surface is not in the rack yet.');
    return {
      where: { kind: 'rack', place: event.place },
      hold: null,
      awaiting: null,
      retired: null,
      changedAt: event.at,
    };
  }
  if (event.kind === 'added') throw new ImpossibleEvent('added-twice', 'This surface is here already.');
  if (!(event.at >= state.changedAt))
    throw new ImpossibleEvent('out-of-order', 'This happened before something that is already written down.');
  if (state.retired !== null && event.kind !== 'brought-back')
    throw new ImpossibleEvent('retired', `This surface is retired: ${state.retired}.`);
  return { ...state, ...changeBy(event, state), changedAt: event.at };
}

/** Replays events from nothing. Null when there are none. */
export function replaySurface(events: Iterable<SurfaceEvent>): SurfaceState | null {
  let state: SurfaceState | null = null;
  for (const event of events) state = applySurfaceEvent(state, event);
  return state;
}

type Later = Exclude<SurfaceEvent, { kind: 'added' }>;

function changeBy(event: Later, state: SurfaceState): Partial<SurfaceState> {
  const held = isHeld(state, event.at);
  const refuseHeld = () => {
    if (held)
      throw new ImpossibleEvent('on-hold', `This surface is on hold: ${state.hold!.reason || state.hold!.kind}.`);
  };
  switch (event.kind) {
    case 'mounted': {
      refuseHeld();
      if (state.where.kind === 'machine')
        throw new ImpossibleEvent('on-machine', 'This surface lies on a machine. It is taken off there first.');
      const { machineId, slot, sideUp, turned } = event;
      return { where: { kind: 'machine', machineId, slot, sideUp, turned }, hold: null };
    }
    case 'taken-off':
      refuseHeld();
      mounted(state);
      return { where: { kind: 'rack', place: event.place } };
    case 'moved':
      if (state.where.kind === 'machine')
        throw new ImpossibleEvent('on-machine', 'This surface lies on a machine. Take it off first.');
      return { where: { kind: 'rack', place: event.place } };
    case 'turned': {
      refuseHeld();
      const where = mounted(state);
      if (where.sideUp === event.sideUp && where.turned === event.turned)
        throw new ImpossibleEvent('no-change', 'It lies like that already.');
      return { where: { ...where, sideUp: event.sideUp, turned: event.turned } };
    }
    case 'held': {
      const { hold: kind, until, reason } = event;
      if (!(until > event.at)) throw new ImpossibleEvent('hold-too-short', 'A hold must end later than it begins.');
      if (held && until <= state.hold!.until)
        throw new ImpossibleEvent('on-hold', 'There is a hold that lasts longer. Cut it short first, with a reason.');
      return { hold: { kind, since: event.at, until, reason } };
    }
    case 'hold-cut':
      if (!held) throw new ImpossibleEvent('not-on-hold', 'There is no hold to cut short.');
      refuseEmpty(event.reason, 'A hold is cut short only with a reason.');
      return { hold: null };
    case 'work-asked':
      refuseEmpty(event.what, 'Say what work it waits for.');
      return { awaiting: event.what };
    case 'work-done':
      return { awaiting: null };
    case 'work-undone':
      refuseEmpty(event.reason, 'Say why the work is taken back.');
      return { awaiting: event.awaiting };
    case 'retired':
      refuseEmpty(event.why, 'Say why it is retired.');
      return { where: { kind: 'rack', place: '' }, hold: null, awaiting: null, retired: event.why };
    case 'brought-back':
      if (state.retired === null) throw new ImpossibleEvent('not-retired', 'This surface is in use, not retired.');
      refuseEmpty(event.why, 'Say why it comes back.');
      return { where: { kind: 'rack', place: event.place }, retired: null };
  }
}

function mounted({ where }: SurfaceState) {
  if (where.kind !== 'machine') throw new ImpossibleEvent('not-on-machine', 'This surface lies on no machine.');
  return where;
}

function refuseEmpty(text: string, message: string): void {
  if (text.trim() === '') throw new ImpossibleEvent('no-reason', message);
}

/** How a surface stands, the weightiest first: retired, on hold, awaiting work, in use on a machine, or in the rack. */
export type SurfaceCondition = 'retired' | 'on-hold' | 'awaiting-work' | 'in-use' | 'in-rack';

export function surfaceCondition(state: SurfaceState, now: number): SurfaceCondition {
  if (state.retired !== null) return 'retired';
  if (isHeld(state, now)) return 'on-hold';
  if (state.awaiting !== null) return 'awaiting-work';
  return state.where.kind === 'machine' ? 'in-use' : 'in-rack';
}
