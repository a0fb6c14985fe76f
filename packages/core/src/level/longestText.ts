/** Longest text of heights that is read, in characters: a 300 × 300 map and more. */
export const LONGEST_TEXT = 1_000_000;
