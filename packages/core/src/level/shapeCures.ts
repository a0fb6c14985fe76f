import { needNumbers } from '../needNumbers';
import { describeShape, type BedShape } from './describeShape';
import { flatness } from './flatness';
import { gridOf } from './gridOf';
import type { HeightPoint } from './HeightPoint';
import { planShims, type ShimPlan, type ShimTape } from './planShims';
import { solveLeast } from './solveLeast';
import { thinMap } from './thinMap';

/**
 * mount: take it as it is · under-bed, under-sheet: look there first · shim: strips of tape · ease: bend it straight · map: let
 * the machine follow its map · glass-pad: a pane on a pad that conducts · glass-clips: a pane laid on · lap: rub it flat ·
 * machinist: have it ground flat, at a price
 */
export const CURES = [
  'mount',
  'under-bed',
  'under-sheet',
  'shim',
  'ease',
  'map',
  'glass-pad',
  'glass-clips',
  'lap',
  'machinist',
] as const;
export type CureId = (typeof CURES)[number];

/** What has to be so, or to be found out, before a cure is begun. */
export type CureNeed =
  /** Off the machine, the heater off the plate, or its maker allows bending with it. */
  | 'heater-off'
  /** The pane itself has to be proven flat by light. */
  | 'prove-glass'
  /** What it is lapped on has to be proven flat. */
  | 'prove-reference'
  /** Air stands under the pane by as much as the plate is hollow: it warms late and unevenly. */
  | 'air-gap'
  /** Sinks bonding, and a re-level with home moved: it is thicker. */
  | 'stack-changes'
  /** What it costs, and how much comes off, is asked before it is given away. */
  | 'price'
  /** Its probe must see through what is laid on, or another way of finding zero. */
  | 'compensation'
  | 'measure-tape';

export interface ShapeCure {
  cure: CureId;
  /** Range that would be left, mm; null: nothing says it before it is tried. */
  leaves: number | null;
  /** Within the aim; null: not known. */
  within: boolean | null;
  needs: CureNeed[];
  /** Why it is not offered; null: it is. */
  not: 'forbidden' | 'no-tape' | 'no-gain' | 'not-this-family' | 'nothing-there' | 'no-compensation' | null;
  shims: ShimPlan | null;
}

export interface ShapeCuresAsk {
  map: readonly HeightPoint[];
  aim: number;
  family: 'filament' | 'resin';
  /** The machine follows its height map while it prints. */
  compensation: boolean;
  tape: ShimTape | null;
  /** The tape is as somebody measured it, not as tape usually is. */
  tapeMeasured?: boolean | undefined;
  /** May the plate be bent: its heater is off, or its maker allows it; null: nobody knows. */
  bendable: boolean | null;
  /** Flatness of the pane or stone at hand, mm; null: not proven yet. */
  reference: number | null;
  noise?: number | undefined;
  plate?: { width: number; depth: number } | undefined;
}

/** More readings are thinned out first. */
const MOST_READINGS = 900;
/** A cure has to take off so much, as a share, to be offered. Our own. */
const LEAST_GAIN = 0.2;
/** Hands bend a plate back to about this share of its bow at best. Common practice: less than you think, then light again. */
const EASED_LEAVES = 0.2;

/**
 * What can be done about a shape, and what each would leave: what is looked at first, then by what is left, those within the
 * aim first and of those the least work.
 * @throws DegenerateInput a map of fewer than 4 readings, all in one line, or not numbers
 */
export function shapeCures(ask: ShapeCuresAsk): { shape: BedShape; flatness: number; cures: ShapeCure[] } {
  const { aim, family, tape, bendable, reference, noise } = ask;
  needNumbers('shapeCures', { map: ask.map, aim, reference, noise: noise ?? 0 });
  const map = thinMap(ask.map, MOST_READINGS);
  if (!(aim > 0)) throw new RangeError(`shapeCures needs an aim above 0 mm, got ${aim}`);
  if (reference !== null && !(reference >= 0))
    throw new RangeError(`shapeCures needs a flatness of 0 or more, got ${reference}`);
  // Flatness hangs on single readings: it is that of all of them.
  const before = flatness(ask.map).value;
  const shape = describeShape(map, noise === undefined ? {} : { noise });
  const within = (leaves: number | null) => (leaves === null ? null : leaves <= aim);
  const cure = (
    id: CureId,
    leaves: number | null,
    needs: CureNeed[] = [],
    not: ShapeCure['not'] = null,
  ): ShapeCure => ({
    cure: id,
    leaves,
    within: within(leaves),
    needs,
    not,
    shims: null,
  });
  const gains = (leaves: number) => leaves <= (1 - LEAST_GAIN) * before;

  const shims =
    tape && before > aim && family === 'filament' ? planShims({ map, tape, aim, noise, plate: ask.plate }) : null;
  const eased = easedTo(map, before);
  const followed = followedTo(map, shape.noise?.sd ?? 0);
  const cures: ShapeCure[] = [
    cure('mount', before),
    shape.name === 'high-region' ? cure('under-bed', null) : cure('under-bed', null, [], 'nothing-there'),
    shape.name === 'bump' ? cure('under-sheet', null) : cure('under-sheet', null, [], 'nothing-there'),
    shims === null
      ? cure(
          'shim',
          null,
          ['measure-tape'],
          family === 'resin' ? 'not-this-family' : tape === null ? 'no-tape' : 'no-gain',
        )
      : {
          ...cure(
            'shim',
            shims.after,
            ask.tapeMeasured ? [] : ['measure-tape'],
            shims.verdict === 'no' ? 'no-gain' : null,
          ),
          shims,
        },
    cure('ease', eased, ['heater-off'], bendable === false ? 'forbidden' : gains(eased) ? null : 'no-gain'),
    ask.compensation
      ? cure('map', followed, ['compensation'])
      : cure('map', followed, ['compensation'], family === 'resin' ? 'not-this-family' : 'no-compensation'),
    family === 'filament'
      ? cure(
          'glass-pad',
          reference,
          ['prove-glass', 'stack-changes'],
          reference !== null && !gains(reference) ? 'no-gain' : null,
        )
      : cure('glass-pad', null, [], 'not-this-family'),
    family === 'filament'
      ? cure(
          'glass-clips',
          reference,
          ['prove-glass', 'air-gap', 'stack-changes'],
          reference !== null && !gains(reference) ? 'no-gain' : null,
        )
      : cure('glass-clips', null, [], 'not-this-family'),
    family === 'resin'
      ? cure('lap', reference, ['prove-reference'], reference !== null && !gains(reference) ? 'no-gain' : null)
      : cure('lap', null, [], 'not-this-family'),
    // How flat it comes back is what was ordered: nothing here says it.
    cure('machinist', null, ['price'], before > aim ? null : 'no-gain'),
  ];
  return {
    shape,
    flatness: before,
    cures: cures.sort((p, q) => rank(p) - rank(q) || WORK.indexOf(p.cure) - WORK.indexOf(q.cure)),
  };

  function rank({ cure: id, not, within: good, leaves }: ShapeCure): number {
    if (not !== null) return 9;
    // What presses from below, or lies beneath the sheet, costs nothing to look for.
    if (id === 'under-bed' || id === 'under-sheet') return 0;
    if (good) return 1;
    return leaves === null ? 2 : 3;
  }
}

/** From the least work to the most. Our own order. */
const WORK: readonly CureId[] = [
  'mount',
  'under-bed',
  'under-sheet',
  'map',
  'shim',
  'glass-pad',
  'glass-clips',
  'lap',
  'ease',
  'machinist',
];

/** What is left when the bow along the direction that bends easiest is taken out but for what hands leave of it, mm. */
function easedTo(map: readonly HeightPoint[], before: number): number {
  const xs = map.map(({ x }) => x);
  const ys = map.map(({ y }) => y);
  const scaled = (values: readonly number[]) => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return values.map((value) => (2 * value - low - high) / (high - low || 1));
  };
  const [u, v] = [scaled(xs), scaled(ys)];
  let least = before;
  for (const bend of [
    (i: number) => u[i]! ** 2,
    (i: number) => v[i]! ** 2,
    (i: number) => ((u[i]! + v[i]!) / 2) ** 2,
    (i: number) => ((u[i]! - v[i]!) / 2) ** 2,
  ]) {
    const { solution } = solveLeast(
      map.map((_, i) => [1, u[i]!, v[i]!, bend(i)]),
      map.map(({ z }) => z),
    );
    const rest = map.map((point, i) => ({ ...point, z: point.z - (1 - EASED_LEAVES) * solution[3]! * bend(i) }));
    least = Math.min(least, flatness(rest).value);
  }
  return least;
}

/**
 * What a machine leaves that follows its map in straight lines from reading to reading, mm: an eighth of the largest second
 * difference of either sign, along both directions, and twice the scatter that it follows too.
 * Source: error of linear interpolation, e.g. G. Dahlquist, Å. Björck, Numerical Methods in Scientific Computing I, §4.2.
 */
function followedTo(map: readonly HeightPoint[], noise: number): number {
  const grid = gridOf(map);
  if (!grid) return 2 * noise;
  // Between four readings a bed sags along both directions at once; beside a hump it stands up: all of it is left.
  const lines = [grid.heights, grid.xs.map((_, c) => grid.heights.map((row) => row[c]!))];
  const sags = lines.flatMap((along) =>
    ([1, -1] as const).map((sign) => Math.max(0, ...along.map((line) => sagOf(line, sign)))),
  );
  return sags.reduce((sum, sag) => sum + sag, 0) + 2 * noise;
}

/**
 * What a line through readings may miss between them to one side, mm: an eighth of how it bends that way; where it bends to and
 * fro, all of that.
 */
function sagOf(heights: readonly number[], sign: 1 | -1): number {
  const bends = heights.slice(1, -1).map((z, i) => sign * (heights[i]! - 2 * z + heights[i + 2]!));
  return bends.reduce((most, bend, i) => {
    if (!(bend > 0)) return most;
    // A bend with its opposite beside it is narrower than the readings are apart: its top may lie anywhere between.
    const narrow = [bends[i - 1], bends[i + 1]].some((next) => next !== undefined && -next > NARROW * bend);
    return Math.max(most, bend / (narrow ? 2 : 8));
  }, 0);
}

/** Share of a bend that its neighbour has the other way round where a shape is narrower than the readings are apart. */
const NARROW = 0.3;
