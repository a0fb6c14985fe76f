import { readLength } from '@even-bed/core/fleet/readLength';

/** The margin of a print area in the middle of its plate: (plate − print)/2, or nothing where either is no length. */
export function centredMargin(plate: string, print: string): string {
  const [p, q] = [readLength(plate), readLength(print)];
  return p === null || q === null ? '' : String(Number(((p - q) / 2).toFixed(4)));
}
