/** One reading of a motion sensor: epoch ms, and acceleration in m/s², gravity in it or not. */
export interface Shake {
  at: number;
  x: number;
  y: number;
  z: number;
}

/** How a double knock is told from a phone that is laid down or carried about. Common practice, tried on the bench. */
const KNOCK = {
  /** Change from one reading to the next that is a knock, m/s². */
  jolt: 9,
  /** What rings on after a knock is no second one, ms. */
  ring: 90,
  /** The two knocks lie so far apart, ms. */
  least: 110,
  most: 650,
  /** Nothing may shake so long before the first: it lay still. ms. */
  still: 400,
  /** What moves more than this between two readings is not still, m/s². */
  stir: 4,
};

/**
 * A listener for two knocks on something that lies still. Feed it the readings of a motion sensor in their order; it says
 * true once for each double knock.
 */
export function doubleKnock(): (shake: Shake) => boolean {
  let last: Shake | null = null;
  let first: number | null = null;
  let stirredAt = -Infinity;
  let knockedAt = -Infinity;
  return (shake) => {
    const before = last;
    if (before !== null && !(shake.at > before.at)) return false;
    last = shake;
    if (before === null) return false;
    const jolt = Math.hypot(shake.x - before.x, shake.y - before.y, shake.z - before.z);
    if (!Number.isFinite(jolt)) {
      last = before;
      return false;
    }
    if (first !== null && shake.at - first > KNOCK.most) first = null;
    if (jolt < KNOCK.jolt) {
      if (jolt > KNOCK.stir && shake.at - knockedAt > KNOCK.ring) stirredAt = shake.at;
      return false;
    }
    if (shake.at - knockedAt < KNOCK.ring) return false;
    const apart = first === null ? null : shake.at - first;
    const stillBefore = shake.at - Math.max(stirredAt, knockedAt) >= KNOCK.still;
    knockedAt = shake.at;
    if (apart === null) {
      if (stillBefore) first = shake.at;
      return false;
    }
    first = null;
    return apart >= KNOCK.least && apart <= KNOCK.most;
  };
}
