import { needNumbers, needWord } from '../needNumbers';
import { compatibility, printedOf, type Face } from '../fit/compatibility';
import { groupFacts, GROUPS, type QuarterTurn, type Slot, type SurfaceGroup } from './surfaceKind';
import { isHeld, type HoldKind, type SurfaceState } from './surfaceState';

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

/** Something that must be answered with yes before the surface is put on. Lengths in mm, temperatures in °C. */
export type MountAsk =
  | { code: 'clean-dry' }
  /** The edge that the front mark points to. */
  | { code: 'front-mark'; edge: Edge }
  /** Its size as it lies, and by how much it stands over the plate on each side, or falls short of the print area. */
  | { code: 'size'; tag: string; width: number; depth: number; plateWidth: number; plateDepth: number; over: number }
  | { code: 'size'; tag: string; short: number }
  /** The layer that stands the least, and the hottest bed that the machine prints at. */
  | { code: 'heat'; machine: string; hottest: number; tag: string; limit: number };

/** Why a surface can't be put on. */
export type MountRefusal =
  | { code: 'retired'; tag: string; why: string }
  | { code: 'on-hold'; tag: string; hold: HoldKind; reason: string }
  | { code: 'family'; machine: string; family: 'filament' | 'resin'; group: SurfaceGroup }
  /** Pole lines would cross those of `partner`; `partnerTurned`: it is the partner that lies a quarter round. */
  | { code: 'poles'; tag: string; partner: string; partnerTurned: boolean }
  | { code: 'glass-on-mat'; mat: string }
  /** It lies on this machine already. */
  | { code: 'here'; tag: string; machine: string };

/** To know, without an answer. */
export type MountCaution =
  | { code: 'awaiting'; tag: string; what: string }
  | { code: 'magnets' }
  /** The machine printed it lately, and nothing is known of it on this face. */
  | { code: 'unknown-material'; machine: string; material: string; tag: string }
  | { code: 'unknown-face'; material: string; tag: string }
  /** The machine printed it lately, and this face does not take it lightly. */
  | { code: 'material'; machine: string; material: string; because: string }
  | { code: 'home-again' };

export interface MountCheck {
  /** Empty: it can be done. */
  refusals: MountRefusal[];
  asks: MountAsk[];
  cautions: MountCaution[];
}

/** An edge of the machine as one stands before it. */
export type Edge = 'front' | 'right' | 'rear' | 'left';

/** Where the front mark points when a surface lies turned. */
const EDGES: Record<QuarterTurn, Edge> = { 0: 'front', 90: 'right', 180: 'rear', 270: 'left' };

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
  const cautions: MountCaution[] = [];
  const { state, tag } = surface;

  if (state.retired !== null) refusals.push({ code: 'retired', tag, why: state.retired });
  else if (isHeld(state, now))
    refusals.push({ code: 'on-hold', tag, hold: state.hold!.kind, reason: state.hold!.reason });
  if (state.awaiting !== null && state.retired === null) cautions.push({ code: 'awaiting', tag, what: state.awaiting });
  const { family } = groupFacts(surface.group);
  if (family !== null && family !== machine.family)
    refusals.push({ code: 'family', machine: machine.name, family: machine.family, group: surface.group });

  const quarter = turned === 90 || turned === 270;
  const partner = machine.layers.find(({ slot, directional }) => directional && slot !== surface.slot);
  if (surface.directional && partner && (turned - partner.turned) % 180 !== 0)
    refusals.push({ code: 'poles', tag, partner: partner.tag, partnerTurned: partner.turned % 180 !== 0 });
  const base = machine.layers.find(({ slot }) => slot === 'base');
  if (surface.group === 'glass' && base) refusals.push({ code: 'glass-on-mat', mat: base.tag });

  const [width, depth] = quarter ? [surface.depth, surface.width] : [surface.width, surface.depth];
  const over = Math.max(width - machine.plateWidth, depth - machine.plateDepth) / 2;
  const short = Math.max(machine.printWidth - width, machine.printDepth - depth);
  if (over > OVERHANG) asks.push({ code: 'size', tag, width, depth, plateWidth, plateDepth, over });
  else if (short > 0) asks.push({ code: 'size', tag, short });

  const limited = [...machine.layers.filter(({ slot }) => slot !== 'film'), surface].filter(
    ({ limit }) => limit !== null,
  );
  const weakest = limited.sort((p, q) => p.limit! - q.limit!)[0];
  if (machine.hottest !== null && weakest && weakest.limit! < machine.hottest)
    asks.push({
      code: 'heat',
      machine: machine.name,
      hottest: machine.hottest,
      tag: weakest.tag,
      limit: weakest.limit!,
    });

  if (surface.slot !== 'film') asks.push({ code: 'clean-dry' });
  if (surface.directional) asks.push({ code: 'front-mark', edge: EDGES[turned] });
  if (surface.slot === 'base' || (base && groupFacts(surface.group).magnetic)) cautions.push({ code: 'magnets' });
  if (surface.slot === 'top') cautions.push(...materialCautions(surface, machine));
  if (surface.slot !== 'film') cautions.push({ code: 'home-again' });
  return { refusals, asks, cautions };
}

/** What the machine prints that this face does not take lightly. Once for each material. */
function materialCautions(
  { tag, face, limit }: MountQuestion['surface'],
  { name, printedLately = [] }: MountQuestion['machine'],
): MountCaution[] {
  const materials = new Map(printedLately.map((words) => [printedOf(words), words]));
  return [...materials].flatMap(([printed, material]): MountCaution[] => {
    if (!printed) return [{ code: 'unknown-material', machine: name, material, tag }];
    if (face == null) return [{ code: 'unknown-face', material, tag }];
    const { answer, reasons } = compatibility({ face, limit, printed });
    return answer === 'yes' ? [] : [{ code: 'material', machine: name, material, because: reasons[0]!.because }];
  });
}
