import { Delaunay } from 'd3-delaunay';
import type { HeightGrid, HeightPoint } from './HeightPoint';

export const isFull = ({ heights }: HeightGrid) => heights.every((row) => row.every((z) => z === z));

/** Height at any place between readings: bilinear on a full grid, else linear over their Delaunay triangles. */
export const heightsBetween = (
  points: readonly HeightPoint[],
  grid?: HeightGrid | null,
): ((x: number, y: number) => number) => (grid && isFull(grid) ? bilinear(grid) : triangulated(points));

/**
 * The same along smooth curves, as a plate bends: cubic on a full grid, with the slope at each reading that of the parabola through
 * it and its neighbours, so that a bow is exact; else as `heightsBetween`.
 */
export const smoothBetween = (
  points: readonly HeightPoint[],
  grid?: HeightGrid | null,
): ((x: number, y: number) => number) => {
  if (!grid || !isFull(grid)) return triangulated(points);
  const { xs, ys, heights } = grid;
  const rows = heights.map((row) => slopesOf(xs, row));
  // Places are asked for column by column.
  let column: { x: number; along: number[]; slopes: number[] } | null = null;
  return (x, y) => {
    if (column?.x !== x) {
      const along = heights.map((row, j) => hermite(xs, row, rows[j]!, x));
      column = { x, along, slopes: slopesOf(ys, along) };
    }
    return hermite(ys, column.along, column.slopes, y);
  };
};

/** At each place the slope of the parabola through it and its two neighbours; at an end that of the three there. */
function slopesOf(places: readonly number[], values: readonly number[]): number[] {
  const steps = places.slice(1).map((place, i) => place - places[i]!);
  const rises = steps.map((step, i) => (values[i + 1]! - values[i]!) / step);
  const last = steps.length - 1;
  if (last === 0) return [rises[0]!, rises[0]!];
  const inner = (i: number) => (steps[i]! * rises[i - 1]! + steps[i - 1]! * rises[i]!) / (steps[i - 1]! + steps[i]!);
  return places.map((_, i) =>
    i === 0 ? 2 * rises[0]! - inner(1) : i > last ? 2 * rises[last]! - inner(last) : inner(i),
  );
}

/** Cubic Hermite interpolation, e.g. G. Dahlquist, Å. Björck, Numerical Methods in Scientific Computing I, §4.4.1. */
function hermite(
  places: readonly number[],
  values: readonly number[],
  slopes: readonly number[],
  place: number,
): number {
  const i = segment(places, place);
  const step = places[i + 1]! - places[i]!;
  const t = (place - places[i]!) / step;
  const [from, to] = [values[i]!, values[i + 1]!];
  const bend = (1 - t) * t * ((1 - t) * (slopes[i]! * step - (to - from)) - t * (slopes[i + 1]! * step - (to - from)));
  return from + t * (to - from) + bend;
}

function bilinear({ xs, ys, heights }: HeightGrid): (x: number, y: number) => number {
  return (x, y) => {
    const i = segment(xs, x);
    const j = segment(ys, y);
    const u = (x - xs[i]!) / (xs[i + 1]! - xs[i]!);
    const v = (y - ys[j]!) / (ys[j + 1]! - ys[j]!);
    const front = heights[j]![i]! * (1 - u) + heights[j]![i + 1]! * u;
    const rear = heights[j + 1]![i]! * (1 - u) + heights[j + 1]![i + 1]! * u;
    return front * (1 - v) + rear * v;
  };
}

/** Index of the interval that holds a value; the end intervals hold what lies outside. */
function segment(lines: readonly number[], value: number): number {
  let k = 0;
  while (k < lines.length - 2 && value >= lines[k + 1]!) k++;
  return k;
}

/** Linear over Delaunay triangles; outside their hull the nearest reading's height. */
function triangulated(points: readonly HeightPoint[]): (x: number, y: number) => number {
  const delaunay = Delaunay.from(
    points as HeightPoint[],
    (p) => p.x,
    (p) => p.y,
  );
  const { triangles, halfedges } = delaunay;
  let nearest = 0;
  let triangle = 0;
  return (x, y) => {
    // Walks from the last triangle toward the place: neighbouring places lie in neighbouring triangles.
    for (let steps = 0; steps < triangles.length; steps++) {
      const edge = 3 * triangle;
      const p = points[triangles[edge]!]!;
      const q = points[triangles[edge + 1]!]!;
      const r = points[triangles[edge + 2]!]!;
      const det = (q.y - r.y) * (p.x - r.x) + (r.x - q.x) * (p.y - r.y);
      const u = ((q.y - r.y) * (x - r.x) + (r.x - q.x) * (y - r.y)) / det;
      const v = ((r.y - p.y) * (x - r.x) + (p.x - r.x) * (y - r.y)) / det;
      const w = 1 - u - v;
      const least = Math.min(u, v, w);
      if (least >= -1e-9) return u * p.z + v * q.z + w * r.z;
      if (!(det * det > 0)) break;
      // Across the edge that the place lies beyond: u is opposite the edge q–r, v opposite r–p, w opposite p–q.
      const across = halfedges[least === u ? edge + 1 : least === v ? edge + 2 : edge]!;
      if (across < 0) break;
      triangle = Math.floor(across / 3);
    }
    nearest = delaunay.find(x, y, nearest);
    return points[nearest]!.z;
  };
}
