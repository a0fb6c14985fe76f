import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';
import { DegenerateInput } from './errors';

/**
 * Standard deviation of one reading of a probe, mm, from what a machine has read: places read more than once in a map, and
 * maps of one level check that follow each other, whose difference is a plane (the turns between) and twice the noise.
 * @param checks for each level check its maps, in order
 * @returns null: nothing was read twice
 * Source: pooled standard deviation, NIST/SEMATECH e-Handbook of Statistical Methods, §2.4 (repeatability); of a difference of
 * two readings the variance is twice that of one.
 */
export function probeNoise(checks: readonly (readonly (readonly HeightPoint[])[])[]): number | null {
  let squares = 0;
  let freedom = 0;
  for (const maps of checks) {
    const means = maps.map((points) => {
      const { mean, rest, repeats } = byPlace(points);
      squares += rest;
      freedom += repeats;
      return mean;
    });
    for (const [i, now] of means.slice(1).entries()) {
      const before = means[i]!;
      const change = [...now].flatMap(([key, point]) => {
        const then = before.get(key);
        return then === undefined ? [] : [{ x: point.x, y: point.y, z: point.z - then.z }];
      });
      // A plane has three numbers of its own.
      if (change.length < 4) continue;
      try {
        const { residuals } = fitPlane(change);
        squares += residuals.reduce((sum, rest) => sum + rest * rest, 0) / 2;
        freedom += change.length - 3;
      } catch (error) {
        if (!(error instanceof DegenerateInput)) throw error;
      }
    }
  }
  return freedom === 0 ? null : Math.sqrt(squares / freedom);
}

function byPlace(points: readonly HeightPoint[]): { mean: Map<string, HeightPoint>; rest: number; repeats: number } {
  const places = new Map<string, HeightPoint[]>();
  for (const point of points) {
    const key = `${point.x};${point.y}`;
    const known = places.get(key);
    if (known) known.push(point);
    else places.set(key, [point]);
  }
  let rest = 0;
  let repeats = 0;
  const mean = new Map<string, HeightPoint>();
  for (const [key, list] of places) {
    const z = list.reduce((sum, point) => sum + point.z, 0) / list.length;
    for (const point of list) rest += (point.z - z) ** 2;
    repeats += list.length - 1;
    mean.set(key, { x: list[0]!.x, y: list[0]!.y, z });
  }
  return { mean, rest, repeats };
}
