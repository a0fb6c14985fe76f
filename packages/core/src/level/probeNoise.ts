import type { HeightPoint } from './HeightPoint';
import { stepNoise } from './readingStep';
import { solveLeast } from './solveLeast';

/** What a map keeps of a plate between two readings: a plane, and on four screws a twist. */
const SHAPES: readonly ((u: number, v: number) => number)[] = [() => 1, (u) => u, (_, v) => v, (u, v) => u * v];
/** So many readings beyond what is fitted are wanted at least. */
const SPARE = 2;

/**
 * Standard deviation of one reading of a probe, mm, from what a machine has read: places read more than once in a map, and
 * maps of one level check that follow each other, whose difference is a plane and a twist (the turns between) and twice the
 * noise. Never less than the step in which it was read allows; what is no number is passed over.
 * @param checks for each level check its maps, in order
 * @returns null: nothing was read twice
 * Source: pooled standard deviation, NIST/SEMATECH e-Handbook of Statistical Methods, §2.4 (repeatability); of a difference of
 * two means the variance is that of one reading times 1/n₁ + 1/n₂.
 */
export function probeNoise(checks: readonly (readonly (readonly HeightPoint[])[])[]): number | null {
  let squares = 0;
  let freedom = 0;
  let coarse = 0;
  for (const maps of checks) {
    const read = maps.map((points) => points.filter(({ x, y, z }) => Number.isFinite(x + y + z)));
    for (const points of read) coarse = Math.max(coarse, stepNoise(points.map(({ z }) => z)));
    const means = read.map((points) => {
      const { mean, rest, repeats } = byPlace(points);
      squares += rest;
      freedom += repeats;
      return mean;
    });
    for (const [i, now] of means.slice(1).entries()) {
      const before = means[i]!;
      const change = [...now].flatMap(([key, { x, y, z, times }]) => {
        const then = before.get(key);
        return then === undefined ? [] : [{ x, y, z: z - then.z, weight: 1 / (1 / times + 1 / then.times) }];
      });
      const rest = restOf(change);
      squares += rest.squares;
      freedom += rest.freedom;
    }
  }
  return freedom === 0 ? null : Math.max(Math.sqrt(squares / freedom), coarse);
}

/** What is left of a change beside plane and twist, in squares of one reading, weighed by how often each place was read. */
function restOf(change: readonly { x: number; y: number; z: number; weight: number }[]): {
  squares: number;
  freedom: number;
} {
  const n = change.length;
  const [mx, my] = [change.reduce((sum, p) => sum + p.x, 0) / n, change.reduce((sum, p) => sum + p.y, 0) / n];
  const size = Math.max(...change.map((p) => Math.hypot(p.x - mx, p.y - my)), 1e-9);
  for (const shapes of [SHAPES, SHAPES.slice(0, 3)]) {
    if (n < shapes.length + (shapes.length > 3 ? SPARE : 1)) continue;
    const root = change.map(({ weight }) => Math.sqrt(weight));
    const fit = solveLeast(
      change.map((p, i) => shapes.map((shape) => root[i]! * shape((p.x - mx) / size, (p.y - my) / size))),
      change.map(({ z }, i) => root[i]! * z),
    );
    // Places in one line don't tell a plane: nothing follows from them.
    if (fit.rank < 3) break;
    return { squares: fit.residuals.reduce((sum, r) => sum + r * r, 0), freedom: n - fit.rank };
  }
  return { squares: 0, freedom: 0 };
}

interface Mean extends HeightPoint {
  times: number;
}

function byPlace(points: readonly HeightPoint[]): { mean: Map<string, Mean>; rest: number; repeats: number } {
  const places = new Map<string, HeightPoint[]>();
  for (const point of points) {
    const key = `${point.x};${point.y}`;
    const known = places.get(key);
    if (known) known.push(point);
    else places.set(key, [point]);
  }
  let rest = 0;
  let repeats = 0;
  const mean = new Map<string, Mean>();
  for (const [key, list] of places) {
    const z = list.reduce((sum, point) => sum + point.z, 0) / list.length;
    for (const point of list) rest += (point.z - z) ** 2;
    repeats += list.length - 1;
    mean.set(key, { x: list[0]!.x, y: list[0]!.y, z, times: list.length });
  }
  return { mean, rest, repeats };
}
