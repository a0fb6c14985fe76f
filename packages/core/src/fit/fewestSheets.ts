import { randomLcg } from 'd3-random';
import { cutPart, trimmedPiece, type CutTree, type Rect } from './cutTree';
import { sheetsNeeded } from './sheetsNeeded';

/** One piece of a mixed list, in whole units. */
export interface ListPiece {
  kind: number;
  width: number;
  depth: number;
  mayRotate: boolean;
}

export interface FewestSheetsAsk {
  width: number;
  depth: number;
  kerf: number;
  pieces: readonly ListPiece[];
  seed?: number;
  /** Orders tried at most. */
  tries?: number;
}

export interface FewestSheets {
  sheets: CutTree[];
  /** No cutting needs fewer. */
  bound: number;
}

const TRIES = 300;
/** Free parts looked at over all tries: past it the best so far is the answer, so that long lists end in a second or two. */
const MOST_LOOKS = 12_000_000;

/**
 * A mixed list on few sheets, by edge-to-edge cuts: a heuristic, with a bound beside it.
 *
 * Pieces are laid one after another into the free part where the least is over, which is then cut along one of its two
 * sides. Many orders are tried (large first, then shaken), and the sheets that are least full are packed again; it ends
 * when the bound is reached or the tries are used up. The same seed gives the same plan.
 * Source: guillotine packing with best fit: Jylänki, A thousand ways to pack the bin (2010), section 3.
 * @throws RangeError a piece that fits on no sheet
 */
export function fewestSheets({ width, depth, kerf, pieces, seed = 0.5, tries = TRIES }: FewestSheetsAsk): FewestSheets {
  for (const piece of pieces)
    if (!fitsIn(piece, { width, depth }))
      throw new RangeError(`fewestSheets: a piece of ${piece.width} × ${piece.depth} fits on no sheet`);
  const bound = sheetsNeeded(
    { width: width + kerf, depth: depth + kerf },
    pieces.map((piece) => ({ ...piece, width: piece.width + kerf, depth: piece.depth + kerf })),
  );
  if (pieces.length === 0) return { sheets: [], bound };
  const random = randomLcg(seed);
  const least = smallestOf(pieces);
  const looks = { count: 0 };
  let best: Laid | null = null;
  for (let n = 0; n < tries && (best === null || (best.sheets.length > bound && looks.count < MOST_LOOKS)); n++) {
    const order = orderOf(pieces, ORDERS[n % ORDERS.length]!, n < ORDERS.length * SPLITS.length ? 0 : 0.35, random);
    const split = SPLITS[Math.floor(n / ORDERS.length) % SPLITS.length]!;
    const laid = layAll(order, { width, depth, kerf, split, least, looks });
    if (best === null || better(laid, best)) best = laid;
  }
  return { sheets: best!.sheets.map((sheet) => treeOf(sheet.root, kerf)), bound };
}

type Node = { rect: Rect } & (
  | { is: 'free' }
  | { is: 'piece'; piece: ListPiece; turned: boolean }
  | { is: 'cut'; along: 'x' | 'y'; at: number; first: Node; second: Node | null }
);
interface Sheet {
  root: Node;
  free: Node[];
  used: number;
}
interface Laid {
  sheets: Sheet[];
}

/** Which way a free part is cut when a piece lies in its corner. */
type Split = 'shorter-rest' | 'longer-rest' | 'larger-part' | 'smaller-part';
const SPLITS: readonly Split[] = ['shorter-rest', 'larger-part', 'longer-rest', 'smaller-part'];

type Measure = (piece: ListPiece) => number;
const ORDERS: readonly Measure[] = [
  ({ width, depth }) => width * depth,
  ({ width, depth }) => Math.max(width, depth),
  ({ width, depth }) => Math.min(width, depth),
  ({ width }) => width,
  ({ depth }) => depth,
  ({ width, depth }) => width + depth,
];

function orderOf(pieces: readonly ListPiece[], measure: Measure, shake: number, random: () => number): ListPiece[] {
  return pieces
    .map((piece) => ({ piece, rank: measure(piece) * (1 + shake * (random() - 0.5) * 2) }))
    .sort((p, q) => q.rank - p.rank)
    .map(({ piece }) => piece);
}

interface How {
  width: number;
  depth: number;
  kerf: number;
  split: Split;
  /** The smallest side and the smallest area of all pieces: a free part below either holds none. */
  least: { side: number; area: number };
  looks: { count: number };
}

function smallestOf(pieces: readonly ListPiece[]): How['least'] {
  let [side, area] = [Infinity, Infinity];
  for (const { width, depth } of pieces) {
    side = Math.min(side, width, depth);
    area = Math.min(area, width * depth);
  }
  return { side, area };
}

function layAll(order: readonly ListPiece[], how: How): Laid {
  const sheets: Sheet[] = [];
  // Sheets that can still hold something.
  let open: Sheet[] = [];
  for (const piece of order) {
    const place = bestPlace(piece, open, how.looks);
    if (place) {
      lay(place.sheet, place.node, piece, place.turned, how);
      if (place.sheet.free.length === 0) open = open.filter((sheet) => sheet !== place.sheet);
    } else {
      const root: Node = { rect: { x: 0, y: 0, width: how.width, depth: how.depth }, is: 'free' };
      const sheet = { root, free: [root], used: 0 };
      sheets.push(sheet);
      open.push(sheet);
      const fresh = bestPlace(piece, [sheet], how.looks)!;
      lay(sheet, fresh.node, piece, fresh.turned, how);
    }
  }
  return { sheets };
}

/** The free part in which the shorter of the two rests is shortest. */
function bestPlace(piece: ListPiece, sheets: readonly Sheet[], looks: How['looks']) {
  let best: { sheet: Sheet; node: Node; turned: boolean; rest: number; room: number } | null = null;
  const ways = piece.mayRotate && piece.width !== piece.depth ? [false, true] : [false];
  for (const sheet of sheets) {
    looks.count += sheet.free.length;
    for (const node of sheet.free)
      for (const turned of ways) {
        const [w, d] = turned ? [piece.depth, piece.width] : [piece.width, piece.depth];
        const overX = node.rect.width - w;
        const overY = node.rect.depth - d;
        if (overX < 0 || overY < 0) continue;
        const rest = Math.min(overX, overY);
        const room = Math.max(overX, overY);
        if (best === null || rest < best.rest || (rest === best.rest && room < best.room))
          best = { sheet, node, turned, rest, room };
      }
  }
  return best;
}

function lay(sheet: Sheet, node: Node, piece: ListPiece, turned: boolean, { kerf, split, least }: How): void {
  const [w, d] = turned ? [piece.depth, piece.width] : [piece.width, piece.depth];
  const { rect } = node;
  const overX = rect.width - w - kerf;
  const overY = rect.depth - d - kerf;
  // Cut across first: the part beside the piece is as deep as the whole; or along first: the part behind it as wide.
  const first: 'x' | 'y' =
    split === 'shorter-rest'
      ? overX < overY
        ? 'y'
        : 'x'
      : split === 'longer-rest'
        ? overX < overY
          ? 'x'
          : 'y'
        : (split === 'larger-part') === overX * rect.depth > overY * rect.width
          ? 'x'
          : 'y';
  sheet.free.splice(sheet.free.indexOf(node), 1);
  sheet.used += w * d;
  const free: Node[] = [];
  const cut = (part: Rect, along: 'x' | 'y'): Node => {
    const at = along === 'x' ? w : d;
    const whole = along === 'x' ? part.width : part.depth;
    if (whole === at) return along === first ? cut(part, other(first)) : leaf(part);
    const near: Rect = along === 'x' ? { ...part, width: at } : { ...part, depth: at };
    const rest = whole - at - kerf;
    const far: Node | null =
      rest > 0
        ? {
            rect:
              along === 'x'
                ? { ...part, x: part.x + at + kerf, width: rest }
                : { ...part, y: part.y + at + kerf, depth: rest },
            is: 'free',
          }
        : null;
    if (far) free.push(far);
    return {
      rect: part,
      is: 'cut',
      along,
      at,
      first: along === first ? cut(near, other(first)) : leaf(near),
      second: far,
    };
  };
  const leaf = (part: Rect): Node => ({ rect: part, is: 'piece', piece, turned });
  Object.assign(node, cut(rect, first));
  for (const part of free) {
    const { width, depth } = part.rect;
    if (Math.min(width, depth) >= least.side && width * depth >= least.area) sheet.free.push(part);
  }
}

const other = (along: 'x' | 'y') => (along === 'x' ? 'y' : 'x');

/** Fewer sheets; of as many, the one whose last is emptiest: the most is left for another day. */
function better(p: Laid, q: Laid): boolean {
  if (p.sheets.length !== q.sheets.length) return p.sheets.length < q.sheets.length;
  return Math.min(...p.sheets.map(({ used }) => used)) < Math.min(...q.sheets.map(({ used }) => used));
}

function treeOf(node: Node, kerf: number): CutTree {
  if (node.is === 'free') return { rect: node.rect, is: 'waste' };
  if (node.is === 'piece') {
    const [width, depth] = node.turned ? [node.piece.depth, node.piece.width] : [node.piece.width, node.piece.depth];
    return trimmedPiece(node.rect, { kind: node.piece.kind, turned: node.turned, width, depth }, kerf);
  }
  return cutPart(
    node.rect,
    node.along,
    node.at,
    kerf,
    () => treeOf(node.first, kerf),
    () => treeOf(node.second!, kerf),
  );
}

const fitsIn = ({ width, depth, mayRotate }: ListPiece, sheet: { width: number; depth: number }) =>
  (width <= sheet.width && depth <= sheet.depth) || (mayRotate && depth <= sheet.width && width <= sheet.depth);
