import type { CompatQuestion } from './compatibility';
import type { HeatLayer } from './conduct';
import type { FitCheckInput } from './fitCheck';
import { DRY_JOINT, materialOf } from './materials';
import type { Blank, PlanBlanksInput } from './planBlanks';
import type { SoakInput } from './soak';
import type { SpacerAsk } from './spacerSolid';
import type { StackChangeInput } from './stackChange';
import type { TopClearanceInput } from './topClearance';
import type { UnderbedInput } from './underbedClearance';
import type { Count } from '../level/compareCounts';
import type { CompareReads, Held, StopRule } from '../level/compareMethods';
import { USUAL_GIVES, type GapBudgetAsk, type ResinWay } from '../level/gapBudget';
import { gaugeOf } from '../level/gauge';
import { washersFor } from './washers';

/** The sums without a record. Their ids stand in addresses and in saved plans. */
export const TOOLS = [
  'stack',
  'underbed',
  'top',
  'size',
  'blanks',
  'soak',
  'together',
  'spacer',
  'gap',
  'compare',
] as const;
export type ToolId = (typeof TOOLS)[number];

/** A layer of a soak as it is asked for: a material of the table, and whether it lies dry on the one under it. */
export interface AskedHeatLayer {
  material: string;
  thickness: number;
  dry: boolean;
}

/** What each tool is asked: what a plan keeps. Nothing known is null, so that a plan says so. Units of the house. */
export interface ToolInputs {
  stack: Required<StackChangeInput>;
  underbed: {
    parts: { name: string; height: number }[];
    springCompressed: number;
    washers: number;
    /** Thread of the screws that the springs stand on: which washers go there. */
    screw: string;
    pitch: number | null;
    backOff: number;
    travel: number | null;
  };
  top: {
    items: TopClearanceInput['items'];
    base: number;
    sheet: number;
    plate: number | null;
    passes: { name: string; above: number }[];
    travel: number;
  };
  size: Required<FitCheckInput> & { pad: { width: number; depth: number } | null };
  blanks: {
    sheet: { width: number; depth: number };
    pieces: { name: string; width: number; depth: number; count: number | null; corners: number }[];
    kerf: number;
    trim: number;
    method: 'saw' | 'snap';
    mayRotate: boolean;
    sheets: number;
    price: number | null;
  };
  soak: Omit<SoakInput, 'layers' | 'cells'> & { layers: AskedHeatLayer[] };
  together: CompatQuestion;
  spacer: SpacerAsk;
  gap: {
    way: ResinWay;
    /** Ten sheets between the calipers, mm; null: nobody has measured them, or none lies there. */
    ten: number | null;
    film: number;
    filmMeasured: boolean;
    raise: number;
    firstLayer: number;
    /** Heights of a piece printed flat, and on supports as control: for what zero is off by. */
    flat: { height: number }[];
    control: { height: number }[];
  };
  compare: {
    /** What the two are called. */
    first: string;
    second: string;
    /** What it is about, where it is one of these; null: a method. */
    about: Held | null;
    /** What was not the same in both. */
    differs: Held[];
    /** What is read of each: a length in mm, a time in minutes, or how many of so many tries came well. */
    reads: CompareReads;
    /** Lengths or times; none where counts are read. */
    a: { reading: number }[];
    b: { reading: number }[];
    /** Counts as they came in; none where lengths or times are read. */
    heldA: Count[];
    heldB: Count[];
    each: number;
    looks: StopRule['looks'];
    /** In mm, in minutes, or in points of a hundred. */
    matters: number;
  };
}

/** A film whose thickness only its label says is known to so much, and one that was measured; mm. Common practice. */
const FILM_BY_LABEL = 0.01;
const FILM_MEASURED = 0.003;

/** @throws RangeError a pile of ten that can't be */
export function gapOf({ way, ten, film, filmMeasured, raise, firstLayer }: ToolInputs['gap']): GapBudgetAsk {
  const onSheets = way === 'quarters' || way === 'sheet';
  const sheet = gaugeOf({ kind: 'paper', caliper: ten === null ? null : { pieces: 10, reading: ten }, layers: 1 });
  return {
    way,
    gauge: onSheets ? { value: sheet.thickness, sd: sheet.uncertainty } : null,
    film: { value: film, sd: filmMeasured ? FILM_MEASURED : FILM_BY_LABEL },
    gaugeGives: USUAL_GIVES.gauge,
    filmGives: USUAL_GIVES.film,
    raise,
    firstLayer,
  };
}

/** @throws RangeError a thread or material that the tables don't have */
export const underbedOf = ({ screw, pitch, travel, ...rest }: ToolInputs['underbed']): UnderbedInput => ({
  ...rest,
  kinds: washersFor(screw),
  ...(pitch === null ? {} : { pitch }),
  ...(travel === null ? {} : { travel }),
});

export const topOf = ({ plate, ...rest }: ToolInputs['top']): TopClearanceInput => ({
  ...rest,
  ...(plate === null ? {} : { plate }),
});

export function blanksOf({ pieces, price, ...rest }: ToolInputs['blanks']): PlanBlanksInput {
  const blanks = pieces.map(({ count, ...piece }): Blank => (count === null ? piece : { ...piece, count }));
  return { ...rest, piece: blanks.length === 1 ? blanks[0]! : blanks, ...(price === null ? {} : { price }) };
}

export const heatLayers = (layers: readonly AskedHeatLayer[]): HeatLayer[] =>
  layers.map(({ material, thickness, dry }) => ({
    ...materialOf(material),
    thickness,
    ...(dry ? { contactResistance: DRY_JOINT } : {}),
  }));

export const soakOf = ({ layers, ...rest }: ToolInputs['soak']): SoakInput => ({ ...rest, layers: heatLayers(layers) });
