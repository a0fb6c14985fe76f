/** No length, temperature, time or count of this trade is larger, in any of the house's units. */
const LARGEST = 1e9;
const DEEPEST = 8;

/**
 * Refuses a question in which a number is none: not finite, or larger than anything of the trade. Stands at the top of a
 * sum, so that no NaN goes through it in silence; what a number must be besides, the sum itself says.
 * @param who the function asked, for the message
 * @throws RangeError naming the place: "soak needs numbers, layers.0.thickness is NaN"
 */
export function needNumbers(who: string, asked: unknown): void {
  walk(who, asked, '', 0);
}

function walk(who: string, value: unknown, path: string, depth: number): void {
  if (typeof value === 'number') {
    if (!(Math.abs(value) <= LARGEST)) throw new RangeError(`${who} needs numbers, ${path || 'it'} is ${value}`);
    return;
  }
  if (value === null || typeof value !== 'object' || depth > DEEPEST) return;
  for (const [key, part] of Object.entries(value)) walk(who, part, path === '' ? key : `${path}.${key}`, depth + 1);
}

/**
 * Refuses a word that is none of those known.
 * @throws RangeError naming what was asked and what is known
 */
export function needWord(who: string, what: string, value: unknown, known: readonly string[]): void {
  if (!known.includes(value as string))
    throw new RangeError(`${who} knows ${what} ${known.join(', ')}, got ${String(value)}`);
}
