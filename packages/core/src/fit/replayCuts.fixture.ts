import type { Cut, Rect } from './cutTree';

const KEY = 1000;
const keyOf = ({ x, y, width, depth }: Rect) => [x, y, width, depth].map((v) => Math.round(v * KEY)).join(' ');

/**
 * Makes the cuts one after another on a real sheet: each must find its part whole, run from edge to edge of it, and eat
 * its kerf. Knows nothing of how the plan was found.
 * @returns the parts that lie on the bench at the end
 */
export function replayCuts(sheet: { width: number; depth: number }, cuts: readonly Cut[], kerf: number): Rect[] {
  const bench = new Map<string, Rect>();
  const put = (rect: Rect) => {
    if (rect.width > 1e-6 && rect.depth > 1e-6) bench.set(keyOf(rect), rect);
  };
  put({ x: 0, y: 0, ...sheet });
  for (const { number, part, along, measure } of cuts) {
    if (!bench.delete(keyOf(part))) throw new Error(`cut ${number}: no such part lies on the bench`);
    const whole = along === 'x' ? part.width : part.depth;
    if (!(measure >= 0 && measure < whole)) throw new Error(`cut ${number}: ${measure} is not within ${whole}`);
    const rest = whole - measure - kerf;
    if (along === 'x') {
      put({ ...part, width: measure });
      put({ ...part, x: part.x + measure + kerf, width: rest });
    } else {
      put({ ...part, depth: measure });
      put({ ...part, y: part.y + measure + kerf, depth: rest });
    }
  }
  return [...bench.values()];
}

/** How many of the parts are pieces of a size, either way round where they may be turned. */
export function countPieces(
  parts: readonly Rect[],
  piece: { width: number; depth: number },
  mayRotate: boolean,
): number {
  const same = (p: number, q: number) => Math.abs(p - q) < 1e-6;
  return parts.filter(
    ({ width, depth }) =>
      (same(width, piece.width) && same(depth, piece.depth)) ||
      (mayRotate && same(width, piece.depth) && same(depth, piece.width)),
  ).length;
}
