import type { BookEvent, EventPayloads } from '@even-bed/contract';
import { careSentences, fitSentences, wearSentences } from './care';
import { figuresFor, type Reader } from './figures';
import { fleetSentences, peopleSentences, roundsSentences, shopSentences } from './fleet';
import { levelSentences } from './level';
import type { Sentences, Told } from './sentence';
import { surfaceSentences } from './surfaces';

const SENTENCES: Sentences<EventPayloads> = {
  ...fleetSentences,
  ...roundsSentences,
  ...shopSentences,
  ...peopleSentences,
  ...levelSentences,
  ...surfaceSentences,
  ...careSentences,
  ...wearSentences,
  ...fitSentences,
  correction: ({ text }) => `Correction: ${text}`,
};

/** The machine and the surface of a line by their present names; null: it is of none. */
export interface Names {
  machine: string | null;
  surface: string | null;
}

/** A line of the book as a sentence, in the reader's units and marks. */
export function bookSentence({ kind, data }: BookEvent, { machine, surface }: Names, reader: Reader): string {
  const told: Told = {
    machine: machine ?? '',
    surface: surface ?? '',
    subject: surface ?? machine ?? '',
    figures: figuresFor(reader),
    reader,
  };
  return (SENTENCES[kind] as (payload: unknown, told: Told) => string)(data, told);
}
