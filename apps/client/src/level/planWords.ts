import type { RoundComparison, SeenFrom, TurnPlan } from '@even-bed/core';
import { motorWords, turnWords as saidTurn } from '@even-bed/words/turn';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { length, lengthFigure } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';

const NUMBERS = [
  'No',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
];

/** The page's title: what the plan comes to. */
export function planHeadline({ verdict, order }: Pick<TurnPlan, 'verdict' | 'order'>): string {
  const count = order.length;
  if (verdict === 'within') return 'Within the aim';
  if (count === 0) return 'Turns can’t help further';
  const turns = `${NUMBERS[count] ?? count} ${count === 1 ? 'turn' : 'turns'}`;
  return verdict === 'reaches' ? `${turns} will do it` : `${turns} help, not all the way`;
}

/** What stays after the turns, and what could cure it. */
export function whatStays({
  limit,
  after,
  ideal,
  verdict,
}: Pick<TurnPlan, 'limit' | 'after' | 'ideal' | 'verdict'>): string {
  const left = `${length(after.range)}`;
  if (verdict === 'within') return `${left} from highest to lowest. Leave the knobs alone.`;
  switch (limit) {
    case 'tilt':
      return `What stays of ${left} is tilt finer than a hand can turn. Another round may take it out.`;
    case 'shape':
      return `What stays is the shape of the plate, ${length(ideal.range)}. Screws cure tilt, never shape; a height map can follow it.`;
    case 'unsure':
      return `${left} stays. So few readings can’t tell the plate’s shape from the probe’s own noise: read the same places twice and it shows.`;
    case 'noise':
      return 'What stays is no more than the readings differ by themselves.';
  }
}

/** A turn as the technician sees it, in words; of what a motor drives its move. */
export const turnWords = (said: number, seenFrom: SeenFrom, motor = false) =>
  motor ? motorWords(said, currentManner()) : saidTurn(turnsAsSeen(said, seenFrom), currentManner());

export const viewWords = (seenFrom: SeenFrom) => (seenFrom === 'above' ? 'looking down' : 'looking up from below');

/** What the bed's answer to the last turns means, when it means something. */
export function answerWords(
  { answer, before, now, worse, about }: RoundComparison,
  nameOf: (id: string) => string = (id) => id,
): { title: string; text: string } | null {
  const ranges = `${lengthFigure(before)} to ${length(now)}`;
  const knobs = about.map(nameOf).join(' and ');
  switch (answer) {
    case 'reversed':
      return {
        title: worse ? `It got worse: ${ranges}` : 'The bed moved the other way',
        text: 'The turns moved the bed the opposite way. Turns from this reading would make the next reading worse still. Either + means the other thing in these heights, or the knobs turn the other way round than written down.',
      };
    case 'unmoved':
      return {
        title: 'The bed hardly moved',
        text: `${ranges}. Were the turns made, and on these knobs? A spring at its end, or something under the bed, holds it too.`,
      };
    case 'off':
      return {
        title: 'The bed moved another way than planned',
        text: `${ranges}. A knob may have been mixed up with another, or turned too far. Go on with the new plan.`,
      };
    case 'one-reversed':
      return {
        title: `${knobs} moved the other way`,
        text: `${ranges}. The others did as said. Its knob turns the other way round than written down, or it was turned the wrong way. Turn it a little and watch its corner before you go on.`,
      };
    case 'half':
      return {
        title: 'The bed moved half as far',
        text: `${ranges}. Either half of each turn was made, or the thread is finer than written down.`,
      };
    case 'left-out':
      return {
        title: `${knobs} did not move`,
        text: `${ranges}. Was it turned? A spring at its end, or something under the bed, holds it too.`,
      };
    case 'swapped':
      return {
        title: `${knobs}: turned as each other`,
        text: `${ranges}. What was found is what would follow if these two turns had been made on each other’s knobs.`,
      };
    case 'unsure':
      return {
        title: 'The readings can’t tell how the bed answered',
        text: `${ranges}. More than one slip would look like this within the probe’s noise. Larger turns, or each place read twice, would tell.`,
      };
    case 'as-said':
    case 'small':
      return null;
  }
}
