import type { Extent, HeightPoint } from './HeightPoint';
import { looksLikePoints } from './looksLikePoints';
import type { LineWarning, ParseOptions, RawMatrix, RawPoints } from './heightReading';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type JsonObject = { [key: string]: Json };

/** Nesting below this depth is not searched. */
const DEEPEST = 6;

/**
 * JSON with points (objects with x, y, z, or triples) or a matrix with its extent.
 * @returns null when the text is not JSON, or JSON without heights
 */
export function readJsonHeights(
  text: string,
  options: ParseOptions,
  warnings: LineWarning[],
): RawPoints | RawMatrix | null {
  const start = /^\s*([[{])/.exec(text.slice(0, 1000));
  if (!start) return null;
  let data: Json;
  try {
    data = JSON.parse(text.replace(/\bNaN\b/g, 'null')) as Json;
  } catch {
    return null;
  }
  return search(data, {}, options, warnings, 0);
}

function search(
  data: Json,
  owner: JsonObject,
  options: ParseOptions,
  warnings: LineWarning[],
  depth: number,
): RawPoints | RawMatrix | null {
  if (depth > DEEPEST || data === null || typeof data !== 'object') return null;
  if (Array.isArray(data)) return fromArray(data, owner, options, warnings);
  for (const value of Object.values(data)) {
    const found = search(value, data, options, warnings, depth + 1);
    if (found) return found;
  }
  return null;
}

function fromArray(
  data: Json[],
  owner: JsonObject,
  options: ParseOptions,
  warnings: LineWarning[],
): RawPoints | RawMatrix | null {
  const objects = data.filter(isObject);
  if (objects.length > 0) {
    const points = objects.flatMap((object) => pointOf(object) ?? []);
    if (points.length < data.length) {
      warnings.push({
        line: 0,
        message: `${data.length - points.length} entries have no x, y and z; they were left out.`,
      });
    }
    return points.length > 0 ? { kind: 'points', points } : null;
  }
  const rows = data.filter((row): row is Json[] => Array.isArray(row));
  if (rows.length < 2 || rows.length !== data.length) return null;
  const width = Math.max(...rows.slice(0, 1000).map((row) => row.length));
  if (width < 2) return null;
  const numbers = rows.map((row) => Array.from({ length: width }, (_, i) => numberOf(row[i])));
  if (options.layout !== 'matrix' && width === 3 && (options.layout === 'points' || looksLikePoints(numbers))) {
    return { kind: 'points', points: numbers.map(([x, y, z]) => ({ x: x!, y: y!, z: z! })).filter(isPlaced) };
  }
  const short = rows.filter((row) => row.length !== width).length;
  if (short > 0)
    warnings.push({ line: 0, message: `${short} rows are shorter than the others; their ends count as not reached.` });
  return {
    kind: 'matrix',
    rows: numbers,
    columnPositions: null,
    rowPositions: null,
    extent: extentIn(owner),
    firstRow: firstRowIn(owner),
  };
}

const isObject = (value: Json): value is JsonObject =>
  value !== null && typeof value === 'object' && !Array.isArray(value);
const isPlaced = ({ x, y }: HeightPoint) => Number.isFinite(x) && Number.isFinite(y);

/** NaN for everything that is not a finite number, also text that isn't one. */
function numberOf(value: Json | undefined): number {
  if (typeof value === 'number') return Math.abs(value) < 1e9 ? value : NaN;
  if (typeof value === 'string' && value.trim() !== '') {
    const number = Number(value.replace(',', '.'));
    return Math.abs(number) < 1e9 ? number : NaN;
  }
  return NaN;
}

function pointOf(object: JsonObject): HeightPoint[] | null {
  const entries = new Map(Object.entries(object).map(([key, value]) => [key.toLowerCase(), value]));
  const x = numberOf(entries.get('x'));
  const y = numberOf(entries.get('y'));
  const hasHeight = entries.has('z') || entries.has('height');
  if (!hasHeight || Number.isNaN(x) || Number.isNaN(y)) return null;
  return [{ x, y, z: numberOf(entries.get('z') ?? entries.get('height')) }];
}

/** Extent from `extent` (list or object), from corners such as `min: [x, y]`, or from keys such as xMin, min_x, x0. */
function extentIn(owner: JsonObject): Extent | undefined {
  const extent = Object.entries(owner).find(([key]) => /^(extent|bounds|area)$/i.test(key))?.[1];
  if (Array.isArray(extent) && extent.length === 4) return checked(extent.map(numberOf));
  const source = extent !== undefined && isObject(extent) ? extent : owner;
  const corner = (name: RegExp) =>
    Object.entries(source).find(([key, value]) => name.test(key) && Array.isArray(value) && value.length === 2)?.[1];
  const [low, high] = [corner(/min$/i), corner(/max$/i)];
  if (Array.isArray(low) && Array.isArray(high)) return checked([...low, ...high].map(numberOf));
  const keys = new Map(
    Object.entries(source).map(([key, value]) => [key.toLowerCase().replace(/[^a-z0-9]/g, ''), value]),
  );
  const pick = (axis: 'x' | 'y', names: string[]) =>
    numberOf(
      names.flatMap((name) => [keys.get(`${axis}${name}`), keys.get(`${name}${axis}`)]).find((v) => v !== undefined),
    );
  return checked([
    pick('x', ['min', '0', 'first', 'from']),
    pick('y', ['min', '0', 'first', 'from']),
    pick('x', ['max', '1', 'last', 'to']),
    pick('y', ['max', '1', 'last', 'to']),
  ]);
}

function checked([x0, y0, x1, y1]: number[]): Extent | undefined {
  return x1! > x0! && y1! > y0! ? { x0: x0!, y0: y0!, x1: x1!, y1: y1! } : undefined;
}

function firstRowIn(owner: JsonObject): 'front' | 'rear' | undefined {
  const value = Object.entries(owner).find(([key]) => /^first_?row$/i.test(key))?.[1];
  return value === 'front' || value === 'rear' ? value : undefined;
}
