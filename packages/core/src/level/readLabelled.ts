import type { HeightPoint } from './HeightPoint';
import type { LineWarning, RawPoints } from './heightReading';

const NUMBER = String.raw`[+-]?(?:\d{1,9}(?:[.,]\d{1,15})?|[.,]\d{1,15})(?:e[+-]?\d{1,3})?`;
const labelled = (letters: string) =>
  new RegExp(
    String.raw`(?:^|[^a-z])(?:${letters})[ \t]{0,4}[:=][ \t]{0,8}(${NUMBER}|[+-]?nan|-|\.|(?=[ \t,;)\]]|$))`,
    'i',
  );
const X = labelled('x');
const Y = labelled('y');
const Z = labelled('z|dz|h|height');
const AXES = /(?:^|[^a-z])[xy][ \t]{0,4}[:=]/i;
/** A report of where the nozzle is, not of the bed: consoles add the extruder's axis or the motor counts. */
const POSITION_REPORT = /(?:^|[^a-z])(?:e[ \t]{0,4}[:=]|count\b)/i;
const LAST_NUMBER = new RegExp(String.raw`(?:^|[\s:=,;])(${NUMBER})[ \t]{0,4}(?:mm)?[\s.)\]]{0,4}$`, 'i');
/** A pair of places without labels before a labelled height: `at 10.0,20.0 is z=-0.043`. */
const POINT = String.raw`[+-]?\d{1,9}(?:\.\d{1,15})?`;
const PAIR = new RegExp(
  String.raw`(?:^|[\s(])(${POINT})[ \t]{0,4}[,;][ \t]{0,4}(${POINT})[^\d.+-]{1,40}\bz[ \t]{0,4}[:=][ \t]{0,8}(${POINT}|[+-]?nan)`,
  'i',
);
/** Longer lines are no console's. */
const LONGEST_LINE = 2000;

/**
 * Lines in which X, Y and Z are labelled (`X:10.0 Y:20 Z:-0.043`, `bed x=10 y=20 z=0.1`, `at x=10 y=20: 0.1`,
 * `at 10,20 is z=0.1`).
 * @returns null when no line has labels
 */
export function readLabelled(lines: readonly string[], warnings: LineWarning[]): RawPoints | null {
  const points: HeightPoint[] = [];
  const found: LineWarning[] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    if (line.length > LONGEST_LINE || !/[xyz][ \t]{0,4}[:=]/i.test(line)) continue;
    const pair = AXES.test(line) ? null : PAIR.exec(line);
    if (!pair && !AXES.test(line)) continue;
    const point = pair ? { x: Number(pair[1]), y: Number(pair[2]), z: Number(pair[3]) } : pointIn(line);
    if (typeof point === 'string') found.push({ line: i + 1, message: point });
    else points.push(point);
  }
  if (points.length === 0) return null;
  warnings.push(...found);
  return { kind: 'points', points };
}

/** The point a line names, or why it was left out. */
function pointIn(line: string): HeightPoint | string {
  if (POSITION_REPORT.test(line)) return 'This line reports the position of the nozzle, not the bed; it was left out.';
  const x = valueOf(X.exec(line)?.[1]);
  const y = valueOf(Y.exec(line)?.[1]);
  if (x === null || y === null || Number.isNaN(x) || Number.isNaN(y)) {
    return 'X or Y is missing on this line; it was left out.';
  }
  const labelledZ = Z.exec(line);
  const z = labelledZ ? valueOf(labelledZ[1]) : lastNumber(line);
  if (z === null) return 'There is no height on this line; it was left out.';
  return { x, y, z };
}

function lastNumber(line: string): number | null {
  const afterY = line.slice(Y.exec(line)!.index);
  const rest = afterY.replace(Y, ' ');
  return valueOf(LAST_NUMBER.exec(rest)?.[1] ?? (/nan\s*$/i.test(rest) ? 'nan' : undefined));
}

/** null: nothing there; NaN: not reached. */
function valueOf(text: string | undefined): number | null {
  if (text === undefined) return null;
  if (text === '' || text === '-' || text === '.' || /nan$/i.test(text)) return NaN;
  const value = Number(text.replace(',', '.'));
  return Math.abs(value) < 1e9 ? value : null;
}
