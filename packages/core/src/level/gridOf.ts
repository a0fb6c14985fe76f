import type { HeightGrid, HeightPoint } from './HeightPoint';

/** Coordinates closer than this belong to one row or column, mm. Consoles print two or three decimals. */
const SAME_LINE = 0.05;
/** At least this share of the cells must have been read for the places to be called a grid. */
const LEAST_FILLED = 0.5;

/**
 * The rectangular grid on which readings lie, or null when they don't lie on one.
 * Repeated readings of a cell are averaged; cells without a reading are NaN.
 * @param points readings, mm; z may be NaN for a place that was not reached
 */
export function gridOf(points: readonly HeightPoint[]): HeightGrid | null {
  if (points.length < 4) return null;
  const xs = linesOf(points.map(({ x }) => x));
  const ys = linesOf(points.map(({ y }) => y));
  const cells = xs.length * ys.length;
  if (xs.length < 2 || ys.length < 2 || cells > 2 * points.length) return null;
  const sums = ys.map(() => xs.map(() => 0));
  const counts = ys.map(() => xs.map(() => 0));
  let filled = 0;
  for (const { x, y, z } of points) {
    const column = nearestIndex(xs, x);
    const row = nearestIndex(ys, y);
    if (Number.isNaN(z)) continue;
    if (counts[row]![column] === 0) filled++;
    sums[row]![column]! += z;
    counts[row]![column]! += 1;
  }
  if (filled < LEAST_FILLED * cells) return null;
  const heights = sums.map((row, r) => row.map((sum, c) => (counts[r]![c] ? sum / counts[r]![c]! : NaN)));
  return { xs, ys, heights };
}

/** Distinct coordinates, ascending; neighbours within SAME_LINE are one. */
function linesOf(values: number[]): number[] {
  const lines: number[] = [];
  for (const value of values.sort((p, q) => p - q)) {
    if (lines.length === 0 || value - lines[lines.length - 1]! > SAME_LINE) lines.push(value);
  }
  return lines;
}

function nearestIndex(lines: readonly number[], value: number): number {
  let low = 0;
  let high = lines.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (lines[middle]! <= value + SAME_LINE / 2) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The readings of a grid as points, front row first; unreached cells are left out. */
export function pointsOf({ xs, ys, heights }: HeightGrid): HeightPoint[] {
  const points: HeightPoint[] = [];
  for (let r = 0; r < ys.length; r++) {
    const row = heights[r]!;
    for (let c = 0; c < xs.length; c++) {
      const z = row[c]!;
      if (z === z) points.push({ x: xs[c]!, y: ys[r]!, z });
    }
  }
  return points;
}
