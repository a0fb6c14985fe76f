import { needNumbers } from '../needNumbers';
import { tidyLength } from './tidyLength';

/** A rectangle on the plate; 0, 0 is the plate's front-left corner. mm. */
export interface PlateRect {
  x: number;
  y: number;
  width: number;
  depth: number;
}

export interface Sides {
  left: number;
  right: number;
  front: number;
  rear: number;
}

export interface FitCheckInput {
  plate: { width: number; depth: number };
  /** What is printed on. */
  print: PlateRect;
  /** The sheet or laminate; without x and y it lies in the middle. */
  piece: { width: number; depth: number; x?: number; y?: number };
  /** Cut out of the piece, measured on the plate. */
  notches?: readonly PlateRect[];
  /** What must stay free: adjusters, screws, clips. */
  keepOuts?: readonly (PlateRect & { name: string })[];
}

export interface FitCheck {
  piece: PlateRect;
  /** How far the piece stands over the plate on each side: + over, − short of the edge. */
  overhang: Sides;
  /** From the plate's edge to the print area on each side. */
  margin: Sides;
  /** From the print area to the piece's edge: − prints would miss the piece. */
  beyondPrint: Sides;
  /** Keep-outs under the piece that no notch frees. */
  covered: string[];
  /** Degrees it may lie askew before a bare edge of the plate shows; null when one shows anyway. */
  skewUntilBare: number | null;
  /** Degrees before a corner stands over the plate; null when one does anyway. */
  skewUntilOver: number | null;
  /** Degrees before the print area leaves it; null when it does anyway. */
  skewUntilPrint: number | null;
  verdict: 'fits' | 'over' | 'covers-keep-out' | 'misses-print';
}

/**
 * How a sheet or laminate lies on a real plate: overhang and margin on each side, what it covers, how true it must lie.
 * @throws RangeError sizes that are not above 0
 * Skew turns the piece about its own middle; the angle is found by halving to 1e-6°. Geometry of two rectangles.
 * @example fitCheck({ plate: { width: 235, depth: 235 }, print: { x: 7.5, y: 7.5, width: 220, depth: 220 },
 *   piece: { width: 250, depth: 250 } }).overhang.left // 7.5
 */
export function fitCheck({ plate, print, piece, notches = [], keepOuts = [] }: FitCheckInput): FitCheck {
  needNumbers('fitCheck', { plate, print, piece, notches, keepOuts });
  for (const [name, { width, depth }] of Object.entries({ plate, print, piece }))
    if (!(width > 0 && depth > 0))
      throw new RangeError(`fitCheck needs a ${name} larger than 0 mm, got ${width} × ${depth}`);
  const lies: PlateRect = {
    x: piece.x ?? (plate.width - piece.width) / 2,
    y: piece.y ?? (plate.depth - piece.depth) / 2,
    width: piece.width,
    depth: piece.depth,
  };
  const whole: PlateRect = { x: 0, y: 0, ...plate };
  const overhang = beyond(lies, whole);
  const beyondPrint = beyond(lies, print);
  const covered = keepOuts
    .filter((keepOut) => overlap(keepOut, lies) && !freed(keepOut, lies, notches))
    .map(({ name }) => name);
  const over = Object.values(overhang).some((side) => side > EPSILON);
  const misses = Object.values(beyondPrint).some((side) => side < -EPSILON);
  return {
    piece: lies,
    overhang,
    margin: beyond(whole, print),
    beyondPrint,
    covered,
    skewUntilBare: skewUntil((angle) => inside(whole, lies, angle)),
    skewUntilOver: skewUntil((angle) => inside(lies, whole, angle, lies)),
    skewUntilPrint: skewUntil((angle) => inside(print, lies, angle)),
    verdict: misses ? 'misses-print' : covered.length > 0 ? 'covers-keep-out' : over ? 'over' : 'fits',
  };
}

/**
 * How far an edge of a length runs out of line at an angle, mm.
 * @throws RangeError values that are no numbers
 * @example skewOver(235, 0.25) // 1.025
 */
export function skewOver(length: number, degrees: number): number {
  needNumbers('skewOver', { length, degrees });
  return length * Math.sin((degrees * Math.PI) / 180);
}

const EPSILON = 1e-9;
/** Past this the piece was laid on wrong, not askew. */
const MOST_SKEW = 45;
const STEP = 0.25;

function beyond(outer: PlateRect, inner: PlateRect): Sides {
  return {
    left: tidyLength(inner.x - outer.x),
    right: tidyLength(outer.x + outer.width - inner.x - inner.width),
    front: tidyLength(inner.y - outer.y),
    rear: tidyLength(outer.y + outer.depth - inner.y - inner.depth),
  };
}

const overlap = (p: PlateRect, q: PlateRect) =>
  p.x < q.x + q.width - EPSILON &&
  q.x < p.x + p.width - EPSILON &&
  p.y < q.y + q.depth - EPSILON &&
  q.y < p.y + p.depth - EPSILON;

/** A keep-out is free when one notch takes in all of it that the piece would cover. */
function freed(keepOut: PlateRect, piece: PlateRect, notches: readonly PlateRect[]): boolean {
  const left = Math.max(keepOut.x, piece.x);
  const front = Math.max(keepOut.y, piece.y);
  const right = Math.min(keepOut.x + keepOut.width, piece.x + piece.width);
  const rear = Math.min(keepOut.y + keepOut.depth, piece.y + piece.depth);
  return notches.some(
    ({ x, y, width, depth }) =>
      x <= left + EPSILON && y <= front + EPSILON && x + width >= right - EPSILON && y + depth >= rear - EPSILON,
  );
}

/** Whether all corners of `inner` lie in `outer` while the piece is turned about its middle. */
function inside(inner: PlateRect, outer: PlateRect, degrees: number, turned: PlateRect = outer): boolean {
  const angle = (degrees * Math.PI) / 180;
  // Turning the outer one is turning the inner one's corners back.
  const sign = turned === outer ? -1 : 1;
  const mx = turned.x + turned.width / 2;
  const my = turned.y + turned.depth / 2;
  return [0, 1].every((right) =>
    [0, 1].every((rear) => {
      const dx = inner.x + right * inner.width - mx;
      const dy = inner.y + rear * inner.depth - my;
      const x = mx + dx * Math.cos(angle) - sign * dy * Math.sin(angle);
      const y = my + sign * dx * Math.sin(angle) + dy * Math.cos(angle);
      return (
        x >= outer.x - EPSILON &&
        x <= outer.x + outer.width + EPSILON &&
        y >= outer.y - EPSILON &&
        y <= outer.y + outer.depth + EPSILON
      );
    }),
  );
}

/** The largest angle up to which it holds both ways round; null when it doesn't hold at 0. */
function skewUntil(holds: (degrees: number) => boolean): number | null {
  if (!holds(0)) return null;
  const both = (degrees: number) => holds(degrees) && holds(-degrees);
  // Past its diagonal a corner comes back in: the first angle at which it is out is looked for, not the last.
  let high = STEP;
  while (both(high)) {
    if (high >= MOST_SKEW) return MOST_SKEW;
    high += STEP;
  }
  let low = high - STEP;
  while (high - low > 1e-6) {
    const middle = (low + high) / 2;
    if (both(middle)) low = middle;
    else high = middle;
  }
  return low;
}
