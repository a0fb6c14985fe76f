import { contours } from 'd3-contour';
import { Delaunay } from 'd3-delaunay';
import { DegenerateInput } from './errors';
import { extentOf, type Extent, type HeightGrid, type HeightPoint } from './HeightPoint';

/** One tint of the plan: everything at least `from` mm above the mean, as closed rings [x, y] in mm. */
export interface ContourBand {
  from: number;
  rings: [number, number][][];
}

export interface BedContours {
  /** Ascending; each band lies on top of the one before. */
  bands: ContourBand[];
  /** Height between two contours, mm. */
  step: number;
  /** Mean of the readings, mm: the zero of the bands. */
  mean: number;
  /** Largest distance from the mean, mm: tints are symmetrical about zero up to here. */
  reach: number;
  extent: Extent;
  /** Outline of the readings, [x, y] in mm; outside it nothing is known and nothing should be drawn. */
  outline: [number, number][];
}

const NICE_STEPS = [0.005, 0.01, 0.02, 0.03, 0.05, 0.1, 0.2, 0.3, 0.5, 1, 2, 5];
const MOST_BANDS = 12;
const CELLS = 72;

/**
 * Contours of a bed's heights about their mean.
 *
 * A full grid is interpolated bilinearly, other readings linearly over their Delaunay triangles; isolines come from
 * marching squares on a raster of CELLS a side.
 *
 * @param points n ≥ 3 readings, mm, + higher
 * @param grid the grid they lie on, if they do
 * @param step height between contours, mm; chosen so that there are at most MOST_BANDS when left out
 * @param finest no contours closer than this, mm: what lies within an aim then looks quiet
 * @throws DegenerateInput fewer than 3 readings, or all in one line
 */
export function contourBed({
  points,
  grid,
  step,
  finest = 0,
}: {
  points: readonly HeightPoint[];
  grid?: HeightGrid | null | undefined;
  step?: number | undefined;
  finest?: number | undefined;
}): BedContours {
  if (points.length < 3) throw new DegenerateInput(`Contours need at least 3 readings, got ${points.length}`);
  for (const { x, y, z } of points)
    if (![x, y, z].every((value) => Math.abs(value) <= 1e9))
      throw new DegenerateInput(`Contours need readings that are numbers, got (${x}, ${y}, ${z})`);
  if (!((step ?? 1) >= 1e-4 && (step ?? 1) <= 1e9 && finest >= 0 && finest <= 1e9))
    throw new DegenerateInput(`Contours need steps above 0 mm, got ${step} and ${finest}`);
  const extent = extentOf(points);
  if (!(extent.x1 > extent.x0) || !(extent.y1 > extent.y0)) {
    throw new DegenerateInput('Contours need readings that are not all in one line');
  }
  const mean = points.reduce((sum, { z }) => sum + z, 0) / points.length;
  const reach = points.reduce((most, { z }) => Math.max(most, Math.abs(z - mean)), 0);
  const chosen =
    step ??
    NICE_STEPS.find((candidate) => candidate >= finest && (2 * reach) / candidate <= MOST_BANDS) ??
    Math.max(finest, reach / 5);
  const heightAt = grid && isFull(grid) ? bilinear(grid) : triangulated(points);
  const outline = grid && isFull(grid) ? rectangle(extent) : hullOf(points);

  const values = new Float64Array(CELLS * CELLS);
  const width = extent.x1 - extent.x0;
  const depth = extent.y1 - extent.y0;
  for (let j = 0; j < CELLS; j++) {
    for (let i = 0; i < CELLS; i++) {
      const x = extent.x0 + (width * i) / (CELLS - 1);
      const y = extent.y0 + (depth * j) / (CELLS - 1);
      values[j * CELLS + i] = heightAt(x, y) - mean;
    }
  }
  const lowest = -Math.ceil(reach / chosen) * chosen;
  const count = reach > 0 ? Math.round((-2 * lowest) / chosen) : 0;
  const thresholds = Array.from({ length: count }, (_, k) => lowest + k * chosen);
  // d3-contour places sample (i, j) at (i + ½, j + ½) of its raster.
  const toX = (u: number) => clamp(extent.x0 + ((u - 0.5) / (CELLS - 1)) * width, extent.x0, extent.x1);
  const toY = (v: number) => clamp(extent.y0 + ((v - 0.5) / (CELLS - 1)) * depth, extent.y0, extent.y1);
  const bands = contours()
    .size([CELLS, CELLS])
    .thresholds(thresholds)(Array.from(values))
    .map(({ value, coordinates }) => ({
      from: value,
      rings: coordinates.flatMap((polygon) =>
        polygon.map((ring) => ring.map(([u, v]) => [toX(u!), toY(v!)] as [number, number])),
      ),
    }))
    .filter(({ rings }) => rings.length > 0);
  return { bands, step: chosen, mean, reach, extent, outline };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
const isFull = ({ heights }: HeightGrid) => heights.every((row) => row.every((z) => z === z));
const rectangle = ({ x0, y0, x1, y1 }: Extent): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

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

function hullOf(points: readonly HeightPoint[]): [number, number][] {
  const { hull } = Delaunay.from(
    points as HeightPoint[],
    (p) => p.x,
    (p) => p.y,
  );
  return [...hull].map((i) => [points[i]!.x, points[i]!.y]);
}
