import { needNumbers } from '../needNumbers';
import { describeShape } from './describeShape';
import { DegenerateInput } from './errors';
import { flatness, type Flatness } from './flatness';
import { gridOf } from './gridOf';
import { extentOf, type HeightPoint } from './HeightPoint';
import { smoothBetween } from './heightsBetween';
import { thinMap } from './thinMap';

export interface ShimTape {
  /** Of one layer, measured, mm. */
  thickness: number;
  width: number;
}

/** One strip of tape. It lies along x or y, its middle at `at` across; from and to along, mm on the plate. */
export interface ShimStrip {
  along: 'x' | 'y';
  at: number;
  from: number;
  to: number;
  /** 1: on the plate, 2: on the strip below. */
  layer: number;
}

/** In what order a person lays them: the first layers first, from the middle of the dip outward. */
export interface ShimPlan {
  /**
   * flat: within the aim as it is · cures: within the aim after · helps: better, not within · no: strips don't cure this shape
   */
  verdict: 'flat' | 'cures' | 'helps' | 'no';
  /**
   * Why strips don't: bump, region: look under sheet or bed first · coarse: the step of one layer leaves more than three quarters
   * of what is to be cured · shape: no set of strips makes it a quarter better
   */
  why: 'bump' | 'region' | 'coarse' | 'shape' | null;
  strips: ShimStrip[];
  /** Range after the screws took the tilt out, mm: of the readings as they are. */
  before: number;
  /**
   * What stays on the whole plate with the strips, mm, and what the verdict goes by: between the readings too, where at each
   * strip's edge a step of a layer stays. A sheet bridges some of that, a pane does not.
   */
  after: number;
  /** What stays at the readings, mm: what a probe would show afterwards. Never more than `after`. */
  atReadings: number;
  /** Length of tape, mm, with `SPARE` for trimming at each end of each strip. */
  tape: number;
  /** Tracks of tape side by side, and layers at the thickest. */
  tracks: number;
  layers: number;
  /** Nothing better was left out; false: the search was stopped, there may be better. */
  proven: boolean;
}

/** Tape beyond each end of a strip that is trimmed off, mm. Common practice. */
export const SPARE = 10;
/** A plan must take off a quarter at least: tape that does less is not worth its glue. Our own choice. */
const LEAST_GAIN = 0.25;
/** Fewer strips are worth this much range, mm: a probe tells no less; what the readings scatter by is worth it too. Our own choice. */
const WORTH = 0.005;
const MOST_LAYERS = 4;
/** More readings are thinned out first: tape is wider than they are apart. */
const MOST_READINGS = 900;
/** Where a strip may end: more rows of readings give no more places for it. */
const MOST_STOPS = 12;
/** How much better a plan could be that was not looked at, mm: less than a probe tells. */
const CLOSE = 0.001;
/** Places a side between readings, for the plan that is said; for those that are tried. */
const FINE = 41;
const COARSE = 24;
/** Higher than any reading. */
const MOST = Infinity;
const { ceil } = Math;
/** Planes tried a lattice before the search says that it stopped. */
const MOST_TRIED = 4_000;

export interface PlanShimsAsk {
  /** Heights of the bare plate, mm, + higher. */
  map: readonly HeightPoint[];
  tape: ShimTape;
  /** Along which side strips lie; not said: whichever leaves less. */
  direction?: 'x' | 'y' | undefined;
  maxLayers?: number | undefined;
  /** Range that is asked for, mm; not said: none, as little as can be. */
  aim?: number | undefined;
  /** Standard deviation of one reading, mm, where it is known: less than that is no gain. */
  noise?: number | undefined;
  /** Range that one strip less is worth, mm; not said: `WORTH`, or the noise where that is more. */
  worth?: number | undefined;
  /** Of the plate, mm; not said: where the readings lie. */
  plate?: { width: number; depth: number } | undefined;
}

/**
 * Strips of adhesive tape that make a plate flat: where, how long, how many on each other.
 *
 * Tracks of tape lie side by side, on one of a few lattices across the plate: one track in the middle, an edge between two
 * there, or a track's middle on a row of readings. Each track carries strips on each other, each as long as the one below or
 * shorter. Of all such plans the one with the least range after re-levelling (screws take tilt, and nothing else, out), then, of
 * all within `WORTH` of that, the fewest strips, then the least tape. The range is that of the whole plate: of the readings, of
 * a smooth bed between them, and of both sides of each strip's edge.
 *
 * For a given plane and a floor that nothing may lie below, the tracks are independent: each piece of a track from one stop to
 * the next asks for a number of layers, and the least laying that gives each its number and never thins toward its middle is the
 * lesser of what is asked for up to there and from there on. It is also the one with the fewest strips and the least tape. Over
 * planes it is searched by branch and bound: tilting by a rise changes a range by no more than that rise, so that squares of
 * planes that can't be better by `CLOSE` are left out. What was found is then levelled exactly, by the minimum zone.
 * @throws DegenerateInput a map of fewer than 4 readings or all in one line
 * @throws RangeError sizes that can't be
 */
export function planShims(ask: PlanShimsAsk): ShimPlan {
  const { tape, direction, aim, maxLayers = 2 } = ask;
  needNumbers('planShims', {
    tape,
    aim: aim ?? 0,
    maxLayers,
    plate: ask.plate,
    noise: ask.noise ?? 0,
    worth: ask.worth ?? 0,
  });
  if (!(tape.thickness > 0.005 && tape.thickness <= 1))
    throw new RangeError(`planShims needs tape of 0.005 to 1 mm, got ${tape.thickness}`);
  if (!(tape.width >= 3 && tape.width <= 500))
    throw new RangeError(`planShims needs tape 3 to 500 mm wide, got ${tape.width}`);
  if (!(Number.isInteger(maxLayers) && maxLayers >= 1 && maxLayers <= MOST_LAYERS))
    throw new RangeError(`planShims needs 1 to ${MOST_LAYERS} layers, got ${maxLayers}`);
  if (aim !== undefined && !(aim > 0)) throw new RangeError(`planShims needs an aim above 0 mm, got ${aim}`);
  if (direction !== undefined && direction !== 'x' && direction !== 'y')
    throw new RangeError(`planShims knows directions x, y, got ${String(direction)}`);
  if (ask.map.length < 4) throw new DegenerateInput(`planShims needs at least 4 readings, got ${ask.map.length}`);
  const map = thinMap(ask.map, MOST_READINGS);
  const before = flatness(ask.map).value;
  const none = { tape: 0, tracks: 0, layers: 0, proven: true };
  const nothing = { strips: [], before, after: before, atReadings: before, ...none };
  if (aim !== undefined && before <= aim) return { ...nothing, verdict: 'flat', why: null };
  const { name } = describeShape(ask.map, ask.noise ? { noise: ask.noise } : {});
  if (name === 'bump') return { ...nothing, verdict: 'no', why: 'bump' };
  if (name === 'high-region') return { ...nothing, verdict: 'no', why: 'region' };
  // At an end of a strip a whole layer's step stays.
  if (tape.thickness > (1 - LEAST_GAIN) * before) return { ...nothing, verdict: 'no', why: 'coarse' };

  const plate = ask.plate ? { x0: 0, y0: 0, x1: ask.plate.width, y1: ask.plate.depth } : extentOf(map);
  const bed = { map, at: smoothBetween(map, gridOf(map)), flat: flatness(map) };
  const lattices = (direction ? [direction] : (['x', 'y'] as const))
    .flatMap((along) => latticesOf(map, plate, tape.width, along))
    .map((lattice) => new Laid(bed, lattice, tape, maxLayers));
  let proven = true;
  let least = before;
  for (const lattice of lattices) {
    const one = lattice.leastRange(least);
    proven &&= one.proven;
    least = Math.min(least, one.range);
  }
  const worth = Math.max(ask.worth ?? WORTH, ask.noise ?? 0);
  let found: { strips: ShimStrip[]; tape: number } | null = null;
  for (const lattice of lattices) {
    const one = lattice.fewestStrips(least + worth, found);
    proven &&= one.proven;
    found = one.found;
  }
  const strips = found ? inOrder(found.strips) : [];
  const after = found ? shimmedRange(map, strips, tape) : before;
  if (strips.length === 0 || !(after <= (1 - LEAST_GAIN) * before))
    return { ...nothing, proven, verdict: 'no', why: 'shape' };
  return {
    verdict: aim !== undefined && after > aim ? 'helps' : 'cures',
    why: null,
    strips,
    before,
    after,
    atReadings: flatness(raised(ask.map, strips, tape)).value,
    tape: strips.reduce((sum, { from, to }) => sum + to - from + 2 * SPARE, 0),
    tracks: new Set(strips.map(({ at }) => at)).size,
    layers: Math.max(...strips.map(({ layer }) => layer)),
    proven,
  };
}

/** The heights with strips laid: what lies under one is higher by a layer. */
export const raised = (map: readonly HeightPoint[], strips: readonly ShimStrip[], tape: ShimTape): HeightPoint[] =>
  map.map((point) => ({
    ...point,
    z: point.z + tape.thickness * strips.filter((strip) => covers(strip, tape.width, point)).length,
  }));

/**
 * Range of the whole plate with strips on it, re-levelled, mm: readings, a smooth bed between them, and both sides of each edge.
 * @throws DegenerateInput a map of fewer than 4 readings, all in one line, or not numbers
 */
export function shimmedRange(readings: readonly HeightPoint[], strips: readonly ShimStrip[], tape: ShimTape): number {
  const map = thinMap(readings, MOST_READINGS);
  const { x0, y0, x1, y1 } = extentOf(map);
  const places = strips.map((strip) => placeOf(strip, tape.width));
  const [xs, ys] = [
    linesAt(
      x0,
      x1,
      places.flatMap(({ x, width }) => [x, x + width]),
    ),
    linesAt(
      y0,
      y1,
      places.flatMap(({ y, depth }) => [y, y + depth]),
    ),
  ];
  const at = smoothBetween(map, gridOf(map));
  const fine = xs.flatMap((x) => ys.map((y): HeightPoint => ({ x, y, z: at(x, y) })));
  return flatness(raised([...readings, ...fine], strips, tape)).value;
}

/** Even places from one to another, and both sides of each edge between them. */
const linesAt = (from: number, to: number, edges: readonly number[]): number[] =>
  [...spaced(from, to, FINE), ...new Set(edges.flatMap((edge) => [edge - SIDE, edge + SIDE]))].filter(
    (place) => place >= from && place <= to,
  );

/** So far on each side of an edge is beside it, mm: nearer places can't be told apart by the sum. */
const SIDE = 0.01;

const spaced = (from: number, to: number, count: number) =>
  Array.from({ length: count }, (_, i) => from + ((to - from) * i) / (count - 1));

/** The rectangle that a strip lies on, mm on the plate. */
export const placeOf = ({ along, at, from, to }: ShimStrip, width: number) =>
  along === 'x'
    ? { x: from, y: at - width / 2, width: to - from, depth: width }
    : { x: at - width / 2, y: from, width, depth: to - from };

/** The edge that is nearer the middle of a track has a reading that lies right on it. */
const covers = ({ along, at, from, to }: ShimStrip, width: number, { x, y }: HeightPoint) => {
  const [across, length] = along === 'x' ? [y, x] : [x, y];
  return (
    across >= at - width / 2 - 1e-9 && across < at + width / 2 - 1e-9 && length >= from - 1e-9 && length <= to + 1e-9
  );
};

interface Lattice {
  along: 'x' | 'y';
  /** The middles of its tracks. */
  tracks: number[];
  /** Where a strip may begin and end, from one end of the plate to the other. */
  stops: number[];
}

/** The ways in which tape of this width can lie side by side along one side of the plate. */
function latticesOf(
  map: readonly HeightPoint[],
  plate: { x0: number; y0: number; x1: number; y1: number },
  width: number,
  along: 'x' | 'y',
): Lattice[] {
  const [low, high, begin, end] =
    along === 'x' ? [plate.y0, plate.y1, plate.x0, plate.x1] : [plate.x0, plate.x1, plate.y0, plate.y1];
  const acrossOf = ({ x, y }: HeightPoint) => (along === 'x' ? y : x);
  const modulo = (value: number) => Math.round((((value % width) + width) % width) * 1e6) / 1e6;
  // Halfway between readings: where nothing was read nothing says where the dip ends.
  const lengths = [...new Set(map.map(({ x, y }) => (along === 'x' ? x : y)))].sort((p, q) => p - q);
  const every = Math.ceil(lengths.length / MOST_STOPS);
  const between = lengths.slice(1).map((value, i) => (value + lengths[i]!) / 2);
  const stops = [begin, ...between.filter((_, i) => (i + 1) % every === 0), end];
  // A track's middle on the plate's middle, an edge there, or a middle on a row of readings: few rows, or they are all one.
  const middle = (low + high) / 2;
  const rows = [...new Set(map.map((p) => modulo(acrossOf(p) - low)))];
  const offsets = new Set([modulo(middle - low), modulo(middle - low + width / 2), ...(rows.length <= 5 ? rows : [])]);
  return [...offsets].map((offset) => {
    const tracks: number[] = [];
    // Tape whose middle hangs over the plate would be trimmed to a sliver.
    for (let at = low + offset; at <= high; at += width) tracks.push(at);
    return { along, tracks, stops };
  });
}

/** A square of planes: rise across the map along x and along y at its middle, mm, and half its side. */
interface Square {
  x: number;
  y: number;
  half: number;
  bound: number;
}

const QUARTERS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;

interface Bed {
  map: readonly HeightPoint[];
  /** Height between its readings. */
  at: (x: number, y: number) => number;
  flat: Flatness;
}

/** A lattice with the heights under each piece of its tracks. Layers of a plan are listed piece by piece, track by track. */
class Laid {
  private readonly pieces: number;
  /** Places, as shares of the map about its middle, and heights, one piece after the other; what no track covers comes last. */
  private readonly u: Float64Array;
  private readonly v: Float64Array;
  private readonly z: Float64Array;
  private readonly points: HeightPoint[];
  private readonly ends: number[];
  /** Lowest and highest of each piece for a plane. */
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly tried: Float64Array;
  private readonly reach: number;
  /** How near to the best is near enough, mm: a hundredth of what is to be cured where that is much. */
  private readonly close: number;
  private readonly start: { x: number; y: number };

  constructor(
    { map, at, flat }: Bed,
    private readonly lattice: Lattice,
    private readonly tape: ShimTape,
    private readonly maxLayers: number,
  ) {
    const { tracks, stops, along } = lattice;
    const { x0, y0, x1, y1 } = extentOf(map);
    const [across0, across1, along0, along1] = along === 'x' ? [y0, y1, x0, x1] : [x0, x1, y0, y1];
    this.pieces = stops.length - 1;
    const spots: HeightPoint[][] = Array.from({ length: tracks.length * this.pieces + 1 }, () => []);
    const put = (piece: number, across: number, length: number) => {
      const [x, y] = along === 'x' ? [length, across] : [across, length];
      spots[piece]!.push({ x, y, z: at(x, y) });
    };
    const dense = (from: number, to: number, whole: number) =>
      from > to ? [] : from === to ? [from] : spaced(from, to, 2 + Math.floor((COARSE * (to - from)) / whole));
    for (const [k, track] of tracks.entries()) {
      const rows = dense(
        Math.max(across0, track - tape.width / 2),
        Math.min(across1, track + tape.width / 2),
        across1 - across0,
      );
      for (let i = 0; i < this.pieces; i++)
        for (const length of dense(Math.max(along0, stops[i]!), Math.min(along1, stops[i + 1]!), along1 - along0))
          for (const row of rows) put(k * this.pieces + i, row, length);
    }
    const rest = spots.length - 1;
    const [first, last] = [tracks[0]! - tape.width / 2, tracks.at(-1)! + tape.width / 2];
    for (const row of [
      ...dense(across0, Math.min(across1, first), across1 - across0),
      ...dense(Math.max(across0, last), across1, across1 - across0),
    ])
      for (const length of dense(along0, along1, along1 - along0)) put(rest, row, length);
    // Readings themselves: a lone high one lies between the places.
    for (const point of map) {
      const [across, length] = along === 'x' ? [point.y, point.x] : [point.x, point.y];
      const k = Math.floor((across - first + 1e-9) / tape.width);
      const i = stops.findIndex((stop, n) => n > 0 && length <= stop) - 1;
      spots[k >= 0 && k < tracks.length && i >= 0 ? k * this.pieces + i : rest]!.push(point);
    }
    this.points = spots.flat();
    this.u = Float64Array.from(this.points, ({ x }) => (x - (x0 + x1) / 2) / (x1 - x0));
    this.v = Float64Array.from(this.points, ({ y }) => (y - (y0 + y1) / 2) / (y1 - y0));
    this.z = Float64Array.from(this.points, ({ z }) => z);
    let end = 0;
    this.ends = spots.map((piece) => (end += piece.length));
    this.low = new Float64Array(spots.length);
    this.high = new Float64Array(spots.length);
    this.tried = new Float64Array(spots.length * (maxLayers + 1) + 1);
    this.start = { x: flat.plane.a * (x1 - x0), y: flat.plane.b * (y1 - y0) };
    // With strips the plane can't lie farther off than what they add and what was out before.
    this.reach = flat.value + maxLayers * tape.thickness;
    this.close = Math.max(CLOSE, flat.value / 100);
  }

  /** The least range that this lattice allows where it is below `known`, else `known`. */
  leastRange(known: number): { range: number; proven: boolean } {
    let range = known;
    const proven = this.branch(
      (x, y) => this.bestAt(x, y),
      () => range - this.close,
      ({ cost: here, layers }) => {
        if (layers && here < range) range = this.levelled(layers, here);
      },
    );
    return { range, proven };
  }

  /** The fewest strips within a range, then the least tape, where it is better than what is known. */
  fewestStrips(range: number, known: { strips: ShimStrip[]; tape: number } | null) {
    let found = known;
    const costOf = (one: { strips: ShimStrip[]; tape: number } | null) =>
      one ? one.strips.length + one.tape / 1e6 : Infinity;
    const proven = this.branch(
      (x, y, slack) => this.cheapestAt(x, y, range + slack),
      () => costOf(found) - 1e-9,
      (_, x, y) => {
        const { cost, layers } = this.cheapestAt(x, y, range);
        if (!layers || !(cost < costOf(found))) return;
        const strips = this.stripsOf(layers);
        found = { strips, tape: strips.reduce((sum, { from, to }) => sum + to - from, 0) };
      },
      true,
    );
    return { found, proven };
  }

  /**
   * Best first over squares of planes. `value`: the cost (a range, or strips) that the middle of a square comes to (with a slack
   * it is a bound for the whole square by itself) · `limit`: what is not below it is left out · `reached`: takes what was found.
   */
  private branch<T extends { cost: number }>(
    value: (x: number, y: number, slack: number) => T,
    limit: () => number,
    reached: (value: T, x: number, y: number) => void,
    bounded = false,
  ): boolean {
    // The best bound last: it is taken off the end, and others are put where they belong.
    const open: Square[] = [{ ...this.start, half: this.reach, bound: -Infinity }];
    const put = (square: Square) => {
      let [low, high] = [0, open.length];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (open[middle]!.bound > square.bound) low = middle + 1;
        else high = middle;
      }
      open.splice(low, 0, square);
    };
    for (let tried = 0; open.length > 0; tried++) {
      if (tried > MOST_TRIED) return false;
      const square = open.pop()!;
      // None of the others is better.
      if (square.bound >= limit()) return true;
      const { x, y, half } = square;
      const here = value(x, y, 2 * half);
      reached(here, x, y);
      // Within a square each rise is off by `half` at most: a range by both together.
      const bound = bounded ? here.cost : here.cost - 2 * half;
      if (bound >= limit() || half < this.close / 8) continue;
      for (const [dx, dy] of QUARTERS) put({ x: x + (dx * half) / 2, y: y + (dy * half) / 2, half: half / 2, bound });
    }
    return true;
  }

  /** Lowest and highest of each piece beside a plane; of all together the highest as it is. */
  private look(x: number, y: number): number {
    const { u, v, z: heights, ends } = this;
    let i = 0;
    let top = -MOST;
    for (let piece = 0; piece < ends.length; piece++) {
      let low = MOST;
      let high = -MOST;
      for (const end = ends[piece]!; i < end; i++) {
        const z = heights[i]! - x * u[i]! - y * v[i]!;
        if (z < low) low = z;
        if (z > high) high = z;
      }
      this.low[piece] = low;
      this.high[piece] = high;
      if (high > top) top = high;
    }
    return top;
  }

  /** Floors worth a try, lowest first, none below `least`: what is bare lies above each, some piece with its layers right on it. */
  private floors(least: number): Float64Array {
    const { low, tape, maxLayers, tried } = this;
    const last = low.length - 1;
    const bare = low[last]!;
    let count = 0;
    if (bare < MOST) tried[count++] = bare;
    for (let piece = 0; piece < last; piece++)
      for (let layers = 0; layers <= maxLayers; layers++) {
        const floor = low[piece]! + layers * tape.thickness;
        if (floor <= bare && floor >= least && floor < MOST) tried[count++] = floor;
      }
    return tried.subarray(0, count).sort();
  }

  /**
   * The least layers that leave nothing below a floor, or null where too many would be needed or something stood above `top`.
   * A strip lies on a longer one: toward the middle of a track its layers never become fewer.
   */
  private layersAbove(floor: number, top: number): { layers: Uint8Array; highest: number } | null {
    const { pieces, maxLayers, low, high } = this;
    const { thickness } = this.tape;
    const layers = new Uint8Array(this.low.length - 1);
    let highest = high[layers.length]!;
    for (let from = 0; from < layers.length; from += pieces) {
      let most = 0;
      for (let i = from; i < from + pieces; i++) {
        const asked = ceil((floor - low[i]!) / thickness - 1e-9);
        if (asked > most) most = asked;
        if (most > maxLayers) return null;
        layers[i] = most;
      }
      most = 0;
      for (let i = from + pieces - 1; i >= from; i--) {
        const asked = ceil((floor - low[i]!) / thickness - 1e-9);
        if (asked > most) most = asked;
        if (most < layers[i]!) layers[i] = most;
        const height = high[i]! + layers[i]! * thickness;
        if (height > highest) highest = height;
      }
      if (highest > top) return null;
    }
    return { layers, highest };
  }

  /** For a plane: the layers that span least. */
  private bestAt(x: number, y: number): { cost: number; layers: Uint8Array | null } {
    const top = this.look(x, y);
    const floors = this.floors(-MOST);
    let cost = MOST;
    let layers: Uint8Array | null = null;
    // From a lower floor what stands highest spans at least as much as is known already.
    for (let i = floors.length - 1; i >= 0 && top - floors[i]! < cost; i--) {
      const one = this.layersAbove(floors[i]!, floors[i]! + cost);
      if (!one || !(one.highest - floors[i]! < cost)) continue;
      cost = one.highest - floors[i]!;
      layers = one.layers;
    }
    return { cost, layers };
  }

  /** For a plane: the fewest strips, then the least tape, that keep within a range: a lower floor asks for fewer. */
  private cheapestAt(x: number, y: number, within: number): { cost: number; layers: Uint8Array | null } {
    const room = within + 1e-9;
    for (const floor of this.floors(this.look(x, y) - room)) {
      const one = this.layersAbove(floor, floor + room);
      if (one) return { cost: this.costOf(one.layers), layers: one.layers };
    }
    return { cost: MOST, layers: null };
  }

  private costOf(layers: Uint8Array): number {
    const { stops } = this.lattice;
    let cost = 0;
    for (let from = 0; from < layers.length; from += this.pieces) {
      let most = 0;
      for (let i = 0; i < this.pieces; i++) {
        const count = layers[from + i]!;
        if (count > most) most = count;
        cost += (count * (stops[i + 1]! - stops[i]!)) / 1e6;
      }
      cost += most;
    }
    return cost;
  }

  private stripsOf(layers: Uint8Array): ShimStrip[] {
    const { along, tracks, stops } = this.lattice;
    return tracks.flatMap((at, k) => {
      const own = layers.subarray(k * this.pieces, (k + 1) * this.pieces);
      return Array.from({ length: Math.max(...own) }, (_, below): ShimStrip => {
        const first = own.findIndex((count) => count > below);
        const last = own.findLastIndex((count) => count > below);
        return { along, at, from: stops[first]!, to: stops[last + 1]!, layer: below + 1 };
      });
    });
  }

  /** Range of a laying with the tilt taken out exactly: never more than for the plane that it was found by. */
  private levelled(layers: Uint8Array, most: number): number {
    let i = 0;
    const laid: HeightPoint[] = [];
    for (const [piece, end] of this.ends.entries())
      for (; i < end; i++) {
        const point = this.points[i]!;
        laid.push({ ...point, z: point.z + (layers[piece] ?? 0) * this.tape.thickness });
      }
    return Math.min(most, flatness(laid).value);
  }
}

/** First layers first; of each layer the middle track first, then its neighbours. */
function inOrder(strips: readonly ShimStrip[]): ShimStrip[] {
  const middle = strips.reduce((sum, { at }) => sum + at, 0) / Math.max(1, strips.length);
  return [...strips].sort(
    (p, q) => p.layer - q.layer || Math.abs(p.at - middle) - Math.abs(q.at - middle) || p.at - q.at,
  );
}
