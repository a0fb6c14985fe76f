import { tidyLength } from './tidyLength';

/**
 * Hexagon socket countersunk head screws, 90° included: theoretical sharp head diameter and head height, mm.
 * Source: ISO 10642, from memory. For a 90° cone height = (head − shank) / 2, which the table's test checks.
 */
export const COUNTERSUNK_HEADS: readonly { thread: string; shank: number; head: number; height: number }[] = [
  { thread: 'M3', shank: 3, head: 6.72, height: 1.86 },
  { thread: 'M4', shank: 4, head: 8.96, height: 2.48 },
  { thread: 'M5', shank: 5, head: 11.2, height: 3.1 },
  { thread: 'M6', shank: 6, head: 13.44, height: 3.72 },
  { thread: 'M8', shank: 8, head: 17.92, height: 4.96 },
];

export interface Countersink {
  /** Width of the cone at the plate's top, mm. */
  diameter: number;
  /** How deep a 90° countersink goes below the top, mm. */
  depth: number;
  /** Straight hole left under the cone, mm; below 0 the cone breaks through. */
  remains: number;
  /** thin: less than a quarter of the plate is left · through: the cone breaks through. */
  verdict: 'good' | 'thin' | 'through';
}

/**
 * How deep to countersink so that the head of a screw stands flush, or `below` it.
 * @param ask thread of the table; hole and plate in mm; below: mm under the top, 0 flush
 * @throws RangeError a thread the table doesn't have; a hole that is not above 0 or wider than the head
 * Geometry of a 90° cone: depth = (diameter − hole) / 2.
 * @example countersink({ thread: 'M3', hole: 3, plate: 4 }).depth // 1.86
 */
export function countersink({
  thread,
  hole,
  plate,
  below = 0,
}: {
  thread: string;
  hole: number;
  plate: number;
  below?: number;
}): Countersink {
  const screw = COUNTERSUNK_HEADS.find((known) => known.thread === thread);
  if (!screw)
    throw new RangeError(
      `countersink knows ${COUNTERSUNK_HEADS.map((known) => known.thread).join(', ')}, got ${thread}`,
    );
  const diameter = screw.head + 2 * below;
  if (!(hole > 0 && hole < diameter))
    throw new RangeError(`countersink needs a hole above 0 and narrower than the head of ${diameter} mm, got ${hole}`);
  if (!(plate > 0)) throw new RangeError(`countersink needs a plate above 0 mm, got ${plate}`);
  const depth = tidyLength((diameter - hole) / 2);
  const remains = tidyLength(plate - depth);
  return { diameter, depth, remains, verdict: remains <= 0 ? 'through' : remains < plate / 4 ? 'thin' : 'good' };
}
