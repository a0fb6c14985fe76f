import { Delaunay } from 'd3-delaunay';
import { needNumbers } from '../needNumbers';
import { describeShape, STRIPES, type BedShape } from './describeShape';
import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { gridOf } from './gridOf';
import { heightsBetween, smoothBetween } from './heightsBetween';
import { spreadOf, type HeightPoint } from './HeightPoint';
import { stepNoise } from './readingStep';
import { thinMap } from './thinMap';

/**
 * same: no more than the readings scatter · tilted: screws, or how it lies · changed: its shape is another · untold: nothing
 * says how the readings scatter · apart: hardly anywhere were both read
 */
export type MapChange = 'same' | 'tilted' | 'changed' | 'untold' | 'apart';

export interface MapComparison {
  verdict: MapChange;
  /** After less before where both are known, mm, + higher now; all of it, tilt too. */
  points: HeightPoint[];
  /** Tilt and mean taken out: what changed of the shape, mm, in the same order. */
  shapeChange: number[];
  /** What changed: its tilt, its shape by name and size. */
  shape: BedShape | null;
  /** Mean change, mm: how zero moved, if the probe's own did not. */
  lift: number;
  /** Places where the shape changed by more than chance, the largest change first. */
  beyond: { x: number; y: number; by: number }[];
  /** Highest less lowest of the change of shape, mm. */
  range: number;
}

/** One in a hundred of maps that did not change has a place beyond this: normal deviates, by how many places there are. */
const ONE_IN_A_HUNDRED = [
  [9, 3.26],
  [25, 3.54],
  [49, 3.71],
  [121, 3.94],
  [400, 4.2],
  [1e9, 4.9],
] as const;
/** Fewer places in common are no map. */
const LEAST_COMMON = 6;
/** More readings are thinned out first: a change of shape needs no more. */
const MOST_READINGS = 2_500;
/** Readings nearer than this to the other map's outline lie within it, mm. */
const EDGE = 1e-6;

/**
 * What changed between two maps of one bed, where both were read: at the readings of the second, the first is read off between its
 * own, along smooth curves. What a straight line there would say otherwise is not known, and counts as no change.
 * @param noise standard deviation of one reading, mm; not said: from the change itself
 * @throws DegenerateInput a map of fewer than 3 readings or all in one line, or not numbers
 */
export function compareMaps({
  before,
  after,
  noise,
}: {
  before: readonly HeightPoint[];
  after: readonly HeightPoint[];
  noise?: number | undefined;
}): MapComparison {
  needNumbers('compareMaps', { noise: noise ?? 1, before, after });
  fitPlane(before);
  fitPlane(after);
  const [first, second] = [thinMap(before, MOST_READINGS), thinMap(after, MOST_READINGS)];
  const grid = gridOf(first);
  const [at, straight] = [smoothBetween(first, grid), heightsBetween(first, grid)];
  const inside = within(first);
  const common = second.filter(({ x, y }) => inside(x, y));
  const points = common.map(({ x, y, z }) => ({ x, y, z: z - at(x, y) }));
  const nothing = { points, shapeChange: [], shape: null, lift: 0, beyond: [], range: 0 };
  if (points.length < LEAST_COMMON) return { ...nothing, verdict: 'apart' };
  let fit;
  try {
    fit = fitPlane(points);
  } catch (error) {
    if (error instanceof DegenerateInput) return { ...nothing, verdict: 'apart' };
    throw error;
  }
  const shapeChange = [...fit.residuals];
  // Two readings, each no nearer than its step.
  const step = Math.hypot(stepNoise(before.map(({ z }) => z)), stepNoise(after.map(({ z }) => z)));
  const sure = common.map(({ x, y }, i) => {
    const doubt = Math.abs(at(x, y) - straight(x, y));
    return Math.sign(shapeChange[i]!) * Math.max(0, Math.abs(shapeChange[i]!) - doubt);
  });
  // What is told for sure, on the tilt that was found.
  const certain = points.map((point, i) => ({ ...point, z: point.z - shapeChange[i]! + sure[i]! }));
  const told = noise === undefined ? undefined : Math.max(noise * Math.SQRT2, STRIPES * step);
  const shape = describeShape(certain, { noise: told, step });
  const lift = fit.centre.z;
  const { range } = spreadOf(shapeChange);
  const found = { points, shapeChange, shape, lift, range };
  if (shape.noise === null) return { ...found, beyond: [], verdict: 'untold' };
  const limit = ONE_IN_A_HUNDRED.find(([most]) => points.length <= most)![1] * shape.noise.sd;
  const beyond = points
    .map(({ x, y }, i) => ({ x, y, by: shapeChange[i]! }))
    .filter((_, i) => Math.abs(sure[i]!) > limit)
    .sort((p, q) => Math.abs(q.by) - Math.abs(p.by));
  const changed = shape.name !== 'none' || beyond.length > 0;
  return { ...found, beyond, verdict: changed ? 'changed' : shape.tilt.seen ? 'tilted' : 'same' };
}

/** Whether a place lies within the outline of readings. */
function within(points: readonly HeightPoint[]): (x: number, y: number) => boolean {
  const { hull } = Delaunay.from(
    points as HeightPoint[],
    (p) => p.x,
    (p) => p.y,
  );
  const corners = [...hull].map((i) => points[i]!);
  // The hull goes round anticlockwise where y points down: clockwise to us; either way all on one side.
  return (x, y) => {
    let [left, right] = [false, false];
    for (const [k, p] of corners.entries()) {
      const q = corners[(k + 1) % corners.length]!;
      const side = ((q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x)) / Math.hypot(q.x - p.x, q.y - p.y);
      if (side > EDGE) left = true;
      if (side < -EDGE) right = true;
    }
    return !(left && right);
  };
}
