import { documentIn, quantitiesIn } from '@even-bed/words/prose';
import { currentManner } from './manner';

/** What somebody wrote, with its quantities in the shop's units. */
export const prose = (text: string) => quantitiesIn(text, currentManner());

/** A document (a job, a card) with the quantities of its texts in the shop's units. */
export const proseOf = <T>(document: T): T => documentIn(document, currentManner());
