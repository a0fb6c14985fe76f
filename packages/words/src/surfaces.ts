import type { SurfaceEvents } from '@even-bed/contract';
import type { HoldKind, Side, SurfaceEvent, SurfaceWork } from '@even-bed/core';
import type { Sentences } from './sentence';
import { timeSet } from './span';

const HOLD_NAMES: Record<HoldKind, string> = { cure: 'cure', dry: 'drying', cool: 'cooling', soak: 'soak' };
const WORK_NAMES: Record<SurfaceWork, string> = {
  wiped: 'wiped',
  washed: 'washed',
  scrubbed: 'scrubbed',
  renewed: 'renewed',
  repaired: 'repaired',
  other: 'work done',
};

/** "side A up (textured)"; only the finish where there is one side. */
function sideInWords(side: Side, { sides }: { sides: readonly string[] }): string {
  if (sides.length < 2) return `${sides[0]} up`;
  return `side ${side} up (${sides[side === 'A' ? 0 : 1]})`;
}

const to = (place: string) => (place === '' ? 'to the rack' : `to ${place}`);
/** What was typed ends the sentence, with its own full stop or without. */
const because = (text: string) => (text === '' ? '' : `: ${text.replace(/\.$/, '')}`);

/** What happened to a surface. */
function happened(
  event: SurfaceEvent,
  {
    tag,
    kindName,
    sides,
    machine,
  }: { tag: string; kindName: string; sides: readonly string[]; machine: string | null },
): string {
  switch (event.kind) {
    case 'added':
      return `${tag} added: ${kindName}, ${to(event.place)}.`;
    case 'mounted':
      return `${tag} put on ${machine}, ${sideInWords(event.sideUp, { sides })}${event.turned === 0 ? '' : `, turned ${event.turned}°`}.`;
    case 'taken-off':
      return `${tag} taken off ${machine}, ${to(event.place)}.`;
    case 'moved':
      return `${tag} moved ${to(event.place)}.`;
    case 'turned':
      return `${tag} on ${machine}: ${sideInWords(event.sideUp, { sides })}${event.turned === 0 ? ', front mark to the front' : `, turned ${event.turned}°`}.`;
    case 'held':
      return `${tag} on hold for ${timeSet(event.until - event.at)}, ${HOLD_NAMES[event.hold]}${because(event.reason)}.`;
    case 'hold-cut':
      return `${tag}: hold cut short: ${event.reason}.`;
    case 'work-asked':
      return `${tag} waits for work: ${event.what}.`;
    case 'work-done':
      return `${tag} ${WORK_NAMES[event.work]}${event.side ? `, side ${event.side}` : ''}${because(event.note)}.`;
    case 'work-undone':
      return event.awaiting === null
        ? `${tag}: the work written down is taken back${because(event.reason)}.`
        : `${tag}: the work written down is taken back, it waits for ${event.awaiting}${because(event.reason)}.`;
    case 'retired':
      return `${tag} retired${machine ? `, taken off ${machine}` : ''}: ${event.why}.`;
    case 'brought-back':
      return `${tag} brought back ${to(event.place)}: ${event.why}.`;
  }
}

type Told = { event: SurfaceEvent; kindName: string; sides: string[] };
const told = ({ event, kindName, sides }: Told, { surface, machine }: { surface: string; machine: string | null }) =>
  happened(event, { tag: surface, kindName, sides, machine });

export const surfaceSentences: Sentences<SurfaceEvents> = {
  'kind-added': ({ to: { name } }) => `Kind ${name} added.`,
  'kind-changed': ({ from: { name } }) => `Kind ${name} changed.`,
  'stack-changed': ({ to: layers }, { machine, figures: { size } }) =>
    `${machine}: plain layers of the stack are now ${layers.length === 0 ? 'none' : layers.map(({ name, thickness }) => `${name} ${size(thickness, 3)}`).join(', ')}.`,
  'surface-changed': ({ to: { thickness }, measuredIn }, { surface, figures: { size } }) =>
    measuredIn !== null && thickness !== null
      ? `${surface}: ${size(thickness, 3)} thick as measured (${measuredIn}).`
      : `${surface}: facts changed.`,
  'surface-added': told,
  'surface-mounted': told,
  'surface-taken-off': told,
  'surface-moved': told,
  'surface-turned': told,
  'surface-held': told,
  'surface-hold-cut': told,
  'surface-work-asked': told,
  'surface-work-done': told,
  'surface-work-undone': told,
  'surface-retired': told,
  'surface-brought-back': told,
  'offset-kept': ({ offset, note }, { machine, surface, figures: { length } }) =>
    `${machine} with ${surface}: Z offset ${length(offset, 3)} works.${note ? ` ${note}` : ''}`,
  'offset-withdrawn': ({ offset }, { machine, surface, figures: { length } }) =>
    `${machine} with ${surface}: Z offset ${length(offset, 3)} no longer counts.`,
};
