/** A rectangle on the sheet, mm; 0, 0 is its front-left corner. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  depth: number;
}

/** A piece where it lies. `turned`: a quarter turn from how it was asked for. */
export interface PlacedPiece extends Rect {
  kind: number;
  turned: boolean;
}

/** A part of a sheet: cut once more from edge to edge, or a piece, or waste. */
export type CutTree =
  | { rect: Rect; is: 'cut'; along: 'x' | 'y'; at: number; first: CutTree; second: CutTree | null }
  | { rect: Rect; is: 'piece'; kind: number; turned: boolean }
  | { rect: Rect; is: 'waste' };

/** One straight cut from edge to edge of the part named. */
export interface Cut {
  number: number;
  /** The part that is cut: as it lies on the sheet. */
  part: Rect;
  /** x: the cut runs from front to rear and the measure goes across; y: the other way. */
  along: 'x' | 'y';
  /** From the part's left (x) or front (y) edge to the near side of the cut, mm: what the stop is set to. */
  measure: number;
}

/** The cuts in the order in which they are made: each part is whole when its turn comes. */
export function cutsOf(tree: CutTree): Cut[] {
  const cuts: Cut[] = [];
  const queue: CutTree[] = [tree];
  // The part in hand is finished before the next is taken up.
  while (queue.length > 0) {
    const part = queue.pop()!;
    if (part.is !== 'cut') continue;
    cuts.push({ number: cuts.length + 1, part: part.rect, along: part.along, measure: part.at });
    if (part.second) queue.push(part.second);
    queue.push(part.first);
  }
  return cuts;
}

export function piecesOf(tree: CutTree): PlacedPiece[] {
  if (tree.is === 'piece') return [{ ...tree.rect, kind: tree.kind, turned: tree.turned }];
  if (tree.is === 'waste') return [];
  return [...piecesOf(tree.first), ...(tree.second ? piecesOf(tree.second) : [])];
}

/** A part and its cut at `at`: `kerf` is eaten, what is left beyond it is the second part. */
export function cutPart(
  rect: Rect,
  along: 'x' | 'y',
  at: number,
  kerf: number,
  first: (rect: Rect) => CutTree,
  second: (rect: Rect) => CutTree,
): CutTree {
  const near: Rect = along === 'x' ? { ...rect, width: at } : { ...rect, depth: at };
  const far: Rect =
    along === 'x'
      ? { ...rect, x: rect.x + at + kerf, width: rect.width - at - kerf }
      : { ...rect, y: rect.y + at + kerf, depth: rect.depth - at - kerf };
  const rest = along === 'x' ? far.width : far.depth;
  return { rect, is: 'cut', along, at, first: first(near), second: rest > 0 ? second(far) : null };
}

/** A piece in the front-left corner of a part, with the cuts that free it from what is over. */
export function trimmedPiece(
  rect: Rect,
  piece: { kind: number; turned: boolean; width: number; depth: number },
  kerf: number,
): CutTree {
  const waste = (part: Rect): CutTree => ({ rect: part, is: 'waste' });
  if (rect.width > piece.width)
    return cutPart(rect, 'x', piece.width, kerf, (part) => trimmedPiece(part, piece, kerf), waste);
  if (rect.depth > piece.depth)
    return cutPart(rect, 'y', piece.depth, kerf, (part) => trimmedPiece(part, piece, kerf), waste);
  return { rect, is: 'piece', kind: piece.kind, turned: piece.turned };
}
