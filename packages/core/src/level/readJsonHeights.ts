import type { Extent, HeightPoint } from './HeightPoint';
import { looksLikePoints } from './looksLikePoints';
import { UnreadableHeights } from './errors';
import { ask, type LineWarning, type ParseOptions, type RawMatrix, type RawPoints, type Reader } from './heightReading';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type JsonObject = { [key: string]: Json };

/** Nesting below this depth is not searched. */
const DEEPEST = 6;
/** Maps and lists that are looked at: more are no bed's. */
const MOST_FOUND = 40;
/** Cells of one map: more are no bed's. */
const MOST_CELLS = 250_000;
/** What the height of a point is called; its unit may stand behind it. */
const HEIGHT_KEY = /^(?:z|height)(?:_(?:mm|um|in|thou|mil))?$/;
/** A map that was worked out from another one, and not read. */
const WORKED_OUT = /interp|smooth|fine|dense|surface|mesh_?matrix|upsampl|spline/i;

/** Heights found in JSON, with the way to them ("profiles.default.points"). */
interface Found {
  path: string;
  raw: RawPoints | RawMatrix;
  warnings: LineWarning[];
}

/**
 * JSON with points (objects with x, y, z, or triples) or a matrix with its extent. Where several maps stand in it, one
 * that was worked out from another is passed over; what is left open then is asked.
 * @returns null when the text is not JSON, or JSON without heights
 * @throws UnreadableHeights a map of more cells than a bed has
 */
export function readJsonHeights(text: string, reader: Reader): RawPoints | RawMatrix | null {
  const start = /^\s{0,1000}([[{])/.exec(text.slice(0, 1000));
  if (!start) return null;
  let data: Json;
  try {
    data = JSON.parse(text.replace(/\bNaN\b/g, 'null')) as Json;
  } catch {
    return null;
  }
  const found: Found[] = [];
  search(data, {}, { options: reader.options, found, path: [], depth: 0 });
  const distinct = found.filter(({ raw }, i) => !found.slice(0, i).some((other) => sameHeights(other.raw, raw)));
  if (distinct.length === 0) return null;
  const one = distinct.length === 1 ? distinct[0]! : chosen(distinct, reader);
  reader.warnings.push(...one.warnings);
  return one.raw;
}

function chosen(found: readonly Found[], reader: Reader): Found {
  const read = found.filter(({ path }) => !WORKED_OUT.test(path));
  const paths = found.map(({ path }) => path);
  const taken = ask(reader, 'map', paths, read.length === 1 ? read[0]!.path : null);
  reader.warnings.push({
    line: 0,
    message: `${found.length} height maps were found; “${taken.slice(0, 80)}” was used.`,
  });
  return found[paths.indexOf(taken)]!;
}

/** The same heights told twice, as a matrix and as points, are one map. */
function sameHeights(p: RawPoints | RawMatrix, q: RawPoints | RawMatrix): boolean {
  const [zs, others] = [heightsIn(p), heightsIn(q)];
  return zs.length === others.length && zs.every((z, i) => Object.is(z, others[i]));
}

const heightsIn = (raw: RawPoints | RawMatrix) =>
  raw.kind === 'points' ? raw.points.map(({ z }) => z) : raw.rows.flat();

interface Search {
  options: ParseOptions;
  found: Found[];
  path: readonly string[];
  depth: number;
}

function search(data: Json, owner: JsonObject, { options, found, path, depth }: Search): void {
  if (depth > DEEPEST || data === null || typeof data !== 'object' || found.length >= MOST_FOUND) return;
  if (Array.isArray(data)) {
    const warnings: LineWarning[] = [];
    const raw = fromArray(data, owner, options, warnings);
    if (raw) found.push({ path: path.join('.') || 'the list', raw, warnings });
    else if (data.length <= MOST_FOUND)
      data.forEach((entry, i) => {
        if (isObject(entry)) search(entry, entry, { options, found, path: [...path, String(i + 1)], depth: depth + 1 });
      });
    return;
  }
  for (const [key, value] of Object.entries(data))
    search(value, data, { options, found, path: [...path, key.slice(0, 40)], depth: depth + 1 });
}

function fromArray(
  data: Json[],
  owner: JsonObject,
  options: ParseOptions,
  warnings: LineWarning[],
): RawPoints | RawMatrix | null {
  if (data.length > MOST_CELLS)
    throw new UnreadableHeights(
      'too-large',
      `A list of ${data.length} entries is no bed's; at most ${MOST_CELLS} are read.`,
    );
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
  let width = 0;
  for (const row of rows) if (row.length > width) width = row.length;
  if (width < 2) return null;
  if (rows.length * width > MOST_CELLS)
    throw new UnreadableHeights(
      'too-large',
      `A map of ${rows.length} × ${width} cells is no bed's; at most ${MOST_CELLS} are read.`,
    );
  const numbers = rows.map((row) => Array.from({ length: width }, (_, i) => numberOf(row[i])));
  if (options.layout !== 'matrix' && width === 3 && (options.layout === 'points' || looksLikePoints(numbers))) {
    return { kind: 'points', points: numbers.map(([x, y, z]) => ({ x: x!, y: y!, z: z! })).filter(isPlaced) };
  }
  if (numbers.every((row) => row.every((z) => z !== z))) return null;
  const short = rows.filter((row) => row.length !== width).length;
  if (short > 0)
    warnings.push({
      line: 0,
      message: `${short === 1 ? 'One row is shorter than the others; its end counts' : `${short} rows are shorter than the others; their ends count`} as not reached.`,
    });
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
  const of = (axis: string) => numberOf(entries.get(axis) ?? entries.get(`${axis}_mm`) ?? entries.get(`${axis}_in`));
  const [x, y] = [of('x'), of('y')];
  const height = [...entries.keys()].find((key) => HEIGHT_KEY.test(key));
  if (height === undefined || Number.isNaN(x) || Number.isNaN(y)) return null;
  return [{ x, y, z: numberOf(entries.get(height)) }];
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
