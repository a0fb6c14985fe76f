import type { SurfaceKind } from '@even-bed/contract';
import type { HoldKind, Side, SurfaceEvent, SurfaceWork } from '@even-bed/core';

const HOUR_MS = 3_600_000;

export const HOLD_NAMES: Record<HoldKind, string> = { cure: 'cure', dry: 'drying', cool: 'cooling', soak: 'soak' };
const WORK_NAMES: Record<SurfaceWork, string> = {
  wiped: 'wiped',
  washed: 'washed',
  scrubbed: 'scrubbed',
  renewed: 'renewed',
  repaired: 'repaired',
  other: 'work done',
};

/** "side A, textured"; only the finish where there is one side. */
export function sideInWords(side: Side, { sides }: Pick<SurfaceKind, 'sides'>): string {
  if (sides.length < 2) return `${sides[0]} up`;
  return `side ${side} up (${sides[side === 'A' ? 0 : 1]})`;
}

/** A span for people: "24 h", "1 h 30 min", "20 min". */
export function spanInWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 || ms >= 24 * HOUR_MS ? `${Math.round(ms / HOUR_MS)} h` : `${hours} h ${minutes % 60} min`;
}

const to = (place: string) => (place === '' ? 'to the rack' : `to ${place}`);
/** What was typed ends the sentence, with its own full stop or without. */
const because = (text: string) => (text === '' ? '' : `: ${text.replace(/\.$/, '')}`);

/** One event of a surface as a sentence of the book. */
export function eventInWords(
  event: SurfaceEvent,
  { tag, kind, machine }: { tag: string; kind: SurfaceKind; machine: string | null },
): string {
  switch (event.kind) {
    case 'added':
      return `${tag} added: ${kind.name}, ${to(event.place)}.`;
    case 'mounted':
      return `${tag} put on ${machine}, ${sideInWords(event.sideUp, kind)}${event.turned === 0 ? '' : `, turned ${event.turned}°`}.`;
    case 'taken-off':
      return `${tag} taken off ${machine}, ${to(event.place)}.`;
    case 'moved':
      return `${tag} moved ${to(event.place)}.`;
    case 'turned':
      return `${tag} on ${machine}: ${sideInWords(event.sideUp, kind)}${event.turned === 0 ? ', front mark to the front' : `, turned ${event.turned}°`}.`;
    case 'held':
      return `${tag} on hold for ${spanInWords(event.until - event.at)}, ${HOLD_NAMES[event.hold]}${because(event.reason)}.`;
    case 'hold-cut':
      return `${tag}: hold cut short: ${event.reason}.`;
    case 'work-asked':
      return `${tag} waits for work: ${event.what}.`;
    case 'work-done':
      return `${tag} ${WORK_NAMES[event.work]}${event.side ? `, side ${event.side}` : ''}${because(event.note)}.`;
    case 'retired':
      return `${tag} retired${machine ? `, taken off ${machine}` : ''}: ${event.why}.`;
    case 'brought-back':
      return `${tag} brought back ${to(event.place)}: ${event.why}.`;
  }
}
