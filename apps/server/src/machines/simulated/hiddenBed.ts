import { lookingDown, stiffBed, type Adjuster, type SeenFrom } from '@even-bed/core';
import { randomNormal } from 'd3-random';
import seedrandom from 'seedrandom';

/** A bed as nobody sees it. Lengths in mm, heights + higher; u and v run from −1 to 1 across the readings. */
export interface BedNature {
  seed: string;
  /** Tilt at the start: height at the right and at the rear edge against the middle. */
  tilt: { right: number; rear: number };
  /** Height of the middle over the edge: + dome, − dish. */
  dome: number;
  /** Height of two opposite corners over the other two. */
  twist: number;
  bump: { u: number; v: number; height: number; radius: number } | null;
  /** Standard deviation of one reading. */
  noise: number;
  /** Doming that a cold bed has lost once it is warm. */
  warmUp: number;
}

export interface BedFrame {
  /** As the technician wrote them down. */
  adjusters: Adjuster[];
  seenFrom: SeenFrom;
  width: number;
  depth: number;
}

/** A hand turns a little more or less than it was told, and a nut has play: relative and absolute deviation. */
const HAND_SPREAD = 0.03;
const HAND_PLAY = 0.008;
/** Time in which a bed comes to 63 % of its warm shape, s. */
const WARM_UP_TIME = 120;

/** A simulated bed: reads with noise and drift, and follows turns imperfectly. */
export class HiddenBed {
  private readonly down: Adjuster[];
  private readonly moveOf: ReturnType<typeof stiffBed>;
  private readonly rises: number[];
  private readonly told = new Set<string>();
  private readonly normal: () => number;
  private warmth = 0;

  constructor(
    private readonly nature: BedNature,
    private readonly frame: BedFrame,
  ) {
    this.down = lookingDown(frame.adjusters, frame.seenFrom);
    this.moveOf = stiffBed(this.down);
    this.rises = this.down.map(() => 0);
    this.normal = randomNormal.source(seedrandom(nature.seed))(0, 1);
  }

  /** Turns an adjuster, + clockwise looking down. A token seen before moves nothing. Unknown adjusters are refused. */
  turn(adjusterId: string, turns: number, token: string): boolean {
    const at = this.down.findIndex(({ id }) => id === adjusterId);
    if (at < 0) return false;
    const key = `${token} ${adjusterId}`;
    if (this.told.has(key)) return true;
    this.told.add(key);
    const { pitch, clockwise } = this.down[at]!;
    const made = turns * (1 + HAND_SPREAD * this.normal()) + HAND_PLAY * this.normal();
    this.rises[at]! += made * pitch * (clockwise === 'raises' ? 1 : -1);
    return true;
  }

  /** Lets time pass with the heater on, s. */
  heat(seconds: number): void {
    this.warmth = 1 - (1 - this.warmth) * Math.exp(-seconds / WARM_UP_TIME);
  }

  /** The true height at a place in print coordinates. */
  trueHeight(x: number, y: number): number {
    const { tilt, dome, twist, bump, warmUp } = this.nature;
    const u = (2 * x) / this.frame.width - 1;
    const v = (2 * y) / this.frame.depth - 1;
    const { a, b, c } = this.moveOf(this.rises);
    const shape = (dome + warmUp * (1 - this.warmth)) * (1 - (u * u + v * v) / 2) + twist * u * v;
    const local = bump ? bump.height * Math.exp(-((u - bump.u) ** 2 + (v - bump.v) ** 2) / (2 * bump.radius ** 2)) : 0;
    return tilt.right * u + tilt.rear * v + shape + local + a * x + b * y + c;
  }

  /** One reading of the probe. */
  read(x: number, y: number): number {
    return this.trueHeight(x, y) + this.nature.noise * this.normal();
  }
}
