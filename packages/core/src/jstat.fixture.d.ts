/** What is used of jStat in tests, which ships no types. */
declare module 'jstat' {
  export const jStat: {
    mean(values: readonly number[]): number;
    variance(values: readonly number[], ofSample: boolean): number;
    hypgeom: { pdf(x: number, all: number, marked: number, drawn: number): number };
    studentt: { inv(p: number, freedom: number): number; cdf(t: number, freedom: number): number };
  };
}
