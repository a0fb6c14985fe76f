import type { MachineFacts, MadeTurn } from '@even-bed/contract';
import { describeTurn, turnsAsSeen } from '@even-bed/core';

/** A height for people: hundredths, with its unit. */
export const mm = (height: number) => `${height.toFixed(2)} mm`;

/** The turns of a round as the technician saw them. */
export function turnsInWords(
  turns: readonly MadeTurn[],
  { adjusters, seenFrom }: Pick<MachineFacts, 'adjusters' | 'seenFrom'>,
): string {
  const made = turns.filter(({ turns: amount }) => amount !== 0);
  if (made.length === 0) return 'no turns made';
  const words = made.map(({ adjusterId, turns: amount }) => {
    const name = adjusters.find(({ id }) => id === adjusterId)?.name ?? adjusterId;
    return `${name} ${describeTurn(turnsAsSeen(amount, seenFrom))}`;
  });
  return `turned ${words.join(', ')}, ${seenFrom === 'above' ? 'looking down' : 'looking up from below'}`;
}

export function finishedInWords(check: {
  machine: string;
  before: number;
  after: number;
  aim: number;
  rounds: number;
  note: string;
}): string {
  const { machine, before, after, aim, rounds, note } = check;
  const change = rounds === 1 ? `range ${mm(after)}` : `range ${mm(before)} to ${mm(after)} in ${rounds} readings`;
  const verdict = after <= aim ? `within the aim of ${mm(aim)}` : `over the aim of ${mm(aim)}`;
  return `${machine}: level check finished, ${change}, ${verdict}.${note ? ` ${note}` : ''}`;
}
