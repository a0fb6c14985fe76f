import type { LineWarning, RawMatrix } from './heightReading';
import type { TableRow } from './tableRows';

/** Positions along a header spread at least this far, indices of a real map never do, mm. */
const LEAST_POSITION_RANGE = 10;
const WHOLE = /^\s*[+-]?\d+\s*$/;

interface Row {
  line: number;
  cells: number[];
  written: string[];
  label: number | null;
}

/**
 * The height map among the rows of a text: with or without a header of column indices or positions, and with or
 * without row labels. Where two maps follow each other under equal headers the last one is taken.
 * @returns null when there are not at least two rows of two numbers
 */
export function matrixIn(rows: readonly TableRow[], warnings: LineWarning[]): RawMatrix | null {
  const numeric = rows.flatMap((row) => asRow(row) ?? []);
  const block = lastBlock(numeric, warnings);
  const width = commonWidth(block);
  if (width === null) return null;

  const header = headerOf(block, width);
  let body = header ? block.slice(1) : block;
  const first = body.findIndex(({ cells }) => cells.length === width);
  const last = body.length - 1 - [...body].reverse().findIndex(({ cells }) => cells.length === width);
  body = body.slice(first, last + 1);

  const inFirstCell = labelsInFirstCell(header, body, width);
  const labels = body.map(({ label, cells }) => (inFirstCell && cells.length === width ? cells[0]! : label));
  const columns = inFirstCell ? width - 1 : width;
  if (columns < 2 || body.length < 2) return null;

  const heights = body.map(({ line, cells }) => {
    if (cells.length === width) return inFirstCell ? cells.slice(1) : cells;
    warnings.push({
      line,
      message: `This row holds ${cells.length} numbers where the others hold ${width}; its cells count as not reached.`,
    });
    return new Array<number>(columns).fill(NaN);
  });
  reportOddCells(rows, body, warnings);
  const columnPositions = header ? header.cells.slice(header.cells.length - columns) : null;
  return {
    kind: 'matrix',
    rows: heights,
    columnPositions: columnPositions && arePositions(columnPositions) ? columnPositions : null,
    rowPositions: labels.every((label) => label !== null) && arePositions(labels) ? labels : null,
  };
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

const isStep = (values: readonly number[], step: number) =>
  values.every((v, i) => i === 0 || v - values[i - 1]! === step);
const areIndices = (values: readonly number[]) =>
  (isStep(values, 1) && (values[0] === 0 || values[0] === 1)) ||
  (isStep(values, -1) && (values[values.length - 1] === 0 || values[values.length - 1] === 1));

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
  if (areIndices(values)) return asWritten.every((cell) => WHOLE.test(cell)) ? first : null;
  return arePositions(values) ? first : null;
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

/** The rows of the last map, when the same header stands more than once. */
function lastBlock(rows: Row[], warnings: LineWarning[]): Row[] {
  const first = rows[0];
  if (!first || !isHeaderLike(first.cells.filter(Number.isFinite))) return rows;
  const key = first.written.join(' ');
  const starts = rows.flatMap((row, i) => (row.written.join(' ') === key ? [i] : []));
  const start = starts[starts.length - 1]!;
  if (starts.length < 2 || rows.length - start < 3) return rows;
  warnings.push({
    line: rows[start]!.line,
    message: `${starts.length} height maps were found; the last one was used.`,
  });
  return rows.slice(start);
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
