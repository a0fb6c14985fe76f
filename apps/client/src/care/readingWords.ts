import { shortDecimal, size, temperature } from '../ui/formatHeight';

/** A value of a reading in the shop's units: "0.45 mm", "140 °F", "3 turns". */
export function readingSize(value: number, unit: string): string {
  if (unit === 'mm') return size(value, 3);
  return unit === '°C' ? temperature(value) : `${shortDecimal(value, 3)}${unit ? ` ${unit}` : ''}`;
}

/** Between what a reading must lie before a job goes on: ", at least 1.5 mm, at most 3 mm"; empty without limits. */
export function limitWords(reading: { unit: string; least?: number | undefined; most?: number | undefined }): string {
  const { unit, least, most } = reading;
  return `${least === undefined ? '' : `, at least ${readingSize(least, unit)}`}${most === undefined ? '' : `, at most ${readingSize(most, unit)}`}`;
}
