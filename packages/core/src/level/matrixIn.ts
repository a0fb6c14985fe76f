import { ask, type LineWarning, type RawMatrix, type Reader } from './heightReading';
import type { Extent } from './HeightPoint';
import type { TableRow } from './tableRows';

/** Positions along a header spread at least this far, indices of a real map never do, mm. */
const LEAST_POSITION_RANGE = 10;
const WHOLE = /^\s*[+-]?\d+\s*$/;
/** A head is a number of millimetres: one with another unit is a height. */
const WITH_UNIT = /\d\s?(?!mm)[a-zµμ]+\s*$/i;

interface Row {
  line: number;
  cells: number[];
  written: string[];
  label: number | null;
  ends: number[] | null;
}

/**
 * The height map among the rows of a text: with or without a header of column indices or positions, and with or
 * without row labels. Where several maps follow each other the last one is taken and the others are offered; what the
 * rows leave open is asked.
 * @returns null when there are not at least two rows of two numbers
 */
export function matrixIn(rows: readonly TableRow[], reader: Reader): RawMatrix | null {
  const { warnings } = reader;
  const numeric = withLoneNumbers(withoutSummaries(rows, warnings));
  const whole = joined(oneMap(numeric, reader), reader);
  const width = commonWidth(whole);
  if (width === null) return null;
  const extent = extentAbove(whole, width, reader);
  const block = extent ? whole.slice(1) : whole;

  const header = headerOf(block, width);
  let body = edgesTrimmed(header ? block.slice(1) : block, width, warnings);

  const inFirstCell = labelsInFirstCell(header, body, width);
  const columns = inFirstCell ? width - 1 : width;
  if (columns < 2 || body.length < 2) return null;
  body = withoutMeans(body, { width, inFirstCell, reader });
  const labels = body.map(({ label, cells }) => (inFirstCell && cells.length === width ? cells[0]! : label));

  const heights = body.map((row) => {
    const cells = row.cells.length === width ? row.cells : filledByPlace(row, body, width);
    if (cells && cells !== row.cells)
      warnings.push({ line: row.line, message: 'Blank places in this row count as not reached.' });
    if (cells) return inFirstCell ? cells.slice(1) : cells;
    warnings.push({
      line: row.line,
      message: `This row holds ${row.cells.length} numbers where the others hold ${width}; its cells count as not reached.`,
    });
    return new Array<number>(columns).fill(NaN);
  });
  reportOddCells(rows, body, warnings);
  const heads = header ? header.cells.slice(header.cells.length - columns) : null;
  const countsDown = heads !== null && heads.length > 1 && areIndices(heads) && heads[0]! > heads[1]!;
  const mirrored = countsDown && ask(reader, 'columns', ['as-printed', 'by-index'], null) === 'by-index';
  // A corner that names x before y is written by some for what runs down, by others for what runs across.
  const corner = header && !Number.isFinite(header.cells[0]) ? header.written[0]!.trim() : '';
  if (X_FIRST.test(corner) && ask(reader, 'axes', ['columns-x', 'rows-x'], null) === 'rows-x')
    return {
      kind: 'matrix',
      rows: heights[0]!.map((_, c) => heights.map((row) => row[c]!)),
      columnPositions: labels.every((label) => label !== null) && arePositions(labels) ? labels : null,
      rowPositions: heads && arePositions(heads) ? heads : null,
      rowOrder: rowOrderOf(heads ?? []),
      ...(extent ? { extent } : {}),
    };
  return {
    kind: 'matrix',
    rows: mirrored ? heights.map((row) => [...row].reverse()) : heights,
    columnPositions: heads && arePositions(heads) ? heads : null,
    rowPositions: labels.every((label) => label !== null) && arePositions(labels) ? labels : null,
    rowOrder: rowOrderOf(labels),
    ...(extent ? { extent } : {}),
  };
}

/** A bed is at least so long, and its heights lie within so much, mm. */
const LEAST_EXTENT = 40;
const MOST_HEIGHT = 10;
/** Places of columns lie about evenly: none so many times as far apart as others. */
const UNEVEN = 3;

/** Four numbers above a map of four columns that can be its outermost places, and hardly its heads: asked. Null: they are none. */
function extentAbove([first, ...below]: readonly Row[], width: number, reader: Reader): Extent | null {
  if (!first || width !== 4 || first.label !== null || first.cells.length !== 4 || below.length < 2) return null;
  if (below.some(({ cells }) => cells.some((z) => Math.abs(z) > MOST_HEIGHT))) return null;
  const [a, b, c, d] = first.cells as [number, number, number, number];
  const spans = (x0: number, x1: number, y0: number, y1: number) =>
    x1 - x0 >= LEAST_EXTENT && y1 - y0 >= LEAST_EXTENT ? { x0, y0, x1, y1 } : null;
  const ways = { 'x0 y0 x1 y1': spans(a, c, b, d), 'x0 x1 y0 y1': spans(a, b, c, d) };
  const steps = [b - a, c - b, d - c];
  if (Math.min(...steps) > 0 && Math.max(...steps) < UNEVEN * Math.min(...steps)) return null;
  const offered = (Object.keys(ways) as (keyof typeof ways)[]).filter((way) => ways[way]);
  if (offered.length === 0) return null;
  const taken = ask(reader, 'first-row', [...offered, 'row'], null);
  return taken === 'row' ? null : ways[taken as keyof typeof ways];
}

/** Names of both axes in the corner of a map, x before y; with y first it runs down, as usual. */
const X_FIRST = /^\W{0,4}x\W{1,4}y\W{0,4}$/i;
/** A head of a column that sums up what stands in its row. */
const SUMS_UP =
  /^\W{0,4}(?:avg|average|mean|max|maximum|min|minimum|range|spread|dev|std|stddev|deviation|rms|sum|total)\W{0,4}$/i;

/** Columns that are headed as a mean, a greatest or a least are no part of the bed. */
function withoutSummaries(rows: readonly TableRow[], warnings: LineWarning[]): readonly TableRow[] {
  const head = rows.find(
    ({ written, cells }) =>
      written.some((cell) => SUMS_UP.test(cell.trim())) && cells.filter((cell) => Number.isFinite(cell)).length >= 2,
  );
  if (!head) return rows;
  const at = new Set(head.written.flatMap((cell, i) => (SUMS_UP.test(cell.trim()) ? [i] : [])));
  // Rows may hold a label in front that the head leaves out.
  const widths = rows.filter((row) => row !== head).map(({ cells }) => cells.length);
  const shift = widths.filter((width) => width === head.cells.length + 1).length > widths.length / 2 ? 1 : 0;
  warnings.push({
    line: head.line,
    message: `Columns that sum up a row were left out: ${[...at].map((i) => head.written[i]!.trim()).join(', ')}.`,
  });
  return rows.map((row) => {
    const by = row === head ? 0 : shift;
    if (row.cells.length !== head.cells.length + by) return row;
    const kept = <T>(values: readonly T[]) => values.filter((_, i) => !at.has(i - by));
    return { ...row, cells: kept(row.cells), written: kept(row.written), ends: row.ends && kept(row.ends) };
  });
}

/** What row labels say of where the first row lies: counted or measured upward it is the front. Null: they say nothing. */
function rowOrderOf(labels: readonly (number | null)[]): 'front' | 'rear' | null {
  const known = labels.filter((label) => label !== null);
  if (known.length !== labels.length || known.length < 2) return null;
  if (!areIndices(known) && !arePositions(known)) return null;
  return known[1]! > known[0]! ? 'front' : 'rear';
}

/** Short rows at the top and at the bottom are no rows of the map, unless they hold at least half of one. */
function edgesTrimmed(body: readonly Row[], width: number, warnings: LineWarning[]): Row[] {
  const belongs = ({ cells }: Row) => cells.length === width || (cells.length < width && 2 * cells.length >= width);
  const first = body.findIndex(belongs);
  const last = body.findLastIndex(belongs);
  for (const { line } of [...body.slice(0, first), ...body.slice(last + 1)])
    warnings.push({ line, message: 'This line is no row of the map; it was left out.' });
  return body.slice(first, last + 1);
}

/** A row of a text in columns of fixed width: each number under the column it ends at. Null where that is not plain. */
function filledByPlace(row: Row, body: readonly Row[], width: number): number[] | null {
  if (row.ends === null || row.cells.length >= width) return null;
  const full = body.filter(({ cells, ends }) => cells.length === width && ends !== null);
  const columns = Array.from({ length: width }, (_, c) => full.map(({ ends }) => ends![c]!));
  // Right-hand edges that wander by more than a sign are no columns.
  if (full.length === 0 || columns.some((ends) => Math.max(...ends) - Math.min(...ends) > 1)) return null;
  // Where cells stand one space apart, a blank one leaves no trace: only wider columns tell.
  const isWide = full.every(({ ends, written }) =>
    written.some((cell, c) => c > 0 && ends![c]! - cell.length - ends![c - 1]! > 1),
  );
  if (!isWide) return null;
  const filled = new Array<number>(width).fill(NaN);
  for (const [i, end] of row.ends.entries()) {
    const at = columns.findIndex((ends) => Math.abs(ends[0]! - end) <= 1);
    if (at < 0 || filled[at] === filled[at]) return null;
    filled[at] = row.cells[i]!;
  }
  return filled;
}

/** A last row that holds the mean of each column above is asked about. */
function withoutMeans(
  body: Row[],
  { width, inFirstCell, reader }: { width: number; inFirstCell: boolean; reader: Reader },
): Row[] {
  const last = body.at(-1)!;
  const above = body.slice(0, -1).filter(({ cells }) => cells.length === width);
  if (above.length < 3 || last.cells.length !== width) return body;
  const from = inFirstCell ? 1 : 0;
  const columns = Array.from({ length: width - from }, (_, i) => above.map(({ cells }) => cells[from + i]!));
  const differs = columns.some((values) => Math.max(...values) > Math.min(...values));
  const means = columns.every((values, i) => {
    const known = values.filter((value) => value === value);
    const mean = known.reduce((sum, value) => sum + value, 0) / known.length;
    const decimals = /[.,](\d{1,12})/.exec(last.written[from + i] ?? '')?.[1]?.length ?? 0;
    return Math.abs(last.cells[from + i]! - mean) <= 0.51 * 10 ** -decimals;
  });
  if (!differs || !means) return body;
  return ask(reader, 'last-row', ['left-out', 'kept'], null) === 'left-out' ? body.slice(0, -1) : body;
}

/**
 * A row of at least two cells of which more than half are numbers, or all of which are marks for unreached.
 * Cells that are neither count as unreached.
 */
function asRow(row: TableRow): Row | null {
  const { cells } = row;
  if (cells.length < 2) return null;
  if (!cells.includes(undefined)) return row as Row;
  const finite = cells.filter((cell) => Number.isFinite(cell)).length;
  if (2 * finite <= cells.length) return null;
  return { ...row, cells: cells.map((cell) => cell ?? NaN) };
}

/** The rows, and right below one what holds a single number: a row of which the rest is blank, or the end of a broken one. */
function withLoneNumbers(rows: readonly TableRow[]): Row[] {
  const found: Row[] = [];
  for (const row of rows) {
    const whole = asRow(row);
    const follows = found.length > 0 && row.line === found.at(-1)!.line + 1;
    if (whole) found.push(whole);
    else if (follows && row.cells.length === 1 && Number.isFinite(row.cells[0])) found.push(row as Row);
  }
  return found;
}

const isStep = (values: readonly number[], step: number) =>
  values.every((v, i) => i === 0 || v - values[i - 1]! === step);
/** Counted up or down by one, from a number near nothing: some count from 0, some from 1, some from −1. */
const areIndices = (values: readonly number[]) =>
  (isStep(values, 1) && INDEX_FROM.includes(values[0]!)) || (isStep(values, -1) && INDEX_FROM.includes(values.at(-1)!));
const INDEX_FROM: readonly number[] = [-1, 0, 1];

function arePositions(values: readonly number[]): boolean {
  if (areIndices(values) || values.some((v) => !Number.isFinite(v))) return false;
  const rising = values.every((v, i) => i === 0 || v > values[i - 1]!);
  const falling = values.every((v, i) => i === 0 || v < values[i - 1]!);
  return (rising || falling) && Math.abs(values[values.length - 1]! - values[0]!) >= LEAST_POSITION_RANGE;
}

const isHeaderLike = (values: readonly number[]) => values.length >= 2 && (areIndices(values) || arePositions(values));

function headerOf(block: readonly Row[], width: number): Row | null {
  const first = block[0];
  if (!first || block.length < 3) return null;
  const { cells, written, label } = first;
  const corner = !Number.isFinite(cells[0]);
  const values = corner ? cells.slice(1) : cells;
  if (label !== null || (values.length !== width && values.length !== width - 1)) return null;
  const asWritten = corner ? written.slice(1) : written;
  if (areIndices(values)) {
    const fromMinusOne = Math.min(...values) < 0;
    const decimals = block.slice(1).some((row) => row.written.some((cell) => /[.,]/.test(cell)));
    return asWritten.every((cell) => WHOLE.test(cell)) && (decimals || !fromMinusOne) ? first : null;
  }
  // Numbers as far apart below are heights in another unit, and the first row is one of them.
  return arePositions(values) &&
    spreadBelow(block) < LEAST_POSITION_RANGE &&
    asWritten.every((cell) => !WITH_UNIT.test(cell))
    ? first
    : null;
}

/** How far apart the numbers below the first row are, but for what may be their labels. */
function spreadBelow(block: readonly Row[]): number {
  let [low, high] = [Infinity, -Infinity];
  for (const { cells } of block.slice(1))
    for (const cell of cells.slice(1)) {
      if (cell < low) low = cell;
      if (cell > high) high = cell;
    }
  return high - low;
}

/** Whether the first cell of each row is its index or position, as the header's length or the numbers say. */
function labelsInFirstCell(header: Row | null, body: readonly Row[], width: number): boolean {
  const full = body.filter(({ cells }) => cells.length === width);
  if (full.some(({ label }) => label !== null)) return false;
  if (header) {
    const named = header.cells.filter((cell) => Number.isFinite(cell)).length;
    return named === width - 1;
  }
  const labels = full.map(({ cells }) => cells[0]!);
  return (
    full.length >= 2 &&
    width >= 3 &&
    areIndices(labels) &&
    full.every(({ written }) => WHOLE.test(written[0]!)) &&
    full.some(({ written }) => written.slice(1).some((cell) => /[.,]/.test(cell)))
  );
}

/** One of the maps that follow each other: parted by equal headers, by row labels that begin anew, or by other lines. */
function oneMap(rows: readonly Row[], reader: Reader): readonly Row[] {
  const parts = byHeader(rows) ?? byLabels(rows) ?? byGaps(rows);
  if (parts) {
    const alike = parts.every((part) => part.length === parts[0]!.length);
    const sure = parts.every((part) => part.length > 2) && alike;
    const numbers = parts.map((_, i) => String(i + 1));
    const last = String(parts.length);
    const named = byHeader(rows) !== null || byLabels(rows) !== null;
    const taken = named || sure ? ask(reader, 'map', numbers, last) : ask(reader, 'map', [...numbers, 'all'], null);
    if (taken === 'all') return rows;
    const part = parts[Number(taken) - 1]!;
    reader.warnings.push({
      line: part[0]!.line,
      message: `${parts.length} height maps were found; number ${taken} was used.`,
    });
    return part;
  }
  const half = rows.length / 2;
  if (!copiesInHalves(rows)) return rows;
  const taken = ask(reader, 'map', ['1', '2', 'all'], null);
  return taken === 'all' ? rows : taken === '1' ? rows.slice(0, half) : rows.slice(half);
}

/** Parts that each begin with the header of the first. */
function byHeader(rows: readonly Row[]): Row[][] | null {
  const first = rows[0];
  if (!first || !isHeaderLike(first.cells.filter(Number.isFinite))) return null;
  const key = first.written.join(' ');
  const starts = rows.flatMap((row, i) => (row.written.join(' ') === key ? [i] : []));
  if (starts.length < 2 || rows.length - starts.at(-1)! < 3) return null;
  return starts.map((start, i) => rows.slice(start, starts[i + 1] ?? rows.length));
}

/** Parts whose row labels each begin anew: 0 1 2 0 1 2. */
function byLabels(rows: readonly Row[]): Row[][] | null {
  const inFront = rows.every(({ label }) => label !== null);
  const decimals = rows.some(({ written }) => written.slice(1).some((cell) => /[.,]/.test(cell)));
  const labels = inFront
    ? rows.map(({ label }) => label!)
    : decimals && rows.every(({ written }) => WHOLE.test(written[0]!))
      ? rows.map(({ cells }) => cells[0]!)
      : null;
  if (!labels || labels.length < 4) return null;
  const starts = labels.flatMap((label, i) => (i === 0 || label === labels[0] ? [i] : []));
  if (starts.length < 2) return null;
  const parts = starts.map((start, i) => [start, starts[i + 1] ?? rows.length] as const);
  if (!parts.every(([from, to]) => to - from > 1 && areIndices(labels.slice(from, to)))) return null;
  return parts.map(([from, to]) => rows.slice(from, to));
}

/** Parts of two rows or more with blank or other lines between them; a header alone belongs to what follows. */
function byGaps(rows: readonly Row[]): Row[][] | null {
  const parts: Row[][] = [];
  for (const [i, row] of rows.entries()) {
    if (i === 0 || row.line - rows[i - 1]!.line > 1) parts.push([]);
    parts.at(-1)!.push(row);
  }
  for (let i = 0; i < parts.length - 1; i++)
    if (parts[i]!.length === 1 && isHeaderLike(parts[i]![0]!.cells.filter(Number.isFinite)))
      parts.splice(i, 2, [...parts[i]!, ...parts[i + 1]!]);
  return parts.length > 1 && parts.every((part) => part.length > 1) ? parts : null;
}

/** Whether the second half of the rows says nearly what the first says: a map that was printed twice. */
function copiesInHalves(rows: readonly Row[]): boolean {
  const half = rows.length / 2;
  if (!Number.isInteger(half) || half < 3 || rows.some(({ label }) => label !== null)) return false;
  const width = rows[0]!.cells.length;
  if (rows.some(({ cells }) => cells.length !== width)) return false;
  const [all, apart]: number[][] = [[], []];
  for (let r = 0; r < half; r++)
    for (let c = 0; c < width; c++) {
      const [p, q] = [rows[r]!.cells[c]!, rows[r + half]!.cells[c]!];
      if (p !== p || q !== q) continue;
      all!.push(p, q);
      apart!.push(Math.abs(p - q));
    }
  if (apart!.length < 4) return false;
  const mean = all!.reduce((sum, z) => sum + z, 0) / all!.length;
  const spread = Math.sqrt(all!.reduce((sum, z) => sum + (z - mean) ** 2, 0) / all!.length);
  return apart!.reduce((sum, d) => sum + d, 0) / apart!.length < 0.3 * spread;
}

/**
 * Rows that a narrow console broke into pieces, joined again: where pieces of two lengths alternate that is plain; where
 * they are of one length it is asked when the joined map is square, or smoother than the rows as they stand.
 */
function joined(rows: readonly Row[], reader: Reader): readonly Row[] {
  const header = headerOf(rows, rows[1]?.cells.length ?? 0);
  const body = header ? rows.slice(1) : rows;
  const labelled = joinedByLabel(body);
  if (labelled) {
    reader.warnings.push({
      line: body[0]!.line,
      message: 'Rows went on in lines without a label; they were joined.',
    });
    return header ? [header, ...labelled] : labelled;
  }
  const widths = body.map(({ cells }) => cells.length);
  for (const pieces of [2, 3, 4]) {
    if (body.length % pieces !== 0 || body.length < 2 * pieces) continue;
    const periodic = widths.every((width, i) => width === widths[i % pieces]);
    if (!periodic || new Set(widths.slice(0, pieces)).size === 1) continue;
    if (widths.slice(1, pieces).some((width) => width > widths[0]!)) continue;
    reader.warnings.push({
      line: body[0]!.line,
      message: `Each row was broken into ${pieces} lines; they were joined.`,
    });
    return inPieces(body, pieces);
  }
  const width = widths[0] ?? 0;
  const even = !header && body.length % 2 === 0 && body.length >= 4 && widths.every((each) => each === width);
  if (!even || body.some(({ label }) => label !== null) || width < 2) return rows;
  const square = body.length === 4 * width;
  if (!square && !(body.length >= 2 * width && isSmootherJoined(body))) return rows;
  return ask(reader, 'wrapped', ['no', 'yes'], null) === 'yes' ? inPieces(body, 2) : rows;
}

/** Rows that begin with a label and go on in lines without one, all in as many pieces of the same lengths; null: they don't. */
function joinedByLabel(body: readonly Row[]): Row[] | null {
  if (body[0]?.label == null || body.every(({ label }) => label !== null)) return null;
  const groups: Row[][] = [];
  for (const row of body)
    if (row.label !== null) groups.push([row]);
    else groups.at(-1)!.push(row);
  const shape = (group: readonly Row[]) => group.map(({ cells }) => cells.length).join();
  if (groups.length < 2 || groups.some((group) => shape(group) !== shape(groups[0]!))) return null;
  return groups.flatMap((group) => inPieces(group, group.length));
}

const inPieces = (rows: readonly Row[], pieces: number): Row[] =>
  Array.from({ length: rows.length / pieces }, (_, r) => {
    const parts = rows.slice(r * pieces, (r + 1) * pieces);
    return {
      ...parts[0]!,
      cells: parts.flatMap(({ cells }) => cells),
      written: parts.flatMap(({ written }) => written),
      ends: null,
    };
  });

/** Rows resemble the next but one more than the next: left and right halves alternate. */
function isSmootherJoined(rows: readonly Row[]): boolean {
  const apart = (step: number) => {
    let [sum, count] = [0, 0];
    for (let r = 0; r + step < rows.length; r++)
      for (const [c, z] of rows[r]!.cells.entries()) {
        const d = Math.abs(z - rows[r + step]!.cells[c]!);
        if (d === d) [sum, count] = [sum + d, count + 1];
      }
    return sum / count;
  };
  return apart(2) < 0.6 * apart(1);
}

/** The number of cells that most rows have; the larger one in a tie. */
function commonWidth(rows: readonly Row[]): number | null {
  const counts = new Map<number, number>();
  for (const { cells } of rows) counts.set(cells.length, (counts.get(cells.length) ?? 0) + 1);
  const [best] = [...counts].sort((p, q) => q[1] - p[1] || q[0] - p[0]);
  return best && best[1] >= 2 ? best[0] : null;
}

/** Names the cells of the map that are neither numbers nor marks for unreached. */
function reportOddCells(rows: readonly TableRow[], body: readonly Row[], warnings: LineWarning[]): void {
  const lines = new Set(body.map(({ line }) => line));
  for (const { line, cells, written } of rows) {
    const at = cells.indexOf(undefined);
    if (at < 0 || !lines.has(line)) continue;
    warnings.push({
      line,
      message: `“${written[at]!.trim().slice(0, 30)}” is not a number; the cell counts as not reached.`,
    });
  }
}
