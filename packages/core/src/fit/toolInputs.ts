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
import { washersFor } from './washers';

/** The sums without a record. Their ids stand in addresses and in saved plans. */
export const TOOLS = ['stack', 'underbed', 'top', 'size', 'blanks', 'soak', 'together', 'spacer'] as const;
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
