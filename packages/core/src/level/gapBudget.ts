import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';
import { normalBelow } from './feelBelief';

/** The ways to level a resin platform. */
export const RESIN_WAYS = ['quarters', 'sheet', 'film', 'lock'] as const;
export type ResinWay = (typeof RESIN_WAYS)[number];

/** A length with what is known of it: one standard deviation. mm. */
export interface Known {
  value: number;
  sd: number;
}

/** What stands between a platform's zero and its first layer. mm. */
export interface GapBudgetAsk {
  way: ResinWay;
  /** The sheet it was levelled on, as it lies; null: the film itself was the gauge. */
  gauge: Known | null;
  film: Known;
  /** What a sheet and what the film give under the platform's press. */
  gaugeGives: Known;
  filmGives: Known;
  /** By how much it was raised before zero was set. */
  raise: number;
  /** Height of the first layer as the print asks for it. */
  firstLayer: number;
}

/** press: it comes down onto the film before its first layer · foot, even, loose: what the first layers do · unsure: what is known doesn't say */
export type FirstGapExpect = 'presses' | 'foot' | 'even' | 'loose' | 'unsure';

export interface GapBudget {
  /** Between platform and film at the height of the first layer. */
  gap: Known;
  expect: FirstGapExpect;
  /** How likely a foot and a loose first layer are. */
  likely: { foot: number; loose: number };
  /** By how much to jog zero, + up, in hundredths; never so far down that it could press. */
  jog: number;
  /** What would tell most where it is unsure. */
  measure: 'gauge' | 'film' | null;
}

/** What office paper and film give under a platform that is held down by hand. Common practice; measured by nobody here. */
export const USUAL_GIVES = { gauge: { value: 0.015, sd: 0.008 }, film: { value: 0.008, sd: 0.005 } } as const;

/** A first gap that differs from its layer by more than this share shows as a foot, or does not hold. Common practice. */
const SHOWS = 1 / 3;
/** It is said what comes where it is so likely. */
const SAID = 0.8;
/** Steps of a jog, mm. A tenth would be four times what lies between two papers. Common practice. */
export const JOG = 0.01;

/**
 * The first gap of a resin print from what stands in it. On sheets: gauge − its give + raise − (film − its give) + first
 * layer. With the film as gauge, and at the first-layer lock whose zero was raised by the dummy's first layer: what the film
 * gave springs back, so first layer + raise − its give.
 * @throws RangeError a thickness that can't be, a sheet where none lies
 * @example gapBudget({ way: 'quarters', gauge: { value: 0.1, sd: 0.002 }, film: { value: 0.127, sd: 0.002 },
 *   gaugeGives: { value: 0, sd: 0 }, filmGives: { value: 0, sd: 0 }, raise: 0, firstLayer: 0.05 }).gap.value // 0.023
 */
export function gapBudget(ask: GapBudgetAsk): GapBudget {
  const { way, gauge, film, gaugeGives, filmGives, raise, firstLayer } = ask;
  needNumbers('gapBudget', { film, gaugeGives, filmGives, raise, firstLayer, ...(gauge ? { gauge } : {}) });
  const onSheets = way === 'quarters' || way === 'sheet';
  if (onSheets !== (gauge !== null)) throw new RangeError('gapBudget needs a gauge on sheets, and none on film');
  if (!(firstLayer > 0)) throw new RangeError(`gapBudget needs a first layer above 0 mm, got ${firstLayer}`);
  if (!(film.value > 0)) throw new RangeError(`gapBudget needs a film above 0 mm, got ${film.value}`);
  for (const { sd } of [film, gaugeGives, filmGives, ...(gauge ? [gauge] : [])])
    if (!(sd >= 0)) throw new RangeError(`gapBudget needs uncertainties of 0 or more, got ${sd}`);
  const gap: Known = gauge
    ? {
        value: gauge.value - gaugeGives.value + raise - film.value + filmGives.value + firstLayer,
        sd: Math.hypot(gauge.sd, gaugeGives.sd, film.sd, filmGives.sd),
      }
    : { value: firstLayer + raise - filmGives.value, sd: filmGives.sd };
  const foot = below(firstLayer * (1 - SHOWS), gap);
  const loose = 1 - below(firstLayer * (1 + SHOWS), gap);
  const presses = below(0, gap);
  const expect =
    presses >= SAID
      ? 'presses'
      : foot >= SAID
        ? 'foot'
        : loose >= SAID
          ? 'loose'
          : 1 - foot - loose >= SAID
            ? 'even'
            : 'unsure';
  return {
    gap,
    expect,
    likely: { foot, loose },
    jog: jogFor(gap, firstLayer),
    measure: expect !== 'unsure' ? null : gauge && gauge.sd > film.sd ? 'gauge' : 'film',
  };
}

/** Up: to the layer, rounded up. Down: only by what it surely has too much, rounded towards less. */
function jogFor({ value, sd }: Known, firstLayer: number): number {
  const over = value - firstLayer;
  // A hair of the sum's own rounding is no step.
  if (over < 0) return steps(Math.ceil(-over / JOG - 1e-9));
  return 0 - steps(Math.max(0, Math.floor((over - 2 * sd) / JOG + 1e-9)));
}
const steps = (count: number) => Math.round(count) / 100;

/** Share of what is known below an edge. */
const below = (edge: number, { value, sd }: Known) =>
  sd === 0 ? Number(value < edge) : normalBelow((edge - value) / sd);

/** Heights of the same piece printed flat on the platform and, as control, on supports, where nothing squeezes it. mm. */
export interface FootAsk {
  flat: readonly number[];
  control: readonly number[];
}

export interface FootZero {
  /** What the flat ones lack in height, with its uncertainty; − they are taller. */
  squeezed: Known;
  verdict: 'raise' | 'lower' | 'stays' | 'unsure';
  /** By how much zero is to be moved, + up, in hundredths. */
  jog: number;
  /** How many more of each would tell, where it is unsure. */
  more: number | null;
}

/** What calipers and prints scatter at least, one standard deviation, mm. Common practice. */
const SCATTER = 0.01;

/**
 * Zero corrected by a foot: the same piece is shorter flat on the platform than on supports by what its first layers were
 * squeezed. The bulge to the side says only which way. Student's t with the scatter as it was seen, 19 times in 20.
 * @throws RangeError no reading of either, one that is not above 0
 */
export function footZero({ flat, control }: FootAsk): FootZero {
  for (const list of [flat, control]) {
    if (list.length === 0) throw new RangeError('footZero needs a height of each, flat and on supports');
    for (const value of list)
      if (!(value > 0 && value < 1000)) throw new RangeError(`footZero needs heights above 0 mm, got ${value}`);
  }
  const value = meanOf(control) - meanOf(flat);
  const freedom = flat.length + control.length - 2;
  const scatter = Math.max(SCATTER, pooled(flat, control));
  const sd = scatter * Math.sqrt(1 / flat.length + 1 / control.length);
  const squeezed = { value, sd };
  // One of each shows nothing of what heights scatter by: nothing is moved on its word.
  const give = freedom === 0 ? Infinity : tQuantile(0.975, freedom) * sd;
  if (Math.abs(value) <= JOG / 2 && give <= JOG) return { squeezed, verdict: 'stays', jog: 0, more: null };
  const lower = Math.max(0, Math.floor((-value - give) / JOG + 1e-9));
  if (Math.abs(value) < give || (value < 0 && lower === 0)) {
    // So many of each that a hundredth would show.
    const wanted = Math.ceil(2 * (2 * (scatter / Math.max(Math.abs(value), JOG))) ** 2);
    const more = Math.max(1, wanted - Math.min(flat.length, control.length));
    return { squeezed, verdict: 'unsure', jog: 0, more };
  }
  return value > 0
    ? { squeezed, verdict: 'raise', jog: steps(Math.ceil(value / JOG - 1e-9)), more: null }
    : { squeezed, verdict: 'lower', jog: 0 - steps(lower), more: null };
}

const meanOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
function pooled(...lists: readonly (readonly number[])[]): number {
  const squares = lists.reduce((sum, list) => {
    const mean = meanOf(list);
    return sum + list.reduce((all, value) => all + (value - mean) ** 2, 0);
  }, 0);
  const free = lists.reduce((sum, list) => sum + list.length - 1, 0);
  return free === 0 ? 0 : Math.sqrt(squares / free);
}
