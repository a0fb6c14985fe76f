import fs from 'node:fs';

/** Long simulations run whole where somebody asks for them, and as a seeded sample with every change. */
const WHOLE = process.env.EVEN_BED_PROVE === '1';

/** How many trials a simulation takes. */
export const trials = (whole: number, sample: number): number => (WHOLE ? whole : sample);

/**
 * Notes what a simulation saw, for the table that `npm run prove` writes. A sample notes nothing.
 * @param instrument what was followed, as its row is headed · @param what in which world · @param saw the figures
 */
export function proved(instrument: string, what: string, saw: string): void {
  const file = process.env.EVEN_BED_PROVED;
  if (WHOLE && file) fs.appendFileSync(file, `${JSON.stringify({ instrument, what, saw })}\n`);
}
