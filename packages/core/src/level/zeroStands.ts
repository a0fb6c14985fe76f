import type { Slot } from '../surfaces/groups';

/** What has happened to a machine since its zero was set, as the shop's records hold it. Epoch ms. */
export interface ZeroEvent {
  at: number;
  what:
    | { kind: 'fitted'; slot: Slot; surfaceId: string }
    | { kind: 'gone'; slot: Slot; surfaceId: string }
    | { kind: 'layers' }
    | { kind: 'screws' }
    | { kind: 'home' }
    | { kind: 'worked'; slot: Slot }
    | { kind: 'forced-off' };
}

/** Why a zero no longer holds. */
export type ZeroExpiry = 'film' | 'screws' | 'platform' | 'stack' | 'home';

export interface ZeroStands {
  /** never: nobody has set it · stands · expired: something between home and film has changed since */
  state: 'never' | 'stands' | 'expired';
  since: { why: ZeroExpiry; at: number }[];
}

const OF_SLOT: Record<Slot, ZeroExpiry> = { film: 'film', platform: 'platform', base: 'stack', top: 'stack' };

/**
 * Whether zero still holds: it is where a print starts, and everything between home and the film moves it. A flex plate that
 * comes back as it went, print after print, changes nothing; a film or a platform that was out does. A print forced off is a
 * reason to look again, not to forget zero.
 * @param zeroAt when it was set last, epoch ms; null: never
 * @param events what happened, in any order; what is older than zero doesn't count
 */
export function zeroStands(zeroAt: number | null, events: readonly ZeroEvent[]): ZeroStands {
  // A time that is none proves nothing: nobody has set it.
  if (zeroAt === null || !Number.isFinite(zeroAt)) return { state: 'never', since: [] };
  const since = new Map<ZeroExpiry, number>();
  const add = (why: ZeroExpiry, at: number) => void (since.has(why) || since.set(why, at));
  const gone = new Map<Slot, { surfaceId: string; at: number }>();
  const later = [...events].filter(({ at }) => at > zeroAt).sort((a, b) => a.at - b.at);
  for (const { at, what } of later) {
    switch (what.kind) {
      case 'gone':
        if (what.slot === 'top' || what.slot === 'base') gone.set(what.slot, { surfaceId: what.surfaceId, at });
        else add(OF_SLOT[what.slot], at);
        break;
      case 'fitted': {
        const back = gone.get(what.slot)?.surfaceId === what.surfaceId && what.slot === 'top';
        gone.delete(what.slot);
        if (!back) add(OF_SLOT[what.slot], at);
        break;
      }
      case 'layers':
        add('stack', at);
        break;
      case 'screws':
        add('screws', at);
        break;
      case 'home':
        add('home', at);
        break;
      case 'worked':
        add(OF_SLOT[what.slot], at);
        break;
      case 'forced-off':
        break;
    }
  }
  // What is off and has not come back is a change too.
  for (const [slot, { at }] of gone) add(OF_SLOT[slot], at);
  const list = [...since].map(([why, at]) => ({ why, at })).sort((a, b) => a.at - b.at);
  return { state: list.length === 0 ? 'stands' : 'expired', since: list };
}
