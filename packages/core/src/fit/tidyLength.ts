/** A length to the nanometre, never −0: sums of decimals stay decimals, 7.2 + 5.5 − 11.6 is 1.1. */
export const tidyLength = (mm: number): number => Math.round(mm * 1e6) / 1e6 + 0;
