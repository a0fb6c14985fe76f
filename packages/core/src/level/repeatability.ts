import type { HeightPoint } from './HeightPoint';
import { stepNoise } from './readingStep';

/**
 * Standard deviation of one reading, mm, from places that were read more than once (pooled within places).
 * Never less than the step in which it was read allows.
 * @returns null when no place was read twice
 * Source: pooled standard deviation, NIST/SEMATECH e-Handbook of Statistical Methods, §2.4 (repeatability).
 * @example repeatability([{x:0,y:0,z:1},{x:0,y:0,z:1.02}]) // ≈ 0.0141
 */
export function repeatability(points: readonly HeightPoint[]): number | null {
  const places = new Map<string, number[]>();
  for (const { x, y, z } of points) {
    const key = `${x};${y}`;
    const heights = places.get(key);
    if (heights) heights.push(z);
    else places.set(key, [z]);
  }
  let squares = 0;
  let freedom = 0;
  for (const heights of places.values()) {
    if (heights.length < 2) continue;
    const mean = heights.reduce((sum, z) => sum + z, 0) / heights.length;
    for (const z of heights) squares += (z - mean) ** 2;
    freedom += heights.length - 1;
  }
  return freedom === 0 ? null : Math.max(Math.sqrt(squares / freedom), stepNoise(points.map(({ z }) => z)));
}
