import type { Figures, Reader } from './figures';

/** What a sentence of the book is made with, beside its payload. */
export interface Told {
  /** The machine's and the surface's present names. */
  machine: string;
  surface: string;
  /** What a line is of: its surface, or else its machine. */
  subject: string;
  figures: Figures;
  reader: Reader;
}

/** A sentence for every kind of an area's events. */
export type Sentences<Payloads> = { [Kind in keyof Payloads]: (payload: Payloads[Kind], told: Told) => string };
