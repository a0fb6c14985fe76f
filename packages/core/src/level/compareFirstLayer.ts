import { needNumbers } from '../needNumbers';
import { DegenerateInput } from './errors';
import { spreadOf, type HeightPoint } from './HeightPoint';
import { solveLeast } from './solveLeast';

/** Readings of a printed first layer at one place, mm; and how its lines look, where nobody has calipers. */
export interface LayerPlace {
  x: number;
  y: number;
  thickness: readonly number[];
  look?: LayerLook | null | undefined;
}
/** gaps: nozzle too high · touching: as wanted · ridged: too low */
export const LAYER_LOOKS = ['gaps', 'touching', 'ridged'] as const;
export type LayerLook = (typeof LAYER_LOOKS)[number];

/**
 * compensated: thickness does not follow the map · not-applied: it falls by as much as the bed is higher · wrong: it rises
 * where the bed is high (applied twice, or an old map), falls by twice as much (applied the wrong way round), or by half as much
 * (applied in part) · else:
 * neither, or not by the map · sign: it would be one thing with + for higher and another with + for lower · untold: these
 * can't tell
 */
export type LayerVerdict = 'compensated' | 'not-applied' | 'wrong' | 'else' | 'sign' | 'untold';
/** Of what is wrong: by the slope. */
export type WrongWay = 'twice-or-stale' | 'reversed' | 'partly';

export interface FirstLayerComparison {
  verdict: LayerVerdict;
  way: WrongWay | null;
  /** thickness = k − slope·height, with one standard deviation of the slope; null: all at one height, or one place. */
  slope: { value: number; sd: number } | null;
  /** Mean thickness less the nominal layer, mm: zero's share; null where no nominal is told. */
  over: number | null;
  /** Standard deviation of one caliper reading, mm, and where from. */
  noise: { sd: number; by: 'repeats' | 'usual' };
  /** How many readings more, and at which places, would tell; null: it is told, or more would not. */
  more: { readings: number; at: { x: number; y: number }[] } | null;
  /** Places whose look does not fit their thickness: read again. */
  odd: { x: number; y: number }[];
}

/** One caliper reading of a soft layer, mm: resolution 0.01 and the hand. Common practice. */
export const USUAL_NOISE = 0.015;
const RESOLUTION = 0.01;
/** The nearest two of them are so far apart. */
const APART = 0.5;
/** What a slope is where compensation works, is off, in part, doubled, and reversed. */
const HYPOTHESES = [
  { slope: 0, verdict: 'compensated', way: null },
  { slope: 1, verdict: 'not-applied', way: null },
  { slope: 0.5, verdict: 'wrong', way: 'partly' },
  { slope: -1, verdict: 'wrong', way: 'twice-or-stale' },
  { slope: 2, verdict: 'wrong', way: 'reversed' },
] as const;
/** A hypothesis stands within so many deviations, and falls beyond; between nothing is said. Our own, for 98 in 100. */
const STANDS = 2.4;
const FALLS = 2.6;
/** A map whose heights lie within this of each other tells nothing, mm. */
const LEAST_HEIGHTS = 0.005;
/** More readings a place than this are asked of nobody. */
const MOST_MORE = 60;

/**
 * Whether a machine follows its height map: thickness of a printed first layer against the heights it was printed on.
 *
 * thickness = k − slope·height, by weighted least squares; the slope and its deviation are held against 0, 1, −1 and 2. Only
 * where one stands and all others fall is it said; where the scatter at the places is more than calipers make, it is something
 * else. + is higher in the map; where nobody knows, both readings are tried. How lines look says only on which side of the wanted
 * layer a place lies, and that hangs on zero as much as on the map: looks alone give no verdict.
 * @param nominal height of the layer as it was asked for, mm; null: nobody knows
 * @param sign what + means in the map; null: not settled
 * @throws DegenerateInput no places with a reading
 * @throws RangeError numbers that can't be
 * Source: the four slopes are arithmetic: a nozzle that follows c times the map leaves a layer of k + (c − 1)·height; signs and
 * cautions common practice.
 */
export function compareFirstLayer({
  readings,
  map,
  nominal = null,
  sign = 'higher',
  noise,
}: {
  readings: readonly LayerPlace[];
  map: (place: { x: number; y: number }) => number;
  nominal?: number | null | undefined;
  sign?: 'higher' | null | undefined;
  noise?: number | undefined;
}): FirstLayerComparison {
  needNumbers('compareFirstLayer', { readings, nominal, noise: noise ?? 1 });
  if (nominal !== null && !(nominal > 0))
    throw new RangeError(`compareFirstLayer needs a layer above 0 mm, got ${nominal}`);
  if (noise !== undefined && !(noise >= 1e-4))
    throw new RangeError(`compareFirstLayer needs noise of 0.0001 mm or more, got ${noise}`);
  const looked = readings.flatMap((place) => placeOf(place, map));
  const places = looked.filter(({ count }) => count > 0);
  if (looked.length === 0) throw new DegenerateInput('compareFirstLayer needs at least 1 place with a reading, got 0');
  const scatter = noise === undefined ? noiseOf(readings) : { sd: noise, by: 'usual' as const };
  for (const place of places) place.sd = scatter.sd / Math.sqrt(place.count);
  const odd = places
    .filter(({ look, mean }) => look !== null && nominal !== null && isOdd(look, mean, nominal))
    .map(({ x, y }) => ({ x, y }));
  const all =
    places.reduce((sum, { mean, sd }) => sum + mean / sd ** 2, 0) /
    places.reduce((sum, { sd }) => sum + 1 / sd ** 2, 0);
  const told = { over: nominal === null || places.length === 0 ? null : all - nominal, noise: scatter, odd };
  const heights = places.map(({ height }) => height);
  const spread = places.length < 2 ? 0 : spreadOf(heights).range;
  if (!(spread > LEAST_HEIGHTS)) {
    // Places that were only looked at are where calipers would tell.
    const reach = looked.length < 2 ? 0 : spreadOf(looked.map(({ height }) => height)).range;
    const more =
      reach > LEAST_HEIGHTS && places.length < looked.length
        ? moreOf(looked, { sd: Infinity }, scatter.sd, reach)
        : null;
    return { ...told, verdict: 'untold', way: null, slope: null, more };
  }
  const mid = heights.reduce((sum, height) => sum + height, 0) / heights.length;
  const {
    solution,
    spread: sds,
    residuals,
  } = solveLeast(
    places.map(({ height, sd }) => [1 / sd, (mid - height) / sd]),
    places.map(({ mean, sd }) => mean / sd),
  );
  const slope = { value: solution[1]!, sd: sds[1]! };
  const chi = residuals.reduce((sum, rest) => sum + rest * rest, 0);
  const freedom = places.length - 2;
  // Places that scatter by more than calipers do don't hang on the map alone.
  const strange = freedom > 0 && chi > freedom + 3.1 * Math.sqrt(2 * freedom) + 4;
  const found = strange ? elseOf(slope) : verdictFor(slope.value, slope.sd);
  const answer = {
    ...told,
    slope,
    more: found.verdict === 'untold' ? moreOf(places, slope, scatter.sd, spread) : null,
  };
  if (sign === 'higher' || found.verdict === 'untold' || found.verdict === 'compensated' || found.verdict === 'else')
    return { ...answer, ...found };
  // With the other sign it would be another thing: that has to be settled first.
  return { ...answer, verdict: 'sign', way: null };
}

interface Place {
  x: number;
  y: number;
  height: number;
  /** Of its readings; NaN where it was only looked at. */
  mean: number;
  sd: number;
  count: number;
  look: LayerLook | null;
}

function placeOf(
  { x, y, thickness, look = null }: LayerPlace,
  map: (place: { x: number; y: number }) => number,
): Place[] {
  for (const one of thickness)
    if (!(one > 0 && one <= 5))
      throw new RangeError(`compareFirstLayer needs a thickness above 0 and up to 5 mm, got ${one}`);
  if (look !== null && !LAYER_LOOKS.includes(look))
    throw new RangeError(`compareFirstLayer knows looks ${LAYER_LOOKS.join(', ')}, got ${String(look)}`);
  const height = map({ x, y });
  if (!(Math.abs(height) <= 100))
    throw new RangeError(`compareFirstLayer needs a height at (${x}, ${y}), got ${height}`);
  const count = thickness.length;
  if (count === 0 && look === null) return [];
  const mean = count === 0 ? NaN : thickness.reduce((sum, one) => sum + one, 0) / count;
  return [{ x, y, height, mean, sd: 0, count, look }];
}

const isOdd = (look: LayerLook, mean: number, nominal: number) =>
  (look === 'gaps' && mean < nominal * 0.95) || (look === 'ridged' && mean > nominal * 1.05);

/** From repeats where there are enough, never below what the resolution alone makes; else the usual. */
function noiseOf(readings: readonly LayerPlace[]): FirstLayerComparison['noise'] {
  let [squares, freedom] = [0, 0];
  for (const { thickness } of readings) {
    if (thickness.length < 2) continue;
    const mean = thickness.reduce((sum, one) => sum + one, 0) / thickness.length;
    squares += thickness.reduce((sum, one) => sum + (one - mean) ** 2, 0);
    freedom += thickness.length - 1;
  }
  if (freedom < 4) return { sd: Math.hypot(USUAL_NOISE, RESOLUTION / Math.sqrt(12)), by: 'usual' };
  // A few repeats can look alike by chance: they count beside the usual, as much as ten would.
  const PRIOR = 10;
  const usual = USUAL_NOISE ** 2 + RESOLUTION ** 2 / 12;
  return { sd: Math.sqrt((squares + PRIOR * usual) / (freedom + PRIOR)), by: 'repeats' };
}

function verdictFor(value: number, sd: number): { verdict: LayerVerdict; way: WrongWay | null } {
  const away = HYPOTHESES.map(({ slope }) => Math.abs(value - slope) / sd);
  const stands = HYPOTHESES.filter((_, i) => away[i]! <= STANDS);
  const open = HYPOTHESES.filter((_, i) => away[i]! <= FALLS);
  if (stands.length === 1 && open.length === 1 && sd <= APART / (STANDS + FALLS))
    return { verdict: stands[0]!.verdict, way: stands[0]!.way };
  // It lies between all of them, and is known well enough to say so.
  if (open.length === 0 && away.every((one) => one > FALLS + 0.6)) return { verdict: 'else', way: null };
  return { verdict: 'untold', way: null };
}

const elseOf = ({ sd }: { sd: number }): { verdict: LayerVerdict; way: null } => ({
  verdict: sd < 1 ? 'else' : 'untold',
  way: null,
});

/** How many readings more at the highest and the lowest place make the slope as sure as a verdict needs. */
function moreOf(
  places: readonly Place[],
  { sd }: { sd: number },
  noise: number,
  spread: number,
): FirstLayerComparison['more'] {
  const wanted = (0.9 * APART) / (STANDS + FALLS);
  if (sd <= wanted) return null;
  const sorted = [...places].sort((p, q) => p.height - q.height);
  const [low, high] = [sorted[0]!, sorted.at(-1)!];
  // Readings at both ends alike: variance 2·noise²/(n·spread²), beside what is known already.
  const missing = 1 / wanted ** 2 - (Number.isFinite(sd) ? 1 / sd ** 2 : 0);
  const each = Math.ceil((missing * 2 * noise ** 2) / spread ** 2);
  if (2 * each > MOST_MORE) return null;
  return { readings: 2 * each, at: [high, low].map(({ x, y }) => ({ x, y })) };
}

/** Places on a plate where a layer is worth measuring: the map's highest and lowest, and the middle and corners between. */
export function layerPlaces(map: readonly HeightPoint[], most: number): HeightPoint[] {
  const chosen: HeightPoint[] = [];
  const sorted = [...map].sort((p, q) => q.z - p.z);
  const far = (point: HeightPoint) => chosen.every((other) => Math.hypot(point.x - other.x, point.y - other.y) > 1);
  const add = (point: HeightPoint | undefined) => {
    if (point && chosen.length < most && far(point)) chosen.push(point);
  };
  add(sorted[0]);
  add(sorted.at(-1));
  // The others where they are farthest from those chosen.
  while (chosen.length < Math.min(most, map.length)) {
    let best: HeightPoint | undefined;
    let distance = 0;
    for (const point of map) {
      const one = Math.min(...chosen.map((other) => Math.hypot(point.x - other.x, point.y - other.y)));
      if (one > distance) [best, distance] = [point, one];
    }
    if (!best) break;
    chosen.push(best);
  }
  return chosen;
}
