import { readLength } from '@even-bed/core/fleet/readLength';
import { decimalMark, shortDecimal, sizeFigure, temperatureUnit, lengthUnit } from './formatHeight';
import { currentManner } from './manner';
import { numberIn } from './numberIn';

/** What a field counts in, as forms keep it; `K` is a difference of temperatures. Others are shown as they are. */
export type FieldUnit = 'mm' | '°C' | 'K' | (string & {});

/** Decimals of a size beyond those of mm: every 64th of an inch comes back as it was typed. */
const SIZE_DIGITS = 4;
const BARE = /^[-\u2212]?(\d+([.,]\d*)?|[.,]\d+)$/;

/** The unit that stands at the field in this shop: "mm", "in", "°C", "°F". */
export function unitShown(unit: FieldUnit): string {
  if (unit === 'mm') return lengthUnit();
  return unit === '°C' || unit === 'K' ? temperatureUnit() : unit;
}

/**
 * What a form keeps (a bare number is in mm, °C or K), as the shop reads it: in its units, with its decimal mark. Anything
 * else, also half a number, is shown as it is.
 */
export function quantityShown(kept: string, unit: FieldUnit | undefined): string {
  const text = kept.trim();
  if (!BARE.test(text)) return kept;
  if (currentManner().units === 'in') {
    const value = numberIn(text);
    if (unit === 'mm') return sizeFigure(value, SIZE_DIGITS);
    if (unit === '°C') return shortDecimal((value * 9) / 5 + 32, 1);
    if (unit === 'K') return shortDecimal((value * 9) / 5, 1);
  }
  return decimalMark(kept);
}

/**
 * What was typed into a field of the shop, as its form keeps it: in mm, °C or K, with a point. A length may carry its own
 * unit ("3 mm", "9 1/4 in"). What is no quantity yet stays as it is: the form says what is wrong with it.
 */
export function quantityKept(typed: string, unit: FieldUnit | undefined): string {
  if (currentManner().units !== 'in') return typed;
  if (unit === 'mm') {
    const length = readLength(typed, 'in');
    return length === null ? typed : String(length);
  }
  if (unit !== '°C' && unit !== 'K') return typed;
  if (!BARE.test(typed.trim())) return typed;
  const value = numberIn(typed);
  return String(Number((((unit === 'K' ? value : value - 32) * 5) / 9).toFixed(4)));
}
