import { gridOf } from './gridOf';
import type { HeightPoint } from './HeightPoint';

/** A map of at most so many readings: of a grid every so many rows and columns, so that it stays one; else every so many. */
export function thinMap(points: readonly HeightPoint[], most: number): HeightPoint[] {
  if (points.length <= most) return [...points];
  const grid = gridOf(points);
  if (!grid) return points.filter((_, i) => i % Math.ceil(points.length / most) === 0);
  const { xs, ys, heights } = grid;
  let every = 1;
  while (Math.ceil(xs.length / every) * Math.ceil(ys.length / every) > most) every++;
  return ys.flatMap((y, r) =>
    r % every !== 0
      ? []
      : xs.flatMap((x, c) => {
          const z = heights[r]![c]!;
          return c % every === 0 && z === z ? [{ x, y, z }] : [];
        }),
  );
}
