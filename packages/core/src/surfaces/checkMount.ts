import { needNumbers, needWord } from '../needNumbers';
import { compatibility, printedOf, type Face } from '../fit/compatibility';
import { GROUPS, type QuarterTurn, type Slot, type SurfaceGroup } from './surfaceKind';
import { isHeld, type SurfaceState } from './surfaceState';

export interface MountedLayer {
  slot: Slot;
  tag: string;
  group: SurfaceGroup;
  /** Has magnetic pole lines that must lie with those of the layer under or over it. */
  directional: boolean;
  turned: QuarterTurn;
  /** °C it stands for hours; null when not known. */
  limit: number | null;
}

export interface MountQuestion {
  surface: {
    tag: string;
    group: SurfaceGroup;
    slot: Slot;
    /** mm; as it lies unturned. */
    width: number;
    depth: number;
    limit: number | null;
    directional: boolean;
    /** Face of the side that is printed on; null when not known. */
    face?: Face | null;
    state: SurfaceState;
  };
  machine: {
    name: string;
    family: 'filament' | 'resin';
    plateWidth: number;
    plateDepth: number;
    printWidth: number;
    printDepth: number;
    /** °C of the hottest bed it prints at; null when not known. */
    hottest: number | null;
    /** Materials it printed lately, as people write them. */
    printedLately?: readonly string[];
    /** What lies on it and stays: without the layer that this one takes the place of. */
    layers: readonly MountedLayer[];
  };
  turned: QuarterTurn;
  now: number;
}

/** Something that must be answered with yes before the surface is put on. */
export interface MountAsk {
  code: 'clean-dry' | 'front-mark' | 'size' | 'heat';
  text: string;
}

export interface MountCheck {
  /** Reasons why it can't be done. Empty: it can. */
  refusals: { code: string; text: string }[];
  asks: MountAsk[];
  /** To know, without an answer. */
  cautions: string[];
}

/** Where the front mark points when a surface lies turned. */
const EDGES: Record<QuarterTurn, string> = { 0: 'front', 90: 'right', 180: 'rear', 270: 'left' };

/** A sheet may stand over the plate's edge by this much on each side. Common practice. */
const OVERHANG = 3;

/**
 * What stands against putting a surface on a machine, and what has to be looked at first.
 * Source of the rules: common practice (poles, old mats under glass, dry faces, weakest layer).
 */
export function checkMount({ surface, machine, turned, now }: MountQuestion): MountCheck {
  const { width: w, depth: d, limit } = surface;
  const { plateWidth, plateDepth, printWidth, printDepth, hottest } = machine;
  needNumbers('checkMount', { w, d, limit, plateWidth, plateDepth, printWidth, printDepth, hottest, turned });
  needNumbers('checkMount', { now: now / 1e6 });
  needWord('checkMount', 'families', machine.family, ['filament', 'resin']);
  needWord('checkMount', 'groups', surface.group, GROUPS);
  const refusals: MountCheck['refusals'] = [];
  const asks: MountAsk[] = [];
  const cautions: string[] = [];
  const refuse = (code: string, text: string) => void refusals.push({ code, text });
  const { state } = surface;

  if (state.retired !== null) refuse('retired', `${surface.tag} is retired: ${state.retired}.`);
  else if (isHeld(state, now))
    refuse(
      'on-hold',
      `${surface.tag} is on hold (${state.hold!.reason || state.hold!.kind}). Wait, or cut the hold short with a reason.`,
    );
  if (state.awaiting !== null && state.retired === null)
    cautions.push(`${surface.tag} waits for work: ${state.awaiting}.`);
  if (belongsToResin(surface.group) !== null && belongsToResin(surface.group) !== (machine.family === 'resin'))
    refuse(
      'family',
      machine.family === 'resin'
        ? `${machine.name} is a resin printer: a ${GROUP_WORDS[surface.group]} has no place on it.`
        : `${machine.name} is a filament printer: a ${GROUP_WORDS[surface.group]} has no place on it.`,
    );

  const quarter = turned === 90 || turned === 270;
  const partner = machine.layers.find(({ slot, directional }) => directional && slot !== surface.slot);
  if (surface.directional && partner && (turned - partner.turned) % 180 !== 0)
    refuse(
      'poles',
      partner.turned % 180 === 0
        ? `${surface.tag} and ${partner.tag} have their poles in lines. Turned a quarter, the lines cross and the sheet lies in ridges. Lay its front mark to the front.`
        : `${partner.tag} lies a quarter turn round, and both have their poles in lines: they would cross and the sheet lie in ridges. Lay ${partner.tag} with its mark to the front, or turn ${surface.tag} with it.`,
    );
  const base = machine.layers.find(({ slot }) => slot === 'base');
  if (surface.group === 'glass' && base)
    refuse(
      'glass-on-mat',
      `Glass straight on the magnetic mat ${base.tag} bonds to it after a few hot prints and can't be lifted. Take the mat off first.`,
    );

  const [width, depth] = quarter ? [surface.depth, surface.width] : [surface.width, surface.depth];
  const over = Math.max(width - machine.plateWidth, depth - machine.plateDepth) / 2;
  const short = Math.max(machine.printWidth - width, machine.printDepth - depth);
  if (over > OVERHANG)
    asks.push({
      code: 'size',
      text: `${surface.tag} is ${said(width)} × ${said(depth)} mm and the plate ${said(machine.plateWidth)} × ${said(machine.plateDepth)}: it stands over by ${said(over)} mm a side. Do clips and wiring stay clear?`,
    });
  else if (short > 0)
    asks.push({
      code: 'size',
      text: `${surface.tag} is ${said(short)} mm smaller than the print area. Will every print stay on it?`,
    });

  const limited = [...machine.layers.filter(({ slot }) => slot !== 'film'), surface].filter(
    ({ limit }) => limit !== null,
  );
  const weakest = limited.sort((p, q) => p.limit! - q.limit!)[0];
  if (machine.hottest !== null && weakest && weakest.limit! < machine.hottest)
    asks.push({
      code: 'heat',
      text: `${machine.name} prints at up to ${machine.hottest} °C and ${weakest.tag} stands ${weakest.limit} °C. Will it be kept below that?`,
    });

  if (surface.slot !== 'film')
    asks.push({
      code: 'clean-dry',
      text: 'Are both faces clean and dry? Liquid between them eats the lacquer and glues them together.',
    });
  if (surface.directional)
    asks.push({ code: 'front-mark', text: `Does its front mark point to the ${EDGES[turned]}?` });
  if (surface.slot === 'base' || (base && MAGNETIC.includes(surface.group)))
    cautions.push('Strong magnets snap down: keep fingers out from under it.');
  if (surface.slot === 'top') for (const text of materialCautions(surface, machine)) cautions.push(text);
  if (surface.slot !== 'film') cautions.push('Home again and check Z before the first print.');
  return { refusals, asks, cautions };
}

/** What the machine prints that this face does not take lightly. Once for each material. */
function materialCautions({ tag, face, limit }: MountQuestion['surface'], machine: MountQuestion['machine']): string[] {
  const materials = new Map((machine.printedLately ?? []).map((words) => [printedOf(words), words]));
  return [...materials].flatMap(([printed, words]) => {
    if (!printed) return [`${machine.name} printed ${words} lately, and what that is to ${tag} is not known here.`];
    if (face == null) return [`What the face of ${tag} is made of is not known: try ${words} on a corner first.`];
    const { answer, findings } = compatibility({ face, limit, printed });
    return answer === 'yes' ? [] : [`${machine.name} printed ${words} lately. ${findings[0]!.because}`];
  });
}

/** What a magnetic base pulls down. */
const MAGNETIC: readonly SurfaceGroup[] = ['sheet', 'cover', 'flex-plate'];

/** true: only on resin printers; false: only on filament printers; null: on either. */
export function belongsToResin(group: SurfaceGroup): boolean | null {
  if (group === 'platform' || group === 'flex-plate' || group === 'film') return true;
  return group === 'base' || group === 'cover' ? null : false;
}

export const GROUP_WORDS: Record<SurfaceGroup, string> = {
  sheet: 'spring sheet',
  glass: 'glass pane',
  laminate: 'laminate board',
  cover: 'flexible cover',
  base: 'magnetic base',
  platform: 'platform',
  'flex-plate': 'flex plate',
  film: 'film',
};

const said = (length: number) => String(Number(length.toFixed(1)));
