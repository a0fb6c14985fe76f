const MM_PER_INCH = 25.4;
/** Lengths are kept to the nanometre: 8 1/2 in is 215.9 mm, not 215.89999999999998. */
const NANOMETRES = 1e6;
const NUMBER = String.raw`\d{1,6}(?:[.,]\d{1,20})?|[.,]\d{1,20}`;
const LENGTH = new RegExp(
  String.raw`^([+-])?\s*(?:(${NUMBER})(?:\s+|-))?(?:(\d{1,4})\s*/\s*(\d{1,4})|(${NUMBER}))\s*(mm|cm|in|inch|inches|"|″|'')?$`,
  'i',
);

/**
 * A length as people type it, in mm: `12,5`, `12.5 mm`, `3/16"`, `5 1/4 in`. Without a unit it is read in `unit`.
 * @returns null when it is not a length
 * Source: 1 in = 25.4 mm exactly (international yard and pound agreement, 1959).
 * @example readLength('5 1/4 in') // 133.35
 */
export function readLength(text: string, unit: 'mm' | 'in' = 'mm'): number | null {
  const match = LENGTH.exec(text.trim().replace(/[\u2212\u2013\u2014]/g, '-'));
  if (!match) return null;
  const [, sign, whole, numerator, denominator, plain, named] = match;
  // "5 12" is two numbers, not one: a whole part only goes with a fraction.
  if (whole !== undefined && plain !== undefined) return null;
  if (denominator !== undefined && Number(denominator) === 0) return null;
  const fraction = numerator === undefined ? decimal(plain!) : Number(numerator) / Number(denominator);
  const value = (whole === undefined ? 0 : decimal(whole)) + fraction;
  const length = value * factorOf(named ?? unit);
  return ((sign === '-' ? -1 : 1) * Math.round(length * NANOMETRES)) / NANOMETRES + 0;
}

const decimal = (text: string) => Number(text.replace(',', '.'));

function factorOf(unit: string): number {
  if (/^mm$/i.test(unit)) return 1;
  return /^cm$/i.test(unit) ? 10 : MM_PER_INCH;
}
