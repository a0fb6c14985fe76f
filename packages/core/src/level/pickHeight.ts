import { ask, type Reader } from './heightReading';

/** A column, or a label, that may be the height. NaN: not reached. */
export interface HeightCandidate {
  name: string;
  values: readonly number[];
}

/** Names that say that a value was read, and not commanded. */
export const READING_NAME =
  /^(reading|result|measured|value|height|heights|probed|touch|trigger|triggered|contact|dz|delta)$/i;

/** What is measured from above: the more of it, the lower the bed. */
const GROWS_DOWNWARD = /(?:^|[^a-z])(?:gap|depth|clearance|distance)(?:$|[^a-z])/i;

/**
 * Which of several values of each place is its height. A value that never changes beside one that does was commanded and
 * not read; where two change it is asked.
 * @returns the place of the height in `candidates`
 */
export function pickHeight(candidates: readonly HeightCandidate[], reader: Reader): number {
  const at = heightAmong(candidates, reader);
  const { name } = candidates[at]!;
  if (GROWS_DOWNWARD.test(name) && reader.options.plus !== 'lower')
    reader.warnings.push({
      line: 0,
      message: `“${name.slice(0, 30)}” usually grows where the bed is lower; here a larger number is read as higher. Say which.`,
    });
  return at;
}

const MEAN_NAME = /^\W{0,4}(?:mean|avg|average)\W{0,4}$/i;
/** A mean that is rounded to thousandths is this near to what it is the mean of, mm. */
const ROUNDED = 0.0011;

/** The one that is called the mean of the others, and is: repeats of one reading; null: none is. */
function meanAmong(candidates: readonly HeightCandidate[]): string | null {
  const mean = candidates.find(({ name }) => MEAN_NAME.test(name));
  if (!mean || candidates.length < 3) return null;
  const others = candidates.filter((one) => one !== mean);
  const is = mean.values.every((value, i) => {
    const known = others.map(({ values }) => values[i]!).filter((one) => one === one);
    if (known.length === 0) return value !== value;
    return Math.abs(value - known.reduce((sum, one) => sum + one, 0) / known.length) <= ROUNDED;
  });
  return is ? mean.name : null;
}

function heightAmong(candidates: readonly HeightCandidate[], reader: Reader): number {
  if (candidates.length === 1) return 0;
  const changes = candidates.map(({ values }) => {
    const first = values.find((value) => value === value);
    return values.some((value) => value === value && value !== first);
  });
  const names = candidates.map(({ name }) => name);
  const varying = names.flatMap((_, i) => (changes[i] ? [i] : []));
  if (varying.length > 1) {
    const options = varying.map((i) => names[i]!);
    return names.indexOf(ask(reader, 'height', options, meanAmong(varying.map((i) => candidates[i]!))));
  }
  const read = names.findIndex((name) => READING_NAME.test(name));
  // Nothing changes: what is called a reading is one; that all are equal is doubted elsewhere.
  const taken = varying[0] ?? (read >= 0 ? read : names.length - 1);
  ask(reader, 'height', names, names[taken]!);
  return taken;
}
