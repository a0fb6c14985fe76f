import { needNumbers } from '../needNumbers';

/** One pad of a test print: its place, mm. */
export interface Pad {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Its middle was moved inward to stay on the plate. */
  moved: boolean;
}

export interface PadPlaces {
  pads: Pad[];
  /** Places left out: a pad there would lie over another, or finds no room on the plate. */
  left: { x: number; y: number }[];
}

/** Nothing is printed nearer to the edge of what can be printed on, mm. */
export const PAD_EDGE = 5;
/** Room for the line in front on which the nozzle is primed, mm. */
const PRIME_GAP = 4;

/** The largest pad that finds room on the plate, whole mm. */
export const largestPad = ({ width, depth }: { width: number; depth: number }, line: number): number =>
  Math.floor(Math.min(width - 2 * PAD_EDGE, depth - 2 * PAD_EDGE - PRIME_GAP - line));

/** Pads on the plate, clear of its edges, of the priming line in front, and of each other. */
export function padPlaces({
  print,
  pad,
  places,
  line,
}: {
  print: { x: number; y: number; width: number; depth: number };
  pad: number;
  places: readonly { x: number; y: number }[];
  line: number;
}): PadPlaces {
  needNumbers('padPlaces', { print, pad, places, line });
  const half = pad / 2;
  const front = print.y + PAD_EDGE + PRIME_GAP + line;
  /** null: there is no room between the two. */
  const inside = (value: number, low: number, high: number) =>
    low <= high ? Math.min(high, Math.max(low, value)) : null;
  const pads: Pad[] = [];
  const left: { x: number; y: number }[] = [];
  for (const { x, y } of places) {
    const cx = inside(x, print.x + PAD_EDGE + half, print.x + print.width - PAD_EDGE - half);
    const cy = inside(y, front + half, print.y + print.depth - PAD_EDGE - half);
    const over =
      cx === null ||
      cy === null ||
      pads.some(({ x0, y0 }) => Math.abs(x0 + half - cx) < pad + line && Math.abs(y0 + half - cy) < pad + line);
    if (over) left.push({ x, y });
    else pads.push({ x0: cx - half, y0: cy - half, x1: cx + half, y1: cy + half, moved: cx !== x || cy !== y });
  }
  return { pads, left };
}

/** Where calipers go: a pad's middle. What the map says is read off there, not where the pad was wanted. */
export const middleOf = ({ x0, y0, x1, y1 }: Pad) => ({ x: (x0 + x1) / 2, y: (y0 + y1) / 2 });
