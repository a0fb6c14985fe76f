import { tidyLength } from './tidyLength';

/**
 * Nominal thickness of plain washers, normal series, product grade A, mm.
 * Source: ISO 7089 (plain washers, normal series), from memory.
 */
export const WASHERS: readonly { thread: string; thickness: number }[] = [
  { thread: 'M2', thickness: 0.3 },
  { thread: 'M2.5', thickness: 0.5 },
  { thread: 'M3', thickness: 0.5 },
  { thread: 'M4', thickness: 0.8 },
  { thread: 'M5', thickness: 1 },
  { thread: 'M6', thickness: 1.6 },
  { thread: 'M8', thickness: 1.6 },
  { thread: 'M10', thickness: 2 },
];

/** A pile of washers under one spring. */
export interface WasherPile {
  /** Thread of each washer, thickest first, or "own" for one that is no standard washer. */
  pieces: { name: string; thickness: number }[];
  thickness: number;
}

/** More than so many loose washers under a spring don't stay in line. Common practice. */
const MOST = 6;

/**
 * The thinnest pile that reaches a thickness, and of those the one of fewest pieces.
 * @param needed mm
 * @param kinds what may be piled; the washers of the screw by default in `washersFor`
 * @returns null when six pieces are not enough
 */
export function washerPile(needed: number, kinds: readonly { name: string; thickness: number }[]): WasherPile | null {
  if (needed <= 0) return { pieces: [], thickness: 0 };
  const sorted = [...kinds].sort((p, q) => q.thickness - p.thickness);
  let best: WasherPile | null = null;
  const pile = (from: number, pieces: WasherPile['pieces'], thickness: number) => {
    if (thickness >= needed - 1e-9) {
      const better =
        best === null ||
        thickness < best.thickness - 1e-9 ||
        (Math.abs(thickness - best.thickness) <= 1e-9 && pieces.length < best.pieces.length);
      if (better) best = { pieces, thickness: tidyLength(thickness) };
      return;
    }
    if (pieces.length === MOST) return;
    for (let i = from; i < sorted.length; i++) pile(i, [...pieces, sorted[i]!], thickness + sorted[i]!.thickness);
  };
  pile(0, [], 0);
  return best;
}

/** The standard washers that go on a screw, named: "ISO 7089 M3". @throws RangeError a thread the table doesn't have */
export function washersFor(thread: string): { name: string; thickness: number }[] {
  const found = WASHERS.filter((washer) => washer.thread === thread);
  if (found.length === 0)
    throw new RangeError(`washersFor knows ${WASHERS.map((washer) => washer.thread).join(', ')}, got ${thread}`);
  return found.map((washer) => ({ name: `ISO 7089 ${washer.thread}`, thickness: washer.thickness }));
}
