import type { PlatePlace, PrintFailure, PrintRelease } from '@even-bed/core';
import { eventsOf, type EventFacts } from '../kit/event';

export interface PrintSaid {
  failure: PrintFailure | null;
  release: PrintRelease | null;
  places: PlatePlace[];
  note: string;
}

export interface WearEvents {
  'print-logged': {
    printId: string;
    held: boolean;
    failure: PrintFailure | null;
    release: PrintRelease | null;
    material: string;
  };
  /** What was said of a print later on: what is new, beside what stood there. */
  'print-described': { printId: string; held: boolean; was: PrintSaid; now: PrintSaid };
  'print-withdrawn': { printId: string; held: boolean; failure: PrintFailure | null };
  'prints-added': {
    count: number;
    failed: number;
    first: string;
    last: string;
    /** Name of the list that they were read from; null: typed into the grid. */
    list: string | null;
    /** Names of their machines. */
    machines: string[];
  };
}

const print: EventFacts = { touches: ['Print', 'Surface'] };

export const wearEvents = eventsOf<WearEvents>()({
  'print-logged': print,
  'print-described': print,
  'print-withdrawn': print,
  'prints-added': print,
});
