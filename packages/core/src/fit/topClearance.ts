import { countersink, type Countersink } from './countersink';
import { tidyLength } from './tidyLength';

/** Something that stands up from the plate. mm. */
export interface StandingItem {
  name: string;
  kind: 'clip' | 'screw' | 'tab';
  /** Above the plate's own top. */
  height: number;
  /** It lies beside the base and the sheet, not under them. */
  beside: boolean;
  /** For a screw whose head can be sunk: its thread and the hole it sits in. */
  thread?: string;
  hole?: number;
}

export interface TopClearanceInput {
  items: readonly StandingItem[];
  /** Thickness of the base (and adhesive) and of the sheet on it, mm. */
  base: number;
  sheet: number;
  /** Thickness of the plate, for countersinking; mm. */
  plate?: number;
  /** What passes over the bed, and how far above the tip of the nozzle its lowest point is. */
  passes?: readonly { name: string; above: number }[];
  /** Height of the tip over the sheet when it passes, mm. Default 0: the first layer. */
  travel?: number;
}

export interface TopItemAnswer {
  name: string;
  /** Height above the top of the base: + proud. */
  overBase: number;
  /** Height above the top of the sheet: what passes over can hit it. */
  overSheet: number;
  verdict: 'clear' | 'lifts-sheet' | 'hit';
  /** What passes over and hits it. */
  hitBy: string[];
  countersink: Countersink | null;
  cures: TopCure[];
}

/** What takes a thing out of the way. Lengths in mm. */
export type TopCure =
  /** `remains`: what is left of the plate under it where that is little; null: enough. */
  | { do: 'countersink'; diameter: number; depth: number; remains: number | null }
  | { do: 'lower-head' }
  /** The plate is too thin to sink it, or was not told. */
  | { do: 'lower-or-shorter' }
  | { do: 'notch' | 'cut-corner'; by: number }
  | { do: 'lay-beside' };

/**
 * Clips, screw heads and tabs against the top of the base, and against what the gantry carries over them.
 * @returns the items in the order given; `clear` when none is in the way
 * @throws RangeError thicknesses or heights below 0
 * Source: arithmetic; cures are common practice.
 * @example topClearance({ items: [{ name: 'clip', kind: 'clip', height: 2.5, beside: false }], base: 1.2, sheet: 0.5 })
 *   .items[0].overBase // 1.3
 */
export function topClearance(input: TopClearanceInput): { clear: boolean; items: TopItemAnswer[]; insulate: boolean } {
  const { base, sheet, plate, passes = [], travel = 0 } = input;
  for (const [name, value] of Object.entries({ base, sheet, travel }))
    if (!(value >= 0)) throw new RangeError(`topClearance needs ${name} of 0 or more, got ${value}`);
  const items = input.items.map((item): TopItemAnswer => {
    if (!(item.height >= 0))
      throw new RangeError(`topClearance needs heights of 0 or more, ${item.name} has ${item.height}`);
    const overBase = tidyLength(item.height - base);
    const overSheet = tidyLength(item.height - base - sheet);
    const hitBy = passes.filter(({ above }) => overSheet > travel + above).map(({ name }) => name);
    // What passes right at the tip is the nozzle itself.
    if (overSheet > travel) hitBy.unshift('nozzle');
    const lifts = !item.beside && overBase > 0;
    const sunk =
      item.kind === 'screw' && item.thread && item.hole && plate
        ? countersink({ thread: item.thread, hole: item.hole, plate })
        : null;
    return {
      name: item.name,
      overBase,
      overSheet,
      verdict: hitBy.length > 0 ? 'hit' : lifts ? 'lifts-sheet' : 'clear',
      hitBy,
      countersink: sunk,
      cures: lifts || hitBy.length > 0 ? curesFor(item, overBase, sunk) : [],
    };
  });
  return {
    clear: items.every(({ verdict }) => verdict === 'clear'),
    items,
    insulate: input.items.some(({ kind }) => kind === 'screw'),
  };
}

function curesFor({ kind }: StandingItem, overBase: number, sunk: Countersink | null): TopCure[] {
  const by = Math.max(0, overBase);
  switch (kind) {
    case 'screw': {
      if (!sunk || sunk.verdict === 'through') return [{ do: 'lower-or-shorter' }];
      const { diameter, depth, verdict, remains } = sunk;
      return [
        { do: 'countersink', diameter, depth, remains: verdict === 'thin' ? remains : null },
        { do: 'lower-head' },
      ];
    }
    case 'clip':
      return [{ do: 'notch', by }, { do: 'lay-beside' }];
    case 'tab':
      return [{ do: 'cut-corner', by }];
  }
}
