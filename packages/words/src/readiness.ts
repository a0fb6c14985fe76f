import type { AgainstPrinting, Readiness } from '@even-bed/core/fleet/readiness';
import { figuresFor, type Reader } from './figures';
import { daysAhead, dueIn, timeLeft } from './span';

/** What stands against printing, in the few words of a list. */
export function againstWords(against: AgainstPrinting, reader: Reader, now: number): string {
  const { size } = figuresFor(reader);
  switch (against.code) {
    case 'held':
      return `Held, ${timeLeft(against.until - now)}`;
    case 'job':
      return 'Job under way';
    case 'check':
      return 'Check under way';
    case 'bare':
      return 'Nothing to print on';
    case 'zero':
      return against.state === 'expired' ? 'Zero expired' : 'Zero not set';
    case 'asked':
      return `${against.tag} waits for work`;
    case 'failing':
      return `${against.failed} of ${against.of} failed`;
    case 'over-aim':
      return `Range ${size(against.range)}, over its aim`;
    case 'level-due':
      return `Level ${dueIn(daysAhead(against.since, now, reader.zone))}`;
  }
}

/** The same as a sentence, with what to do. */
export function againstSentence(against: AgainstPrinting, reader: Reader, now: number): string {
  const { size } = figuresFor(reader);
  switch (against.code) {
    case 'held':
      return `It is on hold, or a job on it waits: ${timeLeft(against.until - now)} left.`;
    case 'job':
      return `A job is under way on it: ${against.title}.`;
    case 'check':
      return 'A level check of it is under way.';
    case 'bare':
      return 'No sheet or plate is written down on it. Put one on, or write down what lies there.';
    case 'zero':
      return against.state === 'expired'
        ? 'Its zero has expired: something between home and film has changed since it was set. Level it and set zero.'
        : 'Nobody has written down that its zero was set.';
    case 'asked':
      return `${against.tag} on it waits for work: ${against.what}.`;
    case 'failing':
      return `${against.failed} of its last ${against.of} prints failed. Look at them before the next.`;
    case 'over-aim':
      return `Its last check left a range of ${size(against.range)}, over the aim of ${size(against.aim)}.`;
    case 'level-due':
      return `Its level check is ${dueIn(daysAhead(against.since, now, reader.zone))}.`;
  }
}

/** A machine's readiness in the few words of a list: the weightiest thing, or that it is ready. */
export const readinessWords = ({ against }: Readiness, reader: Reader, now: number): string =>
  against.length === 0 ? 'Ready' : againstWords(against[0]!, reader, now);
