import { needNumbers } from '../needNumbers';
import { describeShape } from './describeShape';
import { DegenerateInput } from './errors';
import { flatness } from './flatness';
import { gridOf } from './gridOf';
import { extentOf, type HeightPoint } from './HeightPoint';
import { heightsBetween } from './heightsBetween';
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
   * Why strips don't: bump, region: look under sheet or bed first · coarse: a layer is thicker than what is to be cured ·
   * shape: no set of strips makes it a quarter better
   */
  why: 'bump' | 'region' | 'coarse' | 'shape' | null;
  strips: ShimStrip[];
  /** Range after the screws took the tilt out, mm: as it is, and with the strips. */
  before: number;
  after: number;
  /**
   * The same between the readings too, mm: at a strip's edge a step of a layer stays, which a sheet bridges and a pane does not.
   * Never less than `after`.
   */
  between: number;
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
/** More readings are thinned out first: the widths of tape are wider. */
const MOST_READINGS = 169;
/** Where a strip may end: a track with more readings has no more places for it. */
const MOST_STOPS = 8;
/** How much better a plan could be that was not looked at, mm: less than a probe tells. */
const CLOSE = 0.001;
/** Places a side between readings. */
const FINE = 41;
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
 * all within `WORTH` of that, the fewest strips, then the least tape.
 *
 * For a given plane the tracks are independent: of each the laying whose lowest point lies above a floor and whose highest is
 * least. Over planes it is searched by branch and bound: tilting by a rise changes a range by no more than that rise, so that
 * squares of planes that can't be better by `CLOSE` are left out. What was found is then levelled exactly, by the minimum zone.
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
  const nothing = { strips: [], before, after: before, between: before, tape: 0, tracks: 0, layers: 0, proven: true };
  if (aim !== undefined && before <= aim) return { ...nothing, verdict: 'flat', why: null };
  const { name } = describeShape(ask.map, ask.noise ? { noise: ask.noise } : {});
  if (name === 'bump') return { ...nothing, verdict: 'no', why: 'bump' };
  if (name === 'high-region') return { ...nothing, verdict: 'no', why: 'region' };

  const plate = ask.plate ? { x0: 0, y0: 0, x1: ask.plate.width, y1: ask.plate.depth } : extentOf(map);
  const lattices = (direction ? [direction] : (['x', 'y'] as const))
    .flatMap((along) => latticesOf(map, plate, tape.width, along))
    .map((lattice) => new Laid(map, lattice, tape, maxLayers));
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
  const after = found ? flatness(raised(ask.map, found.strips, tape)).value : before;
  if (strips.length === 0 || !(after <= (1 - LEAST_GAIN) * before))
    return { ...nothing, proven, verdict: 'no', why: tape.thickness >= before ? 'coarse' : 'shape' };
  return {
    verdict: aim !== undefined && after > aim ? 'helps' : 'cures',
    why: null,
    strips,
    before,
    after,
    between: Math.max(after, betweenOf(map, strips, tape)),
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

/** Range of the plate with strips at many places between its readings, mm. */
function betweenOf(map: readonly HeightPoint[], strips: readonly ShimStrip[], tape: ShimTape): number {
  const { x0, y0, x1, y1 } = extentOf(map);
  const at = heightsBetween(map, gridOf(map));
  const fine = Array.from({ length: FINE * FINE }, (_, i): HeightPoint => {
    const x = x0 + ((x1 - x0) * (i % FINE)) / (FINE - 1);
    const y = y0 + ((y1 - y0) * Math.floor(i / FINE)) / (FINE - 1);
    return { x, y, z: at(x, y) };
  });
  return flatness(raised(fine, strips, tape)).value;
}

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
  tracks: Track[];
  /** Readings that no track lies on, at the edges. */
  outside: HeightPoint[];
}
interface Track {
  at: number;
  points: HeightPoint[];
  /** Where a strip may begin and end. */
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
  const lengthOf = ({ x, y }: HeightPoint) => (along === 'x' ? x : y);
  const middle = (low + high) / 2;
  const modulo = (value: number) => Math.round((((value % width) + width) % width) * 1e6) / 1e6;
  // A track's middle on the plate's middle, an edge there, or a middle on a row of readings: few rows, or they are all one.
  const rows = [...new Set(map.map((p) => modulo(acrossOf(p) - low)))];
  const offsets = [
    ...new Set([modulo(middle - low), modulo(middle - low + width / 2), ...(rows.length <= 5 ? rows : [])]),
  ];
  return offsets.map((offset) => {
    const tracks: Track[] = [];
    const inside = new Set<HeightPoint>();
    for (let at = low + offset - width; at <= high; at += width) {
      // Tape that hangs over the plate would be trimmed to nothing.
      if (at < low || at > high) continue;
      const points = map.filter((p) => acrossOf(p) >= at - width / 2 - 1e-9 && acrossOf(p) < at + width / 2 - 1e-9);
      if (points.length === 0) continue;
      points.forEach((p) => inside.add(p));
      const lengths = [...new Set(points.map(lengthOf))].sort((p, q) => p - q);
      // Halfway between readings: where nothing was read nothing says where the dip ends.
      const every = Math.ceil(lengths.length / MOST_STOPS);
      const between = lengths.slice(1).map((value, i) => (value + lengths[i]!) / 2);
      const stops = [begin, ...between.filter((_, i) => (i + 1) % every === 0), end];
      tracks.push({ at, points, stops });
    }
    return { along, tracks, outside: map.filter((p) => !inside.has(p)) };
  });
}

/** One way to lay a track: strips on each other, and how many lie on each of its readings. */
interface Laying {
  strips: ShimStrip[];
  layers: Uint8Array;
  tape: number;
}

/** A square of planes: rise across the map along x and along y at its middle, mm, and half its side. */
interface Square {
  x: number;
  y: number;
  half: number;
  bound: number;
}

/** Places as shares of the map about its middle, and heights. */
interface Readings {
  u: Float64Array;
  v: Float64Array;
  z: Float64Array;
}

const QUARTERS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;

/** A lattice with all ways to lay its tracks. */
class Laid {
  private readonly ways: Laying[][];
  private readonly tracks: Readings[];
  private readonly outside: Readings;
  private readonly reach: number;
  /** How near to the best is near enough, mm: a hundredth of what is to be cured where that is much. */
  private readonly close: number;
  private readonly start: { x: number; y: number };

  constructor(
    private readonly map: readonly HeightPoint[],
    lattice: Lattice,
    private readonly tape: ShimTape,
    maxLayers: number,
  ) {
    this.ways = lattice.tracks.map((track) => layingsOf(track, lattice.along, maxLayers, tape.width));
    const { x0, y0, x1, y1 } = extentOf(map);
    const shares = (points: readonly HeightPoint[]): Readings => ({
      u: Float64Array.from(points, ({ x }) => (x - (x0 + x1) / 2) / (x1 - x0)),
      v: Float64Array.from(points, ({ y }) => (y - (y0 + y1) / 2) / (y1 - y0)),
      z: Float64Array.from(points, ({ z }) => z),
    });
    this.tracks = lattice.tracks.map(({ points }) => shares(points));
    this.outside = shares(lattice.outside);
    const { plane, value } = flatness(map);
    this.start = { x: plane.a * (x1 - x0), y: plane.b * (y1 - y0) };
    // With strips the plane can't lie farther off than what they add and what was out before.
    this.reach = value + maxLayers * tape.thickness;
    this.close = Math.max(CLOSE, value / 100);
  }

  /** The least range that this lattice allows where it is below `known`, else `known`. */
  leastRange(known: number): { range: number; proven: boolean } {
    let range = known;
    const proven = this.branch(
      (x, y) => this.bestAt(x, y),
      () => range - this.close,
      ({ cost: here, picks }) => {
        if (here < range + 2 * this.close) range = Math.min(range, here, this.levelled(picks));
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
      (x, y, slack) => this.cheapestAt(x, y, range, slack),
      () => costOf(found) - 1e-9,
      (_, x, y) => {
        const exact = this.cheapestAt(x, y, range, 0);
        if (!exact.picks || !(exact.cost < costOf(found))) return;
        const strips = exact.picks.flatMap((way, k) => this.ways[k]![way]!.strips);
        found = { strips, tape: strips.reduce((sum, { from, to }) => sum + to - from, 0) };
      },
      true,
    );
    return { found, proven };
  }

  /**
   * Best first over squares of planes. `value`: the cost (a range, or strips) that the middle of a square comes to (with a slack it is a bound for the whole
   * square by itself) · `limit`: what is not below it is left out · `reached`: takes what was found.
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

  /** Lowest and highest of each way to lay each track, for a plane; and of what no track lies on. */
  private spans(x: number, y: number) {
    const rest = ({ u, v, z }: Readings) => z.map((height, i) => height - x * u[i]! - y * v[i]!);
    const outside = rest(this.outside);
    const tracks = this.tracks.map((readings, k) => {
      const heights = rest(readings);
      return this.ways[k]!.map(({ layers }) => {
        let [low, high] = [Infinity, -Infinity];
        for (let i = 0; i < heights.length; i++) {
          const z = heights[i]! + layers[i]! * this.tape.thickness;
          if (z < low) low = z;
          if (z > high) high = z;
        }
        return { low, high };
      });
    });
    return { tracks, low: Math.min(Infinity, ...outside), high: Math.max(-Infinity, ...outside) };
  }

  /** For a plane: the ways to lay all tracks that span least. */
  private bestAt(x: number, y: number): { cost: number; picks: number[] } {
    const { tracks, low, high } = this.spans(x, y);
    const all = tracks.flatMap((ways, track) => ways.map((span, way) => ({ ...span, track, way })));
    all.sort((p, q) => q.low - p.low);
    const best = tracks.map(() => ({ high: Infinity, way: 0 }));
    let range = Infinity;
    let picks: number[] = [];
    // The floor is lowered from one lowest point to the next: more and more ways lie above it.
    for (const { low: floor, high: top, track, way } of all) {
      if (top < best[track]!.high) best[track] = { high: top, way };
      const highest = best.reduce((most, one) => Math.max(most, one.high), high);
      const one = highest - Math.min(floor, low);
      if (one < range) [range, picks] = [one, best.map((pick) => pick.way)];
    }
    return { cost: range, picks };
  }

  /** For a plane: the fewest strips (and tape) that keep within a range, all spans let out by a slack. */
  private cheapestAt(x: number, y: number, within: number, slack: number): { cost: number; picks: number[] | null } {
    const { tracks, low, high } = this.spans(x, y);
    const room = within + slack + 1e-9;
    let cost = Infinity;
    let picks: number[] | null = null;
    const floors = [...new Set([low, ...tracks.flatMap((ways) => ways.map((way) => way.low))])].filter(
      (floor) => floor <= low && floor > -Infinity && floor < Infinity,
    );
    for (const floor of floors) {
      if (high > floor + room) continue;
      let sum = 0;
      const chosen: number[] = [];
      for (const [k, ways] of tracks.entries()) {
        let [least, at] = [Infinity, -1];
        for (const [way, span] of ways.entries()) {
          if (span.low < floor - 1e-12 || span.high > floor + room) continue;
          const laying = this.ways[k]![way]!;
          const one = laying.strips.length + laying.tape / 1e6;
          if (one < least) [least, at] = [one, way];
        }
        sum += least;
        chosen.push(at);
        if (sum >= cost) break;
      }
      if (sum < cost) [cost, picks] = [sum, chosen];
    }
    return { cost, picks };
  }

  /** Range of a laying with the tilt taken out exactly. */
  private levelled(picks: readonly number[]): number {
    return flatness(
      raised(
        this.map,
        picks.flatMap((way, k) => this.ways[k]![way]!.strips),
        this.tape,
      ),
    ).value;
  }
}

/** Every way to lay a track: nothing, or intervals that lie within each other, by layer; of those that cover the same the shortest. */
function layingsOf({ at, points, stops }: Track, along: 'x' | 'y', maxLayers: number, width: number): Laying[] {
  const all: Laying[] = [{ strips: [], layers: new Uint8Array(points.length), tape: 0 }];
  const add = (below: Laying, layer: number, first: number, last: number) => {
    for (let i = first; i < last; i++)
      for (let k = i + 1; k <= last; k++) {
        const strip: ShimStrip = { along, at, from: stops[i]!, to: stops[k]!, layer };
        const laying: Laying = {
          strips: [...below.strips, strip],
          layers: below.layers.map((count, p) => count + +covers(strip, width, points[p]!)),
          tape: below.tape + strip.to - strip.from,
        };
        all.push(laying);
        if (layer < maxLayers) add(laying, layer + 1, i, k);
      }
  };
  add(all[0]!, 1, 0, stops.length - 1);
  return all;
}

/** First layers first; of each layer the middle track first, then its neighbours. */
function inOrder(strips: readonly ShimStrip[]): ShimStrip[] {
  const middle = strips.reduce((sum, { at }) => sum + at, 0) / Math.max(1, strips.length);
  return [...strips].sort(
    (p, q) => p.layer - q.layer || Math.abs(p.at - middle) - Math.abs(q.at - middle) || p.at - q.at,
  );
}
