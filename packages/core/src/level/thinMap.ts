import { DegenerateInput } from './errors';
import { fitPlane } from './fitPlane';
import { gridOf } from './gridOf';
import type { HeightPoint } from './HeightPoint';

/** So many of the highest and of the lowest readings beside a plane are kept, whatever is thinned. */
const EXTREMES = 3;

/**
 * A map of at most so many readings: of a grid every so many rows and columns, so that it stays one; else every so many. The
 * highest and the lowest readings beside its plane stay in, with their rows and columns: flatness hangs on them.
 */
export function thinMap(points: readonly HeightPoint[], most: number): HeightPoint[] {
  if (points.length <= most) return [...points];
  const kept = extremesOf(points);
  const grid = gridOf(points);
  if (!grid) {
    const every = Math.ceil(points.length / Math.max(1, most - 2 * EXTREMES));
    return points.filter((point, i) => i % every === 0 || kept.has(point));
  }
  const { xs, ys, heights } = grid;
  const [keptX, keptY] = [new Set([...kept].map(({ x }) => x)), new Set([...kept].map(({ y }) => y))];
  const thinned = (places: readonly number[], own: ReadonlySet<number>, every: number) =>
    places.flatMap((place, i) => (i % every === 0 || own.has(place) ? [i] : []));
  for (let every = 1; ; every++) {
    // A tiny bound leaves no room for whole rows of extremes.
    const own = every > Math.max(xs.length, ys.length) ? new Set<number>() : null;
    const [columns, rows] = [thinned(xs, own ?? keptX, every), thinned(ys, own ?? keptY, every)];
    if (columns.length * rows.length > most && own === null) continue;
    return rows.flatMap((r) =>
      columns.flatMap((c) => {
        const z = heights[r]![c]!;
        return z === z ? [{ x: xs[c]!, y: ys[r]!, z }] : [];
      }),
    );
  }
}

/** The readings that stand highest and lowest beside the plane of all. */
function extremesOf(points: readonly HeightPoint[]): Set<HeightPoint> {
  let rest: ArrayLike<number>;
  try {
    rest = fitPlane(points).residuals;
  } catch (error) {
    if (!(error instanceof DegenerateInput)) throw error;
    rest = points.map(({ z }) => z);
  }
  const order = points.map((_, i) => i).sort((p, q) => rest[p]! - rest[q]!);
  return new Set([...order.slice(0, EXTREMES), ...order.slice(-EXTREMES)].map((i) => points[i]!));
}
