import { cutPart, trimmedPiece, type CutTree, type Rect } from './cutTree';

export interface MostPiecesAsk {
  /** All in whole units (µm): the answer is exact in them. */
  width: number;
  depth: number;
  piece: { width: number; depth: number };
  kerf: number;
  mayRotate: boolean;
}

export interface MostPieces {
  count: number;
  /** No way of edge-to-edge cuts gives more than this. */
  bound: number;
  exact: boolean;
  tree: CutTree;
}

/** Cut positions tried before the search stops and says that it is not proven. */
const MOST_TRIED = 20_000_000;

/**
 * The most equal pieces that edge-to-edge (guillotine) cuts give, exactly.
 *
 * With the kerf added to every piece and once to the sheet, a cut eats nothing. A part is cut at sums of piece sides
 * only (normal patterns), and a part counts as the largest such sums that fit in it; every part is solved once, by
 * taking the best of its two halves over all cuts. A part is done when it reaches its area bound.
 * Sources: Herz, Recursive computational procedure for two-dimensional stock cutting, IBM J. Res. Dev. 16 (1972)
 * 462-469; Beasley, Algorithms for unconstrained two-dimensional guillotine cutting, J. Oper. Res. Soc. 36 (1985) 297-306.
 */
export function mostPieces({ width, depth, piece, kerf, mayRotate }: MostPiecesAsk): MostPieces {
  const l = piece.width + kerf;
  const w = piece.depth + kerf;
  const W = width + kerf;
  const D = depth + kerf;
  const across = sumsUpTo(W, l, mayRotate ? w : l);
  const deep = sumsUpTo(D, w, mayRotate ? l : w);
  const columns = across.length;
  const solved = new Int32Array(columns * deep.length).fill(-1);
  // How each part is best cut: 0 uncut, +i at across[i], −j at deep[j].
  const choice = new Int32Array(columns * deep.length);
  let tried = 0;

  const fits = (x: number, y: number): 'as-asked' | 'turned' | null =>
    x >= l && y >= w ? 'as-asked' : mayRotate && x >= w && y >= l ? 'turned' : null;
  const areaBound = (x: number, y: number) => Math.floor((x * y) / (l * w) + 1e-12);

  const solve = (i: number, j: number): number => {
    const key = j * columns + i;
    if (solved[key]! >= 0) return solved[key]!;
    const x = across[i]!;
    const y = deep[j]!;
    if (x === 0 || y === 0 || fits(x, y) === null) return (solved[key] = 0);
    const bound = areaBound(x, y);
    let best = 1;
    let how = 0;
    for (let a = 1; a < i && best < bound && across[a]! * 2 <= x && tried < MOST_TRIED; a++) {
      tried++;
      const rest = indexOf(across, x - across[a]!);
      if (areaBound(across[a]!, y) + areaBound(across[rest]!, y) <= best) continue;
      const count = solve(a, j) + solve(rest, j);
      if (count > best) [best, how] = [count, a];
    }
    for (let b = 1; b < j && best < bound && deep[b]! * 2 <= y && tried < MOST_TRIED; b++) {
      tried++;
      const rest = indexOf(deep, y - deep[b]!);
      if (areaBound(x, deep[b]!) + areaBound(x, deep[rest]!) <= best) continue;
      const count = solve(i, b) + solve(i, rest);
      if (count > best) [best, how] = [count, -b];
    }
    choice[key] = how;
    return (solved[key] = best);
  };

  const last = [columns - 1, deep.length - 1] as const;
  const count = solve(...last);
  const build = (rect: Rect, i: number, j: number): CutTree => {
    const key = j * columns + i;
    if (solve(i, j) === 0) return { rect, is: 'waste' };
    const how = choice[key]!;
    if (how === 0) {
      const turned = fits(across[i]!, deep[j]!) === 'turned';
      const size = turned ? { width: piece.depth, depth: piece.width } : piece;
      return trimmedPiece(rect, { kind: 0, turned, ...size }, kerf);
    }
    if (how > 0) {
      const rest = indexOf(across, across[i]! - across[how]!);
      return cutPart(
        rect,
        'x',
        across[how]! - kerf,
        kerf,
        (r) => build(r, how, j),
        (r) => build(r, rest, j),
      );
    }
    const rest = indexOf(deep, deep[j]! - deep[-how]!);
    return cutPart(
      rect,
      'y',
      deep[-how]! - kerf,
      kerf,
      (r) => build(r, i, -how),
      (r) => build(r, i, rest),
    );
  };
  const exact = tried < MOST_TRIED;
  const bound = exact ? count : areaBound(across[last[0]]!, deep[last[1]]!);
  return { count, bound, exact, tree: build({ x: 0, y: 0, width, depth }, ...last) };
}

/** All sums i·p + j·q up to a length, sorted, 0 first. */
function sumsUpTo(length: number, p: number, q: number): number[] {
  const sums = new Set<number>();
  for (let a = 0; a <= length; a += p) {
    for (let b = a; b <= length; b += q) sums.add(b);
  }
  return [...sums].sort((x, y) => x - y);
}

/** Where the largest sum not above a length stands. */
function indexOf(sorted: readonly number[], length: number): number {
  let low = 0;
  let high = sorted.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (sorted[middle]! <= length) low = middle;
    else high = middle - 1;
  }
  return low;
}
