import { UnreadableHeights } from './errors';
import type { HeightPoint } from './HeightPoint';
import { lastRun } from './lastRun';
import { looksLikePoints } from './looksLikePoints';
import { matrixIn } from './matrixIn';
import { ask, type RawMatrix, type RawPoints, type Reader } from './heightReading';
import { pickHeight } from './pickHeight';
import { tableRows, type TableRow } from './tableRows';

const AXIS_NAME = /^\W{0,10}(?:bed|probe)?[ _]?([xy])(?:$|[^a-z])/i;
/** A head of places that are no x and y. */
const ANGLE = /^\W{0,10}(?:theta|angle|phi|azimuth|θ)(?:$|[^a-z])/i;
/** A head of a column that may hold heights. */
const HEIGHT_NAME =
  /^\W{0,10}(?:bed|probe|measured)?[ _-]?(z|dz|h|heights?|reading|result|measured|value|probed|touch|trigger|triggered|contact|delta|level|offset|gap|depth|clearance|distance|mean|avg|average)(?:$|[^a-z])/i;

/** Columns x, y, z with or without a header, or a bare matrix. Null when there is neither. */
export function readTable(lines: readonly string[], reader: Reader): RawPoints | RawMatrix | null {
  const { options, warnings } = reader;
  const rows = tableRows(lines);
  const header = rows.findIndex((row) => axesOf(row) !== null);
  if (header >= 0 && options.layout !== 'matrix') return underHeader(rows, header, reader);
  const bare = bareColumns(rows, options.layout);
  const either = bare !== null && options.layout === undefined && isWhole(bare.numeric);
  if (bare && !(either && ask(reader, 'layout', LAYOUTS, null) === 'matrix')) {
    const { numeric, skip } = bare;
    if (rows.some(({ line, written }) => line < numeric[0]!.line && written.some((cell) => ANGLE.test(cell))))
      throw new UnreadableHeights(
        'no-heights',
        'Places are told by a radius and an angle here. Write them as x and y, in mm.',
      );
    const width = numeric[0]!.cells.length;
    if (options.layout !== 'points') {
      warnings.push({
        line: numeric[0]!.line,
        message: rows.some(({ line, cells }) => line < numeric[0]!.line && cells.includes(undefined))
          ? 'No head names x and y; the first columns were read as x and y, another as the height.'
          : 'There is no header; the first columns were read as x and y, another as the height.',
      });
    }
    const columns = Array.from({ length: width - skip - 2 }, (_, i) => ({
      name: `column ${skip + 3 + i}`,
      at: skip + 2 + i,
    }));
    return columnsUnder(numeric, [skip, skip + 1], columns, reader);
  }
  return matrixIn(rows, reader);
}

const LAYOUTS = ['points', 'matrix'] as const;
/** Whole numbers throughout may be heights in a small unit as well as places. */
const isWhole = (rows: readonly TableRow[]) => rows.every(({ cells }) => cells.every((cell) => Number.isInteger(cell)));

interface Column {
  name: string;
  at: number;
}

/** Where a header row says that x, y and what may be heights stand, or null. */
function axesOf({ cells, written }: TableRow): { x: number; y: number; heights: Column[] } | null {
  if (!cells.includes(undefined)) return null;
  const names = written.map((cell) => AXIS_NAME.exec(cell.trim())?.[1]?.toLowerCase());
  const x = names.indexOf('x');
  const y = names.indexOf('y');
  if (x < 0 || y < 0) return null;
  const heights = written.flatMap((cell, at): Column[] => {
    const name = at === x || at === y ? undefined : HEIGHT_NAME.exec(cell.trim())?.[1];
    return name === undefined ? [] : [{ name: cell.trim().slice(0, 30), at }];
  });
  return heights.length === 0 ? null : { x, y, heights };
}

function underHeader(rows: readonly TableRow[], header: number, reader: Reader): RawPoints | null {
  const { x, y, heights } = axesOf(rows[header]!)!;
  return columnsUnder(rows.slice(header + 1), [x, y], heights, reader);
}

/** Rows of three numbers or more, perhaps with a running number first, that can only be places with heights. */
function bareColumns(
  rows: readonly TableRow[],
  layout: 'points' | 'matrix' | undefined,
): { numeric: TableRow[]; skip: number } | null {
  if (layout === 'matrix') return null;
  const numeric = rows.filter(({ cells }) => cells.length > 0 && cells.every((cell) => cell !== undefined));
  const width = numeric[0]?.cells.length ?? 0;
  if (width < 3 || width > 6 || numeric.some(({ cells }) => cells.length !== width)) return null;
  const running = numeric.every(({ cells }, i) => i === 0 || cells[0] === numeric[i - 1]!.cells[0]! + 1);
  const skip = running && width > 3 ? 1 : 0;
  if (layout === 'points' && (width === 3 || skip === 1)) return { numeric, skip };
  if (numeric.some(({ label }) => label !== null)) return null;
  const placed = numeric.map(({ cells }) => [cells[skip]!, cells[skip + 1]!, 0]);
  // Three columns are places only when the third can be no position; more need places that are named once.
  const triples = numeric.map(({ cells }) => cells.slice(skip) as number[]);
  // One line of other numbers above a map is no place.
  const apart = placed.length > 3 ? placed.slice(1) : placed;
  // Whole heights may be in a small unit, and spread as far as places.
  const lone = width - skip === 3 && !isWhole(numeric);
  const fits = lone ? looksLikePoints(triples) : looksLikePoints(apart) && areDistinct(placed);
  return fits ? { numeric, skip } : null;
}

const areDistinct = (places: readonly (readonly number[])[]) =>
  new Set(places.map(([x, y]) => `${x} ${y}`)).size > places.length / 2;

function columnsUnder(
  rows: readonly TableRow[],
  [xAt, yAt]: readonly [number, number],
  heights: readonly Column[],
  reader: Reader,
): RawPoints | null {
  const good: { line: number; x: number; y: number; zs: number[] }[] = [];
  for (const { line, cells, written } of rows) {
    const x = cells[xAt];
    const y = cells[yAt];
    const zs = heights.map(({ at }) => (at < cells.length ? cells[at] : NaN));
    if (Number.isFinite(x) && Number.isFinite(y) && zs.some((z) => z !== undefined)) {
      good.push({ line, x: x!, y: y!, zs: zs.map((z) => z ?? NaN) });
    } else if (cells.some((cell) => Number.isFinite(cell))) {
      const bad = written[[xAt, yAt, heights[0]!.at].find((at) => !Number.isFinite(cells[at])) ?? xAt]?.trim() ?? '';
      reader.warnings.push({ line, message: `“${bad.slice(0, 30)}” is not a number; the line was left out.` });
    }
  }
  if (good.length === 0) return null;
  const run = lastRun(good, reader);
  const at = pickHeight(
    heights.map(({ name }, i) => ({ name, values: run.map(({ zs }) => zs[i]!) })),
    reader,
  );
  const points: HeightPoint[] = run.map(({ x, y, zs }) => ({ x, y, z: zs[at]! }));
  return { kind: 'points', points };
}
