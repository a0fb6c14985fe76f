import { CAUTIONS, type CautionId } from '@even-bed/core/care/cautions';
import type { PartLoss } from '@even-bed/core/care/together';

/** A card as it is read aloud. */
export interface SpokenFacts {
  cautions: readonly CautionId[];
  /** What the hands do, in order. */
  doings: readonly string[];
  /** What the sums of the card say: turns, spacers. */
  sums: readonly string[];
  /** How long it waits, in words; null: it does not. */
  wait: string | null;
  /** What has to be seen before it goes on. */
  checks: readonly string[];
  question: string | null;
}

/** What is said aloud of a card, one utterance each: cautions first, then the doing, then turns, times and what is asked. */
export function spokenCard({ cautions, doings, sums, wait, checks, question }: SpokenFacts): string[] {
  return [
    ...cautions.map((id) => `Careful. ${CAUTIONS[id].title}. ${CAUTIONS[id].text}`),
    ...doings,
    ...sums,
    ...(wait === null ? [] : [`Wait ${wait}.`]),
    ...checks,
    ...(question === null ? [] : [question]),
  ].map(aloud);
}

/** Signs that a voice stumbles over, in words. */
const aloud = (text: string) =>
  text
    .replaceAll(' × ', ' times ')
    .replaceAll('°C', 'degrees')
    .replaceAll('°F', 'degrees Fahrenheit')
    .replace(/(\d) mm\b/g, '$1 millimetres')
    .replace(/(\d)°/g, '$1 degrees')
    .replace(/\s+/g, ' ')
    .trim();

const LOSS_WORDS: Record<PartLoss, string> = {
  place: 'where it lies is not kept',
  hold: 'nobody is stopped from using it while it cures',
  life: 'its life is not counted anew',
  retired: 'it stays in every list',
  seen: 'what is seen of it is kept with the machine alone',
};

/** What it costs when a part of a job is not followed. */
export function lossWords(losses: readonly PartLoss[]): string {
  const words = losses.map((loss) => LOSS_WORDS[loss]);
  if (words.length === 0) return 'Nothing is lost by it.';
  const [last, ...before] = [...words].reverse();
  const all = before.length === 0 ? last! : `${before.reverse().join(', ')} and ${last!}`;
  return `Not followed: ${all}.`;
}
