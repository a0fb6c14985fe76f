import { countersink, type Countersink } from './countersink';
import { inMillimetres, type LengthWords } from './lengthWords';
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
  say?: LengthWords;
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
  cures: string[];
}

/**
 * Clips, screw heads and tabs against the top of the base, and against what the gantry carries over them.
 * @returns the items in the order given; `clear` when none is in the way
 * @throws RangeError thicknesses or heights below 0
 * Source: arithmetic; cures are common practice.
 * @example topClearance({ items: [{ name: 'clip', kind: 'clip', height: 2.5, beside: false }], base: 1.2, sheet: 0.5 })
 *   .items[0].overBase // 1.3
 */
export function topClearance(input: TopClearanceInput): { clear: boolean; items: TopItemAnswer[]; insulate: boolean } {
  const { base, sheet, plate, passes = [], travel = 0, say = inMillimetres } = input;
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
      cures: lifts || hitBy.length > 0 ? curesFor(item, overBase, sunk, say) : [],
    };
  });
  return {
    clear: items.every(({ verdict }) => verdict === 'clear'),
    items,
    insulate: input.items.some(({ kind }) => kind === 'screw'),
  };
}

function curesFor(item: StandingItem, overBase: number, sunk: Countersink | null, say: LengthWords): string[] {
  if (item.kind === 'screw') {
    if (sunk && sunk.verdict !== 'through')
      return [
        `Countersink 90°, ${say(sunk.diameter)} wide and ${say(sunk.depth)} deep, a little at a time until flush${sunk.verdict === 'thin' ? `; only ${say(sunk.remains)} of plate is left under it` : ''}.`,
        'A lower head, if the plate is too thin to sink it.',
      ];
    return ['A lower head, or a screw that ends below the base: the plate is too thin to sink it, or not told.'];
  }
  const over = overBase > 0 ? ` by ${say(overBase)}` : '';
  return item.kind === 'clip'
    ? [
        `Notch the base and the sheet round it, grind the clip down${over}, or take it off.`,
        'Rest the base beside it, or lay a ruler across, before the liner comes off.',
      ]
    : [`Cut the sheet's corner free of it, or bend or file it down${over}.`];
}
