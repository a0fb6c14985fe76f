import { ask, type Reader } from './heightReading';

/** A reading of a place, with the line that it stands on. */
interface Placed {
  line: number;
  x: number;
  y: number;
}

const keyOf = ({ x, y }: Placed) => `${x.toFixed(2)} ${y.toFixed(2)}`;

/**
 * Where the same places were read in a second run, the last run counts; the others, or all of them as repeats, are
 * offered. Readings that repeat a place at once, or come back to a few, belong to one run.
 */
export function lastRun<T extends Placed>(rows: T[], reader: Reader): T[] {
  const runs: T[][] = [];
  let seen = new Set<string>();
  let before = '';
  for (const row of rows) {
    const key = keyOf(row);
    if (runs.length === 0 || (seen.has(key) && key !== before)) {
      runs.push([]);
      seen = new Set();
    }
    runs.at(-1)!.push(row);
    seen.add(key);
    before = key;
  }
  const sizes = runs.map((run) => new Set(run.map(keyOf)).size);
  const most = Math.max(...sizes);
  if (runs.length < 2 || runs.length > MOST_RUNS || sizes.some((size) => 2 * size < most)) return rows;
  const numbers = runs.map((_, i) => String(i + 1));
  const taken = ask(reader, 'map', [...numbers, 'all'], String(runs.length));
  if (taken === 'all') return rows;
  const run = runs[Number(taken) - 1]!;
  reader.warnings.push({
    line: run[0]!.line,
    message: `${runs.length} readings of the same places were found; number ${taken} was used.`,
  });
  return run;
}

/** More runs than this are repeats of each place and no maps one after the other. */
const MOST_RUNS = 20;
