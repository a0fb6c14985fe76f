/** How a length in mm is said to the reader. */
export type LengthWords = (mm: number) => string;

/** mm with at most three decimals: for readers whose unit is mm, and for tests. */
export const inMillimetres: LengthWords = (mm) => `${Number(mm.toFixed(3))} mm`;
