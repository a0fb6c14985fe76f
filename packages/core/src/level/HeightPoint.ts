/** One reading of a bed: position on the plate and height, mm. z is + higher, nearer the nozzle. */
export interface HeightPoint {
  x: number;
  y: number;
  z: number;
}

/** A rectangle on the plate, mm, from front-left (x0, y0) to rear-right (x1, y1). */
export interface Extent {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/**
 * Heights on a rectangular grid. `heights[row][column]` belongs to (xs[column], ys[row]), mm;
 * ys ascend, so row 0 is at the front. NaN marks a cell that was not reached.
 */
export interface HeightGrid {
  xs: number[];
  ys: number[];
  heights: number[][];
}

/** Range (highest − lowest) and root mean square about the mean, mm. */
export interface Spread {
  range: number;
  rms: number;
}

/** The rectangle that holds all points, mm. An empty list gives an inside-out rectangle. */
export function extentOf(points: readonly { x: number; y: number }[]): Extent {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const { x, y } of points) {
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  return { x0, y0, x1, y1 };
}

/** Range and RMS about the mean of a list of heights, mm. Two passes, so an offset costs no digits. */
export function spreadOf(heights: ArrayLike<number>): Spread {
  const n = heights.length;
  if (n === 0) return { range: 0, rms: 0 };
  const first = heights[0]!;
  let low = first;
  let high = first;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const z = heights[i]!;
    if (z < low) low = z;
    if (z > high) high = z;
    sum += z - first;
  }
  const mean = sum / n;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const d = heights[i]! - first - mean;
    squares += d * d;
  }
  return { range: high - low, rms: Math.sqrt(squares / n) };
}
