import { heightsFelt } from './feltText';
import { UnreadableHeights } from './errors';
import { gridOf, pointsOf } from './gridOf';
import { plainText, withoutQuotes } from './heightText';
import {
  ask,
  type LineWarning,
  type MatrixNeed,
  type ParsedHeights,
  type ParseOptions,
  type RawMatrix,
  type RawPoints,
  type Reader,
} from './heightReading';
import { spreadOf, type Extent, type HeightGrid, type HeightPoint } from './HeightPoint';
import { LONGEST_TEXT } from './longestText';
import { readJsonHeights } from './readJsonHeights';
import { readLabelled } from './readLabelled';
import { readTable } from './readTable';
import { MM_OF, writtenUnit, type Written } from './writtenUnit';

/**
 * Reads bed heights from whatever a console, a file or a keyboard gives.
 *
 * Understands columns (comma, semicolon, tab or spaces, with or without a header, x, y, z in any order and case),
 * lines with labelled X, Y and Z, a bare matrix with or without indices, positions or time stamps, and JSON with
 * points or a matrix; decimal commas; every Unicode minus; unreached cells as `nan`, `-`, `.` or nothing.
 *
 * A matrix without positions can't be placed: `needs` then lists what to ask and `points` stays empty. Whatever could be
 * read in two ways is a question in `questions`; one that nobody answered has `taken` null.
 * The text's sign and unit are converted here and nowhere else; what was felt by hand is always + higher.
 *
 * @param text as printed or typed, at most LONGEST_TEXT characters
 * @returns points in mm, + higher, the grid if there is one, and warnings by line
 * @throws UnreadableHeights no heights in the text, too much text, or an option that contradicts itself
 * @example parseHeights('x,y,z\n0,0,0.1\n100,0,0.2\n0,100,0.05').points.length // 3
 */
export function parseHeights(text: string, options: ParseOptions = {}): ParsedHeights {
  if (text.length > LONGEST_TEXT) {
    throw new UnreadableHeights('too-large', `That is ${text.length} characters; at most ${LONGEST_TEXT} are read.`);
  }
  checkExtent(options.extent);
  const felt = heightsFelt(text);
  if (felt !== null) return parseHeights(felt, { plus: 'higher' });
  const reader: Reader = { options, warnings: [], questions: [] };
  const plain = plainText(text);

  const understood = (layout: ParsedHeights['layout'], raw: RawPoints | RawMatrix) => {
    const units = writtenUnit(plain, placesOf(raw), heightsIn(raw), reader);
    return raw.kind === 'points' ? placed(layout, raw, reader, units) : laidOut(layout, raw, reader, units);
  };

  const json = readJsonHeights(plain, reader);
  if (json) return understood('json', json);

  const lines = withoutQuotes(plain).split('\n');
  const labelled = readLabelled(lines, reader);
  if (labelled) return understood('labelled', labelled);

  const table = readTable(lines, reader);
  if (table) return understood(table.kind, table);

  throw new UnreadableHeights(
    'no-heights',
    'No heights were found. Paste the lines with the numbers: x, y and z columns, or rows of a height map.',
  );
}

function checkExtent(extent: Extent | undefined): void {
  if (!extent) return;
  const { x0, y0, x1, y1 } = extent;
  if (!(x1 > x0) || !(y1 > y0) || ![x0, y0, x1, y1].every(Number.isFinite)) {
    throw new UnreadableHeights(
      'bad-option',
      `The outermost readings must span a rectangle, got x ${x0} to ${x1}, y ${y0} to ${y1}.`,
    );
  }
}

function placed(
  layout: ParsedHeights['layout'],
  { points: raw }: RawPoints,
  reader: Reader,
  { heights, places }: Written,
): ParsedHeights {
  const [sign, mm] = [signOf(reader) * MM_OF[heights], MM_OF[places]];
  const signed = raw.map(({ x, y, z }) => ({ x: mm * x, y: mm * y, z: sign * z + 0 }));
  const points = signed.filter(({ z }) => z === z);
  if (points.length === 0)
    throw new UnreadableHeights('no-heights', 'Places were found, but none of them has a height.');
  doubtHeights(points, reader.warnings);
  return {
    layout,
    points,
    grid: gridOf(signed),
    matrix: null,
    needs: [],
    unreached: signed.length - points.length,
    warnings: reader.warnings,
    questions: reader.questions,
  };
}

function laidOut(
  layout: ParsedHeights['layout'],
  raw: RawMatrix,
  reader: Reader,
  { heights, places }: Written,
): ParsedHeights {
  const { options, warnings, questions } = reader;
  const columns = raw.rows[0]!.length;
  const matrix = { rows: raw.rows.length, columns };
  if (heights !== 'mm' && raw.columnPositions && !raw.rowPositions)
    warnings.push({ line: 0, message: 'The first row was read as the places of the columns, in millimetres.' });
  if (matrix.rows * columns > MOST_CELLS)
    throw new UnreadableHeights(
      'too-large',
      `A map of ${columns} × ${matrix.rows} cells is no bed's; at most ${MOST_CELLS} are read.`,
    );
  const unreached = raw.rows.reduce((sum, row) => sum + row.filter((z) => z !== z).length, 0);
  if (unreached === matrix.rows * columns) {
    throw new UnreadableHeights('no-heights', 'A height map was found, but no cell of it has a height.');
  }
  const mm = MM_OF[places];
  const extent = options.extent ?? (raw.extent && inMillimetres(raw.extent, mm));
  const said = options.firstRow ?? raw.firstRow;
  const byLabel = raw.rowPositions !== null;
  const ownPlace = raw.columnPositions && raw.rowPositions;
  const needs: MatrixNeed[] = [];
  if (!ownPlace && !extent) needs.push('extent');
  if (!ownPlace && !byLabel && !said) needs.push('firstRow');
  // What was said of the first row may not contradict what stands before the rows without being asked.
  let firstRow = byLabel ? raw.rowOrder! : said;
  if (!ownPlace && said && raw.rowOrder && said !== raw.rowOrder)
    firstRow = ask(reader, 'rows', ['front', 'rear'], null) as 'front' | 'rear';
  const sign = signOf(reader) * MM_OF[heights];
  const known = { layout, matrix, needs, unreached, warnings, questions };
  if (needs.length > 0) return { ...known, points: [], grid: null };

  const xs =
    raw.columnPositions && (ownPlace || !options.extent)
      ? raw.columnPositions.map((x) => mm * x)
      : spaced(extent!.x0, extent!.x1, columns);
  const fromFront = ownPlace ? raw.rowPositions!.map((y) => mm * y) : spaced(extent!.y0, extent!.y1, matrix.rows);
  const ys = !ownPlace && firstRow === 'rear' ? [...fromFront].reverse() : fromFront;
  const columnOrder = ascending(xs);
  const rowOrder = ascending(ys);
  const grid: HeightGrid = {
    xs: columnOrder.map((i) => xs[i]!),
    ys: rowOrder.map((i) => ys[i]!),
    heights: rowOrder.map((r) => columnOrder.map((c) => sign * raw.rows[r]![c]! + 0)),
  };
  const points = pointsOf(grid);
  doubtHeights(points, warnings);
  return { ...known, points, grid };
}

const heightsIn = (raw: RawPoints | RawMatrix): number[][] =>
  raw.kind === 'points' ? [raw.points.map(({ z }) => z)] : raw.rows;

/** Places that the text itself names. */
function placesOf(raw: RawPoints | RawMatrix): Pick<HeightPoint, 'x' | 'y'>[] {
  if (raw.kind === 'points') return raw.points;
  const { columnPositions: xs, rowPositions: ys, extent } = raw;
  if (xs && ys) return ys.flatMap((y) => xs.map((x) => ({ x, y })));
  return extent ? [extent.x0, extent.x1].flatMap((x) => [extent.y0, extent.y1].map((y) => ({ x, y }))) : [];
}

const inMillimetres = ({ x0, y0, x1, y1 }: Extent, mm: number): Extent => ({
  x0: mm * x0,
  y0: mm * y0,
  x1: mm * x1,
  y1: mm * y1,
});

const signOf = ({ options }: Reader) => (options.plus === 'lower' ? -1 : 1);

/** Cells of a map: more are no bed's. */
const MOST_CELLS = 250_000;
/** Heights of a bed that prints at all lie within this range, mm. Common practice. */
const ABSURD_RANGE = 3;

/** Heights that no bed has: all the same, or farther apart than a bed that prints. */
function doubtHeights(points: readonly HeightPoint[], warnings: LineWarning[]): void {
  const { range } = spreadOf(points.map(({ z }) => z));
  if (points.length > 2 && range === 0)
    warnings.push({
      line: 0,
      message: 'All heights are the same. A probe that reads says at least hundredths: is this the commanded height?',
    });
  if (range > ABSURD_RANGE)
    warnings.push({
      line: 0,
      message: `The heights differ by ${range.toFixed(1)} mm, more than a bed that prints. Are they in millimetres, without slips?`,
    });
}

function spaced(from: number, to: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => (count === 1 ? from : from + ((to - from) * i) / (count - 1)));
}

const ascending = (values: readonly number[]) => values.map((_, i) => i).sort((p, q) => values[p]! - values[q]!);
