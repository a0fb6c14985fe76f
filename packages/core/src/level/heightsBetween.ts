import { Delaunay } from 'd3-delaunay';
import type { HeightGrid, HeightPoint } from './HeightPoint';

export const isFull = ({ heights }: HeightGrid) => heights.every((row) => row.every((z) => z === z));

/** Height at any place between readings: bilinear on a full grid, else linear over their Delaunay triangles. */
export const heightsBetween = (
  points: readonly HeightPoint[],
  grid?: HeightGrid | null,
): ((x: number, y: number) => number) => (grid && isFull(grid) ? bilinear(grid) : triangulated(points));

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
