import { contours } from 'd3-contour';
import { Delaunay } from 'd3-delaunay';
import { DegenerateInput } from './errors';
import { heightsBetween, isFull } from './heightsBetween';
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
  const heightAt = heightsBetween(points, grid);
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
const rectangle = ({ x0, y0, x1, y1 }: Extent): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

function hullOf(points: readonly HeightPoint[]): [number, number][] {
  const { hull } = Delaunay.from(
    points as HeightPoint[],
    (p) => p.x,
    (p) => p.y,
  );
  return [...hull].map((i) => [points[i]!.x, points[i]!.y]);
}
