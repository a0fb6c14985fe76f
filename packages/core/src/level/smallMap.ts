import { extentOf, type Extent, type HeightPoint } from './HeightPoint';

/** A bed's heights small enough for a list: means over cells, about the mean of all. */
export interface SmallMap {
  extent: Extent;
  columns: number;
  rows: number;
  /** Hundredths of a mm, front row first, left to right; null where no reading lies. */
  hundredths: (number | null)[];
}

/** More cells a side say nothing at the size of a thumb. */
const MOST_CELLS = 7;

/**
 * The heights of a bed as a few cells: each the mean of the readings in it, about the mean of all.
 * @returns null for fewer than three readings, or readings in one line
 * @example smallMap([{ x: 0, y: 0, z: 0.1 }, { x: 9, y: 0, z: 0 }, { x: 0, y: 9, z: 0 }, { x: 9, y: 9, z: 0.1 }])!.hundredths // [5, -5, -5, 5]
 */
export function smallMap(points: readonly HeightPoint[]): SmallMap | null {
  const extent = extentOf(points);
  const { x0, y0, x1, y1 } = extent;
  if (points.length < 3 || !(x1 > x0) || !(y1 > y0)) return null;
  const columns = cellsAlong(points.map(({ x }) => x));
  const rows = cellsAlong(points.map(({ y }) => y));
  const mean = points.reduce((sum, { z }) => sum + z, 0) / points.length;
  const sums = new Float64Array(columns * rows);
  const counts = new Float64Array(columns * rows);
  const cell = (value: number, from: number, to: number, count: number) =>
    Math.min(count - 1, Math.floor(((value - from) / (to - from)) * count));
  for (const { x, y, z } of points) {
    const at = cell(y, y0, y1, rows) * columns + cell(x, x0, x1, columns);
    sums[at]! += z - mean;
    counts[at]! += 1;
  }
  const hundredths = Array.from(sums, (sum, i) => (counts[i] ? Math.round((100 * sum) / counts[i]!) + 0 : null));
  return { extent, columns, rows, hundredths };
}

const cellsAlong = (values: readonly number[]) =>
  Math.max(2, Math.min(MOST_CELLS, new Set(values.map((value) => Math.round(value))).size));
