import type { CutMethod } from './blankCaution';
import { needNumbers } from '../needNumbers';
import { cutPart, cutsOf, piecesOf, type Cut, type CutTree, type PlacedPiece, type Rect } from './cutTree';
import { fewestSheets } from './fewestSheets';
import { mostPieces } from './mostPieces';

/** A size to be cut out. mm. */
export interface Blank {
  name?: string;
  width: number;
  depth: number;
  /** How many are wanted. One size without a number: as many as the sheets give. */
  count?: number;
  /** Leg of the corners that are knocked off, mm. */
  corners?: number;
}

export interface PlanBlanksInput {
  sheet: { width: number; depth: number };
  /** One size, or a list of several with their numbers. */
  piece: Blank | readonly Blank[];
  /** What a saw cut eats, mm. Nothing when glass is scored and snapped. */
  kerf?: number;
  /** Taken off every edge of the sheet first, the cut counted in, mm. */
  trim?: number;
  method: CutMethod;
  mayRotate: boolean;
  /** Sheets on hand; for one size. Default 1. */
  sheets?: number;
  /** Price of a sheet. */
  price?: number;
  seed?: number;
}

/** One way of cutting a sheet, and how many sheets are cut so. */
export interface BlankLayout {
  sheets: number;
  tree: CutTree;
  pieces: PlacedPiece[];
  cuts: Cut[];
}

export interface BlankPlan {
  sheet: { width: number; depth: number };
  blanks: readonly Blank[];
  kerf: number;
  layouts: BlankLayout[];
  /** Sheets that are cut. */
  sheets: number;
  /** Pieces that come out: for one size all that a sheet gives, for a list those asked for. */
  pieces: number;
  /** Of one size: the most from one sheet. */
  perSheet: number | null;
  /** What no way of cutting betters: pieces from one sheet, or sheets for the list. */
  bound: { pieces: number } | { sheets: number };
  /** The bound is reached: no edge-to-edge cutting is better. */
  proven: boolean;
  /** What area alone would have promised: pieces from one sheet, or sheets, as a plain division. */
  areaAlone: number;
  /** Part of the sheets that ends in no piece, kerf included: 0 to 1. */
  waste: number;
  costPerPiece: number | null;
}

/**
 * Sums are done in sixteenths of a micrometre, so that "exactly" means it: whole for every thousandth of a mm and for every
 * 128th of an inch (25.4 / 128 mm = 3175 of them). A sheet of 5 m squared stays below 2⁵³.
 */
const UNIT = 16_000;
/** Smaller pieces than so many to a sheet are a job for a machine, not for a saw. */
const MOST_TO_A_SHEET = 2000;
/** Pieces in a list of several sizes. */
const MOST_IN_A_LIST = 2000;
/** Longest side of a sheet or piece, mm. */
const LARGEST = 5000;

/**
 * How to cut blanks from sheets by straight cuts from edge to edge, as a saw does and as glass must be.
 * Equal pieces: the most, exactly. A list of several sizes: the fewest sheets found, with a bound beside them.
 * @throws RangeError sizes not above 0, kerf or trim below 0, a piece larger than the sheet, more than 2000 to a sheet
 * @example planBlanks({ sheet: { width: 305, depth: 305 }, piece: { width: 133, depth: 159 }, method: 'snap',
 *   mayRotate: true }).perSheet // 3
 */
export function planBlanks(input: PlanBlanksInput): BlankPlan {
  needNumbers('planBlanks', input);
  const { sheet, trim = 0, method, mayRotate, price } = input;
  const kerf = method === 'snap' ? 0 : (input.kerf ?? 0);
  const blanks: readonly Blank[] = 'width' in input.piece ? [input.piece] : input.piece;
  guard(input, kerf, blanks);
  const usable = { width: units(sheet.width) - 2 * units(trim), depth: units(sheet.depth) - 2 * units(trim) };
  const framed = (tree: CutTree) => inMm(trim > 0 ? trimmedSheet(sheet, trim, kerf, tree) : tree);
  const layout = (tree: CutTree, sheets: number): BlankLayout => ({
    sheets,
    tree,
    pieces: piecesOf(tree),
    cuts: cutsOf(tree),
  });
  const sheetArea = sheet.width * sheet.depth;
  const [only] = blanks;
  if (blanks.length === 1) {
    const piece = { width: units(only!.width), depth: units(only!.depth) };
    const most = mostPieces({ ...usable, piece, kerf: units(kerf), mayRotate });
    const sheets = only!.count === undefined ? (input.sheets ?? 1) : Math.ceil(only!.count / Math.max(1, most.count));
    const pieces = most.count * sheets;
    return {
      sheet,
      blanks,
      kerf,
      layouts: [layout(framed(most.tree), sheets)],
      sheets,
      pieces,
      perSheet: most.count,
      bound: { pieces: most.bound },
      proven: most.count === most.bound,
      areaAlone: sheetArea / (only!.width * only!.depth),
      waste: 1 - (most.count * only!.width * only!.depth) / sheetArea,
      costPerPiece: price === undefined || pieces === 0 ? null : (price * sheets) / (only!.count ?? pieces),
    };
  }
  const list = blanks.flatMap(({ width, depth, count = 1 }, kind) =>
    Array.from({ length: count }, () => ({ kind, width: units(width), depth: units(depth), mayRotate })),
  );
  const few = fewestSheets({
    ...usable,
    kerf: units(kerf),
    pieces: list,
    ...(input.seed === undefined ? {} : { seed: input.seed }),
  });
  const area = blanks.reduce((sum, { width, depth, count = 1 }) => sum + width * depth * count, 0);
  return {
    sheet,
    blanks,
    kerf,
    layouts: few.sheets.map((tree) => layout(framed(tree), 1)),
    sheets: few.sheets.length,
    pieces: list.length,
    perSheet: null,
    bound: { sheets: few.bound },
    proven: few.sheets.length === few.bound,
    areaAlone: area / sheetArea,
    waste: 1 - area / (sheetArea * few.sheets.length),
    costPerPiece: price === undefined ? null : (price * few.sheets.length) / list.length,
  };
}

function guard(
  { sheet, trim = 0, sheets, price, mayRotate, method, seed }: PlanBlanksInput,
  kerf: number,
  blanks: readonly Blank[],
): void {
  if (!(sheet.width > 0 && sheet.depth > 0 && sheet.width <= LARGEST && sheet.depth <= LARGEST))
    throw new RangeError(
      `planBlanks needs a sheet larger than 0 mm and up to ${LARGEST}, got ${sheet.width} × ${sheet.depth}`,
    );
  if (method !== 'saw' && method !== 'snap')
    throw new RangeError(`planBlanks knows saw and snap, got ${String(method)}`);
  if (!(kerf >= 0 && kerf <= LARGEST)) throw new RangeError(`planBlanks needs a kerf of 0 or more, got ${kerf}`);
  if (!(trim === 0 || (trim <= LARGEST && units(trim) >= units(kerf))))
    throw new RangeError(`planBlanks needs a trim of 0, or at least the kerf of ${kerf} mm, got ${trim}`);
  if (sheets !== undefined && !(Number.isInteger(sheets) && sheets > 0))
    throw new RangeError(`planBlanks needs a whole number of sheets, got ${sheets}`);
  if (price !== undefined && !(price >= 0 && price < Infinity))
    throw new RangeError(`planBlanks needs a price of 0 or more, got ${price}`);
  if (seed !== undefined && !Number.isFinite(seed)) throw new RangeError(`planBlanks needs a finite seed, got ${seed}`);
  if (blanks.length === 0) throw new RangeError('planBlanks needs a piece to cut');
  const total = blanks.reduce((sum, { count = 1 }) => sum + count, 0);
  if (blanks.length > 1 && !(total <= MOST_IN_A_LIST))
    throw new RangeError(`planBlanks lays out lists of at most ${MOST_IN_A_LIST} pieces, got ${total}`);
  const room = { width: units(sheet.width) - 2 * units(trim), depth: units(sheet.depth) - 2 * units(trim) };
  for (const { width, depth, count, corners = 0 } of blanks) {
    const said = `${width} × ${depth}`;
    if (!(width > 0 && depth > 0 && width <= LARGEST && depth <= LARGEST))
      throw new RangeError(`planBlanks needs pieces larger than 0 mm, got ${said}`);
    if (count !== undefined && !(Number.isInteger(count) && count > 0))
      throw new RangeError(`planBlanks needs a whole number of pieces, got ${count}`);
    if (!(corners >= 0 && 2 * corners <= Math.min(width, depth)))
      throw new RangeError(`planBlanks needs corners smaller than half the piece of ${said} mm, got ${corners}`);
    const [w, d] = [units(width), units(depth)];
    const fits = (w <= room.width && d <= room.depth) || (mayRotate && d <= room.width && w <= room.depth);
    if (!fits)
      throw new RangeError(
        `A piece of ${said} mm is larger than what the sheet gives, ${room.width / UNIT} × ${room.depth / UNIT} mm`,
      );
    if ((room.width * room.depth) / (w * d) > MOST_TO_A_SHEET)
      throw new RangeError(`planBlanks lays out at most ${MOST_TO_A_SHEET} pieces a sheet; ${said} mm is smaller`);
  }
}

/** The sheet with a strip cut off each edge, the far ones first as the fence reads them. */
function trimmedSheet(sheet: { width: number; depth: number }, trim: number, kerf: number, tree: CutTree): CutTree {
  const [t, k] = [units(trim), units(kerf)];
  const waste = (rect: Rect): CutTree => ({ rect, is: 'waste' });
  const inner = (rect: Rect): CutTree => shifted(tree, rect.x, rect.y);
  const off = (rect: Rect, step: number): CutTree => {
    if (step === 4) return inner(rect);
    const along = step < 2 ? 'x' : 'y';
    const whole = along === 'x' ? rect.width : rect.depth;
    const next = (part: Rect) => off(part, step + 1);
    return step % 2 === 0
      ? cutPart(rect, along, t - k, k, waste, next)
      : cutPart(rect, along, whole - t, k, next, waste);
  };
  return off({ x: 0, y: 0, width: units(sheet.width), depth: units(sheet.depth) }, 0);
}

function shifted(tree: CutTree, dx: number, dy: number): CutTree {
  const rect = { ...tree.rect, x: tree.rect.x + dx, y: tree.rect.y + dy };
  if (tree.is !== 'cut') return { ...tree, rect };
  return { ...tree, rect, first: shifted(tree.first, dx, dy), second: tree.second && shifted(tree.second, dx, dy) };
}

function inMm(tree: CutTree): CutTree {
  const { x, y, width, depth } = tree.rect;
  const rect = { x: x / UNIT, y: y / UNIT, width: width / UNIT, depth: depth / UNIT };
  if (tree.is !== 'cut') return { ...tree, rect };
  return { ...tree, rect, at: tree.at / UNIT, first: inMm(tree.first), second: tree.second && inMm(tree.second) };
}

const units = (mm: number) => Math.round(mm * UNIT);
