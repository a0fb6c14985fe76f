import type { Adjuster } from './planTurns';

/** What a machine's page calls the thread of an adjuster that a motor drives. */
export const MOTOR_THREAD = 'motor';

/**
 * An adjuster of a machine's page as sums take it: without its name. What a motor drives is told in mm, + up, whatever stands
 * there of a thread and a sense.
 */
export const plainAdjuster = ({
  id,
  x,
  y,
  thread,
  pitch,
  clockwise,
}: Omit<Adjuster, 'motor'> & { thread: string }): Adjuster =>
  thread === MOTOR_THREAD ? { id, x, y, pitch: 1, clockwise: 'raises', motor: true } : { id, x, y, pitch, clockwise };
