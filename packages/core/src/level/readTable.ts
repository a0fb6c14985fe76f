import type { HeightPoint } from './HeightPoint';
import { looksLikePoints } from './looksLikePoints';
import { matrixIn } from './matrixIn';
import type { LineWarning, ParseOptions, RawMatrix, RawPoints } from './heightReading';
import { tableRows, type TableRow } from './tableRows';

const AXIS_NAME = /^\W*(?:bed|probe)?[ _]?(x|y|z|height)(?:$|[^a-z].*$)/i;

/** Columns x, y, z with or without a header, or a bare matrix. Null when there is neither. */
export function readTable(
  lines: readonly string[],
  options: ParseOptions,
  warnings: LineWarning[],
): RawPoints | RawMatrix | null {
  const rows = tableRows(lines);
  const header = rows.findIndex((row) => axesOf(row) !== null);
  if (header >= 0 && options.layout !== 'matrix') {
    return columnsUnder(rows.slice(header + 1), axesOf(rows[header]!)!, warnings);
  }
  const bare = bareColumns(rows, options);
  if (bare) {
    if (options.layout !== 'points') {
      warnings.push({ line: bare[0]!.line, message: 'There is no header; the three columns were read as x, y and z.' });
    }
    return columnsUnder(bare, bare[0]!.cells.length === 4 ? [1, 2, 3] : [0, 1, 2], warnings);
  }
  return matrixIn(rows, warnings);
}

/** Where a header row says that x, y and z stand, or null. */
function axesOf({ cells, written }: TableRow): [number, number, number] | null {
  if (!cells.includes(undefined)) return null;
  const names = written.map((cell) => AXIS_NAME.exec(cell.trim())?.[1]?.toLowerCase());
  const x = names.indexOf('x');
  const y = names.indexOf('y');
  const z = names.findIndex((name) => name === 'z' || name === 'height');
  return x < 0 || y < 0 || z < 0 ? null : [x, y, z];
}

/** Rows of three numbers, or four with a running number first, that can only be x, y, z. */
function bareColumns(rows: readonly TableRow[], { layout }: ParseOptions): TableRow[] | null {
  if (layout === 'matrix') return null;
  const numeric = rows.filter(({ cells }) => cells.length > 0 && cells.every((cell) => cell !== undefined));
  const width = numeric[0]?.cells.length;
  if (width !== 3 && width !== 4) return null;
  if (numeric.some(({ cells }) => cells.length !== width)) return null;
  const skip = width - 3;
  if (skip === 1 && !numeric.every(({ cells }, i) => i === 0 || cells[0] === numeric[i - 1]!.cells[0]! + 1))
    return null;
  if (layout === 'points') return numeric;
  if (numeric.some(({ label }) => label !== null)) return null;
  return looksLikePoints(numeric.map(({ cells }) => cells.slice(skip) as number[])) ? numeric : null;
}

function columnsUnder(
  rows: readonly TableRow[],
  [xAt, yAt, zAt]: readonly [number, number, number],
  warnings: LineWarning[],
): RawPoints | null {
  const points: HeightPoint[] = [];
  for (const { line, cells, written } of rows) {
    const x = cells[xAt];
    const y = cells[yAt];
    const z = zAt < cells.length ? cells[zAt] : NaN;
    if (Number.isFinite(x) && Number.isFinite(y) && z !== undefined) {
      points.push({ x: x!, y: y!, z });
    } else if (cells.some((cell) => Number.isFinite(cell))) {
      const bad = written[[xAt, yAt, zAt].find((at) => !Number.isFinite(cells[at])) ?? xAt]?.trim() ?? '';
      warnings.push({ line, message: `“${bad.slice(0, 30)}” is not a number; the line was left out.` });
    }
  }
  return points.length > 0 ? { kind: 'points', points } : null;
}
