import { DegenerateInput } from '@even-bed/core/level/errors';
import { faultWords } from '@even-bed/words/fault';
import { currentManner } from '../ui/manner';

/** What came of a sum that is quick enough for the page: its answer, or why there is none. */
export type Attempted<R> = { answer: R; failure: null } | { answer: null; failure: string | null };

/** Works a sum out, or says in words what it refuses; with nothing asked there is neither. */
export function attempt<I, R>(input: I | null | undefined, work: (input: I) => R): Attempted<R> {
  if (input === null || input === undefined) return { answer: null, failure: null };
  try {
    return { answer: work(input), failure: null };
  } catch (error) {
    if (error instanceof RangeError) return { answer: null, failure: faultWords(error.message, currentManner()) };
    throw error;
  }
}

/** A sum's answer, or null where it refuses what it was given; anything else that is thrown is a fault of ours and goes on. */
export function unlessRefused<R>(work: () => R): R | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError || error instanceof DegenerateInput) return null;
    throw error;
  }
}
