import type { HeightPoint } from './HeightPoint';
import { lastRun } from './lastRun';
import type { LineWarning, RawPoints, Reader } from './heightReading';
import { pickHeight, type HeightCandidate } from './pickHeight';

/** Longer lines are no console's. */
const LONGEST_LINE = 2000;
const NUMBER = String.raw`[+-]?(?:\d{1,9}(?:[.,]\d{1,25})?|[.,]\d{1,25})(?:e[+-]?\d{1,3})?`;
/** A word, a colon or equals sign, and what follows: a number, a mark for unreached, or nothing. */
const PAIRS = new RegExp(
  String.raw`([A-Za-z][A-Za-z_]{0,30})[ \t]{0,4}[:=][ \t]{0,8}(${NUMBER}|[+-]?nan\b|-(?![\d.])|\.(?!\d)|(?=[ \t,;)\]]|$))`,
  'gi',
);
const HAS_LABEL = /[xyz][ \t]{0,4}[:=]/i;
const LAST_NUMBER = new RegExp(
  String.raw`(?:^|[\s:=,;])(${NUMBER})[ \t]{0,4}(?:mm|in|inch|inches|thou|mils?|um|µm|μm)?[\s.)\]]{0,4}$`,
  'i',
);
/** A pair of places without labels before a labelled height: `at 10.0,20.0 is z=-0.043`. */
const POINT = String.raw`[+-]?\d{1,9}(?:\.\d{1,25})?`;
const PLACES = new RegExp(String.raw`(?:^|[\s(])(${POINT})[ \t]{0,4}[,;][ \t]{0,4}(${POINT})(?=[^\d.+-])`);
/** Labels that are no height: how good a reading is, what else the machine reports. */
const NO_HEIGHT =
  /^(?:dev|deviation|std|stddev|sigma|sd|rms|range|spread|error|err|tolerance|samples?|n|no|nr|num|count|counts|index|idx|i|row|col|column|t|temp|temperature|b|bed_temp|time|ms|s|speed|f|feed|e|a|c|u|v|w|tool|point|points|probe|retries|attempt|try|min|max|mean)$/i;
/** A value named by one of these was read. */
const HEIGHT =
  /^(?:z|dz|h|height|result|reading|value|measured|probed|touch|trigger|triggered|contact|delta|bed_?z|probe_?z|z_?offset)$/i;

interface Labelled {
  line: number;
  x: number;
  y: number;
  /** Values by lower-case label; "last" is a number at the end without one. */
  values: Map<string, number>;
}

/**
 * Lines in which X, Y and a height are labelled (`X:10.0 Y:20 Z:-0.043`, `bed x=10 y=20 z=0.1`, `at x=10 y=20: 0.1`,
 * `at 10,20 is z=0.1`). Where a line holds a commanded Z and a reading the reading counts; two that change are asked.
 * @returns null when no line has labels
 */
export function readLabelled(lines: readonly string[], reader: Reader): RawPoints | null {
  const found: LineWarning[] = [];
  const rows: Labelled[] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    if (line.length > LONGEST_LINE || !HAS_LABEL.test(line)) continue;
    const read = labelledIn(line, i + 1);
    if (typeof read === 'string') found.push({ line: i + 1, message: read });
    else if (read) rows.push(read);
  }
  if (rows.length === 0) return null;
  reader.warnings.push(...found);
  const run = lastRun(rows, reader);
  // A label that hardly any line has is no column.
  const names = [...new Set(run.flatMap(({ values }) => [...values.keys()]))];
  const counted = names.map((name) => ({ name, lines: run.filter(({ values }) => values.has(name)).length }));
  const most = Math.max(...counted.map(({ lines: count }) => count));
  const columns: HeightCandidate[] = counted
    .filter(({ lines: count }) => 2 * count >= most)
    .map(({ name }) => ({ name, values: run.map(({ values }) => values.get(name) ?? NaN) }));
  if (columns.length === 0) return null;
  const at = pickHeight(columns, reader);
  const points: HeightPoint[] = run.map(({ x, y }, i) => ({ x, y, z: columns[at]!.values[i]! }));
  return { kind: 'points', points };
}

/** What one line says; a reason why it was left out; null when it names no place. */
function labelledIn(line: string, number: number): Labelled | string | null {
  const values = new Map<string, number>();
  let x: number | null = null;
  let y: number | null = null;
  let [named, axes] = [false, 0];
  for (const [, label, text] of line.matchAll(PAIRS)) {
    const name = label!.toLowerCase().replace(/^(?:bed|probe)_/, '');
    const value = valueOf(text!);
    if (name === 'e' || name === 'count')
      return 'This line reports the position of the nozzle, not the bed; it was left out.';
    if (name === 'x' || name === 'y') {
      axes++;
      if (name === 'x') x ??= value;
      else y ??= value;
    } else if (HEIGHT.test(name)) {
      named = true;
      if (value !== null && !values.has(name)) values.set(name, value);
    } else if (!NO_HEIGHT.test(name) && value !== null && !values.has(name)) values.set(name, value);
  }
  if (/(?:^|[^a-z])count\b/i.test(line))
    return 'This line reports the position of the nozzle, not the bed; it was left out.';
  if (axes === 0) {
    const places = named ? PLACES.exec(line) : null;
    if (!places) return null;
    [x, y] = [Number(places[1]), Number(places[2])];
  }
  if (x === null || y === null || Number.isNaN(x) || Number.isNaN(y))
    return 'X or Y is missing on this line; it was left out.';
  // Other labels count only where none is known for a height.
  if (named) for (const name of [...values.keys()]) if (!HEIGHT.test(name)) values.delete(name);
  const bare = axes > 0 ? lastNumber(line) : null;
  if (bare !== null) values.set('last', bare);
  if (values.size === 0) return 'There is no height on this line; it was left out.';
  return { line: number, x, y, values };
}

/** A number without a label at the end of the line, behind the last label and its value. */
function lastNumber(line: string): number | null {
  let end = 0;
  for (const pair of line.matchAll(PAIRS)) end = pair.index + pair[0].length;
  const rest = line.slice(end);
  // Behind a word that is no height ("dev 0.004") or in brackets it is none.
  if (/[(\[]/.test(rest)) return null;
  const word = /([A-Za-z_]{1,30})[^A-Za-z\d]{0,6}[+-]?[\d.,]{1,30}[^\d]{0,8}$/.exec(rest)?.[1];
  if (word && NO_HEIGHT.test(word)) return null;
  const match = LAST_NUMBER.exec(rest);
  return match ? valueOf(match[1]!) : /(?:^|[\s:=])nan\s{0,4}$/i.test(rest) ? NaN : null;
}

/** null: nothing there; NaN: not reached. */
function valueOf(text: string): number | null {
  if (text === '' || text === '-' || text === '.' || /nan$/i.test(text)) return NaN;
  const value = Number(text.replace(',', '.'));
  return Math.abs(value) < 1e9 ? value : null;
}
