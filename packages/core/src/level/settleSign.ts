import { needNumbers } from '../needNumbers';
import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';

export interface SignSettled {
  /** What + means in these heights; null: the place doesn't stand out. */
  plus: 'higher' | 'lower' | null;
  /** How far the place stands from the plane of the others, as it was read, mm. */
  stands: number;
  /** How far it would have to stand, mm. */
  needed: number;
}

/** A place stands out when it is so many times as far from the plane as the others are. */
const CLEAR = 3;
/** And so far at the least, mm: a shim or a pile of paper is thicker. Common practice. */
const LEAST = 0.08;

/**
 * What + means in a map, from a place that is known to be higher: something of a few tenths lay there under the probe. Until
 * that is known a compensation that is off and one that is reversed look alike, and so do a bed's tilt and its mirror image.
 * @param points heights as they were read, at least five
 * @param high the place; the nearest reading counts
 * @throws RangeError fewer than five readings, numbers that are none
 */
export function settleSign(points: readonly HeightPoint[], high: { x: number; y: number }): SignSettled {
  if (points.length < 5) throw new RangeError(`settleSign needs at least 5 readings, got ${points.length}`);
  needNumbers('settleSign', { points, high });
  const far = ({ x, y }: HeightPoint) => Math.hypot(x - high.x, y - high.y);
  const at = points.reduce((a, b) => (far(b) < far(a) ? b : a));
  const others = points.filter((point) => point !== at);
  const { a, b, residuals, centre } = fitPlane(others);
  const level = others.reduce((sum, { z }) => sum + z, 0) / others.length;
  const stands = at.z - (level + a * (at.x - centre.x) + b * (at.y - centre.y));
  const rms = Math.sqrt(Array.from(residuals).reduce((sum, r) => sum + r * r, 0) / Math.max(1, others.length - 3));
  const needed = Math.max(LEAST, CLEAR * rms);
  return { plus: Math.abs(stands) < needed ? null : stands > 0 ? 'higher' : 'lower', stands, needed };
}
