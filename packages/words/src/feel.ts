import type { Feel, FeelFinding } from '@even-bed/core/level/feel';
import type { SeenFrom } from '@even-bed/core';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { figuresFor, type Reader } from './figures';
import { motorWords, turnWords } from './turn';

/** What each feel is like under the fingers. */
export const FEEL_HINTS: Record<Feel, string> = {
  jammed: 'won’t go in',
  tight: 'pulls, buckles',
  drags: 'even pull',
  light: 'a breath',
  free: 'no touch',
};

/** A turn to make, with what it does: "an eighth turn clockwise, looking down; raises". */
export function feelTurnWords(
  { turns, raises, motor = false }: { turns: number; raises: boolean; motor?: boolean },
  seenFrom: SeenFrom,
  reader: Reader,
): string {
  if (motor) return motorWords(turns, reader);
  const view = seenFrom === 'above' ? 'looking down' : 'looking up from below';
  return `${turnWords(turnsAsSeen(turns, seenFrom), reader)}, ${view}; ${raises ? 'raises' : 'lowers'}`;
}

/** Before a turn that may bring the bed up against the nozzle. */
export const LIFT_FIRST =
  'Lift the nozzle first, turn, and come back down slowly, a tenth at a time. Does it touch before it is down: stop there, that is jammed.';

/** What stands out while a bed is felt. `name`: the adjuster's. */
export function feelFindingWords(finding: FeelFinding, name: string): string {
  switch (finding.code) {
    case 'one-culprit':
      return `${name} alone is out; the others are near. Look there before you turn: debris, a slipped screw, a bent corner.`;
    case 'moves-less':
      return `${name} moves about ${Math.round(100 * (1 - finding.share))} % less than its thread says: it sticks, slips, or has another thread.`;
    case 'moves-more':
      return `${name} moves about ${Math.round(100 * (finding.share - 1))} % more than its thread says: it may have another thread.`;
    case 'does-not-answer':
      return `${name} does not answer to its turns: it is stuck, or turns the other way round than is written down. Nozzle lifted, turn it back by as much and feel: better, and it is the other way round; the same, and it is stuck.`;
    case 'wont-hold-still':
      return 'Feels at one place contradict each other with no turn between: something gives. Look for a loose carriage, a soft spring, a sheet that isn’t down.';
    case 'near-its-end':
      return `${name} was turned ${Math.abs(finding.turns)} turns one way: its spring may be at its end. Turn the others the other way instead.`;
  }
}

/** What it means that a bed was levelled with a gauge thicker or thinner than a common sheet. */
export function gaugeWords(
  { thickness, higher, turns }: { thickness: number; higher: number; turns: number | null },
  reader: Reader,
): string {
  const { size } = figuresFor(reader);
  if (Math.abs(higher) < 0.005) return `Levelled with ${size(thickness, 3)}, as a common sheet leaves it.`;
  const way = higher > 0 ? 'higher' : 'lower';
  const offset = `an offset of ${higher > 0 ? '−' : '+'}${size(Math.abs(higher), 3)}`;
  const screw = turns === null || turns === 0 ? '' : `, or the stop screw by ${Math.abs(turns)} of a turn`;
  return `Levelled with ${size(thickness, 3)}: the nozzle stands ${size(Math.abs(higher), 3)} ${way} than a common sheet leaves it. That is ${offset}${screw}.`;
}
