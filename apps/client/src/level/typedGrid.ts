import type { TypedGrid } from './levelSlice';

/** Readings by hand keep this far from the edge of the print area, mm. Common practice. */
const INSET = 15;
export const GRID_SIZES = ['2', '3', '4', '5'] as const;
export type GridSize = (typeof GRID_SIZES)[number];
/** What a cell holds when its place was not reached. */
export const NOT_REACHED = '-';

/** An empty grid of `size` places a side over the print area, front row first. What was typed in `before` stays. */
export function emptyGrid(size: number, printWidth: number, printDepth: number, before: TypedGrid | null): TypedGrid {
  const line = (length: number) =>
    Array.from({ length: size }, (_, i) => Math.round((INSET + ((length - 2 * INSET) * i) / (size - 1)) * 10) / 10);
  return {
    xs: line(printWidth),
    ys: line(printDepth),
    cells: Array.from({ length: size }, (_, r) => Array.from({ length: size }, (_, c) => before?.cells[r]?.[c] ?? '')),
  };
}

/** What keeps a grid from being used, by rows counted from the front; null when nothing does. */
export function gridFault({
  cells,
}: TypedGrid): { kind: 'empty' | 'missing' | 'not-a-number'; message: string } | null {
  const typed = cells.flat().filter((cell) => cell.trim() !== '');
  if (typed.length === 0) return { kind: 'empty', message: 'Type the height at each place, + higher.' };
  for (const [r, row] of cells.entries()) {
    const bad = row.findIndex((cell) => cell.trim() !== '' && !isHeight(cell));
    if (bad >= 0) {
      return {
        kind: 'not-a-number',
        message: `“${row[bad]!.trim()}” in row ${r + 1}, place ${bad + 1}, is not a number.`,
      };
    }
  }
  const rows = cells.flatMap((row, r) => {
    const missing = row.filter((cell) => cell.trim() === '').length;
    return missing > 0 ? [`${missing} in row ${r + 1}`] : [];
  });
  if (rows.length === 0) return null;
  return {
    kind: 'missing',
    message: `Readings are missing: ${rows.join(', ')}. Type them or mark them as not reached.`,
  };
}

const HEIGHT = /^[+\-\u2212\u2013]?\s*(\d+([.,]\d*)?|[.,]\d+)$/;
const UNREACHED = /^([-\u2212\u2013.]|nan)$/i;

/** Whether a cell is a height or says that its place was not reached. A comma is as good as a point. */
export const isHeight = (cell: string) => HEIGHT.test(cell.trim()) || UNREACHED.test(cell.trim());

/** Every empty cell marked as not reached. */
export const withMissingMarked = (grid: TypedGrid): TypedGrid => ({
  ...grid,
  cells: grid.cells.map((row) => row.map((cell) => (cell.trim() === '' ? NOT_REACHED : cell))),
});

/** The grid as raw text, cells as they were typed. */
export function gridText({ xs, ys, cells }: TypedGrid): string {
  const lines = ys.flatMap((y, r) => xs.map((x, c) => `${x};${y};${cells[r]![c]!.trim()}`));
  return ['x_mm;y_mm;z_mm', ...lines].join('\n');
}
