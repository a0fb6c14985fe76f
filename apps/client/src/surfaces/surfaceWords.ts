import type { CareItem, Surface, SurfaceKind } from '@even-bed/contract';
import type { LifeLeft, Side, SurfaceState } from '@even-bed/core';
import { lifeOf } from '@even-bed/core/surfaces/lifeOf';
import { surfaceCondition } from '@even-bed/core/surfaces/surfaceState';
import { timeLeft } from '@even-bed/words/span';
import type { SignalKind } from '../ui/Signal';

export const HOLD_NAMES = { cure: 'Curing', dry: 'Drying', cool: 'Cooling', soak: 'Soaking' } as const;

export const CARE_NAMES: Record<CareItem, string> = {
  water: 'water',
  soap: 'soap',
  alcohol: 'alcohol',
  acetone: 'acetone',
  'scrub-pad': 'scrub pad',
  'steel-wool': 'steel wool',
  'fine-abrasive': 'fine abrasive',
  scraper: 'scraper',
  'glue-stick': 'glue stick',
};
/** Several of them as one sentence begins: "Steel wool and acetone". */
export function careNames(items: readonly CareItem[]): string {
  const words = items.map((item) => CARE_NAMES[item]).join(' and ');
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}

/** A surface's state in a shape and a few words. */
export function conditionWords(state: SurfaceState, now: number): { signal: SignalKind; words: string } {
  switch (surfaceCondition(state, now)) {
    case 'retired':
      return { signal: 'stop', words: 'Retired' };
    case 'on-hold':
      return { signal: 'hold', words: `${HOLD_NAMES[state.hold!.kind]}, ${timeLeft(state.hold!.until - now)} left` };
    case 'awaiting-work':
      return { signal: 'due', words: 'Waits for work' };
    case 'in-use':
      return { signal: 'ready', words: 'In use' };
    case 'in-rack':
      return { signal: 'ready', words: 'In the rack' };
  }
}

/** "side A, textured"; only the finish where there is one side. */
export const sideWords = (side: Side, { sides }: Pick<SurfaceKind, 'sides'>): string =>
  sides.length < 2 ? sides[0]! : `side ${side}, ${sides[side === 'A' ? 0 : 1]}`;

/** Where a surface is: "on Dunlin, side A, textured", "Rack 2". */
export function whereWords({ state, machineName, kind }: Pick<Surface, 'state' | 'machineName' | 'kind'>): string {
  const { where } = state;
  if (where.kind === 'machine') return `on ${machineName}, ${sideWords(where.sideUp, kind)} up`;
  if (state.retired !== null) return state.retired;
  return where.place === '' ? 'no place noted' : where.place;
}

/** How much of its life a side has behind it. */
export function lifeOfSide(surface: Surface, side: Side, now: number): LifeLeft | null {
  const { prints, grams } = surface.use[side];
  const since = surface.renewedAt ?? surface.boughtAt ?? surface.createdAt;
  return lifeOf(surface.kind.life, { prints, grams, since, now });
}

const UNITS = { prints: 'prints', grams: 'g', days: 'days' } as const;

/** "about 40 prints left", "past its 300 prints". */
export function lifeWords({ left, expected, spread, unit, state }: LifeLeft): string {
  if (state === 'over') return `past its ${Math.round(expected)} ${UNITS[unit]}`;
  if (left <= 0) return `at its end: ${Math.round(expected)} ± ${Math.round(spread)} ${UNITS[unit]} expected`;
  return `about ${Math.round(left)} ${UNITS[unit]} left of ${Math.round(expected)}`;
}
