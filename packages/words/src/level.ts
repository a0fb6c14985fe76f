import type { LevelEvents } from '@even-bed/contract';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import type { Reader } from './figures';
import type { Sentences } from './sentence';
import { turnWords } from './turn';

/** The turns of a round as the technician saw them. */
function turnsInWords({ turns, seenFrom }: LevelEvents['turns-made'], reader: Reader): string {
  const made = turns.filter(({ turns: amount }) => amount !== 0);
  if (made.length === 0) return 'no turns made';
  const words = made.map(({ name, turns: amount }) => `${name} ${turnWords(turnsAsSeen(amount, seenFrom), reader)}`);
  return `turned ${words.join(', ')}, ${seenFrom === 'above' ? 'looking down' : 'looking up from below'}`;
}

const noted = (note: string) => (note ? ` ${note}` : '');

export const levelSentences: Sentences<LevelEvents> = {
  'check-started': ({ aim }, { machine, figures: { length } }) => `${machine}: level check begun, aim ${length(aim)}.`,
  'heights-read': ({ seq, points, range }, { machine, figures: { length } }) =>
    `${machine}: reading ${seq}, ${points} points, range ${length(range)}.`,
  'turns-made': (made, { machine, reader }) => `${machine}: ${turnsInWords(made, reader)}.`,
  'check-finished': ({ before, after, aim, rounds, note }, { machine, figures: { length } }) => {
    const change =
      rounds === 1 ? `range ${length(after)}` : `range ${length(before)} to ${length(after)} in ${rounds} readings`;
    const verdict = after <= aim ? `within the aim of ${length(aim)}` : `over the aim of ${length(aim)}`;
    return `${machine}: level check finished, ${change}, ${verdict}.${noted(note)}`;
  },
  'check-dropped': ({ note }, { machine }) => `${machine}: level check dropped.${noted(note)}`,
};
