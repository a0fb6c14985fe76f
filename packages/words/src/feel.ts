import type { Feel, FeelFinding, FeelStop } from '@even-bed/core/level/feel';
import type { SeenFrom } from '@even-bed/core';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { figuresFor, type Reader } from './figures';
import { motorWords, turnFigure, turnWords } from './turn';

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
  'Lift the nozzle first, turn, and come back down slowly, a tenth at a time. If it touches before it is down, stop there: that is jammed.';

/** What stands out while a bed is felt. `name`: the adjuster's. */
export function feelFindingWords(finding: FeelFinding, name: string): string {
  switch (finding.code) {
    case 'one-culprit':
      return `${name} alone is out; the others are near. Look there before you turn: debris, a slipped screw, a bent corner.`;
    case 'moves-less':
      return `${name} moves about ${Math.round(100 * (1 - finding.share))} % less than its thread says: it sticks, slips, or has another thread.`;
    case 'moves-more':
      return `${name} moves about ${Math.round(100 * (finding.share - 1))} % more than its thread says: it may have another thread.`;
    case 'wont-hold-still':
      return 'Feels at one place contradict each other with no turn between: something gives. Look for a loose carriage, a soft spring, a sheet that isn’t down.';
    case 'near-its-end':
      return `${name} was turned ${Number(Math.abs(finding.turns).toFixed(1))} turns one way: its spring may be at its end. Turn the others the other way instead.`;
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
  const screw =
    turns === null || turns === 0
      ? ''
      : `, or the stop screw by ${turnFigure(turns, reader)} turn, the way that lets the nozzle ${higher > 0 ? 'lower' : 'higher'}`;
  return `Levelled with ${size(thickness, 3)}: the nozzle stands ${size(Math.abs(higher), 3)} ${way} than a common sheet leaves it. That is ${offset}${screw}.`;
}

/** Why feeling ends here, and what to do with the hands. `name`: the adjuster's, where one is meant. */
export function feelStopWords(stop: FeelStop, name: string, reader: Reader): { title: string; words: string } {
  switch (stop.why) {
    case 'does-not-answer':
      return {
        title: `${name} doesn’t answer to its turns. Leave it alone`,
        words:
          'Lift the nozzle. Turn it a full turn back and watch from below: does the bed move? No: free or replace the screw. Yes, but the other way: put its direction right on the machine’s page. Then begin again.',
      };
    case 'turns-other-way':
      return stop.adjuster === null
        ? {
            title: 'All adjusters turn the other way round than written down',
            words:
              'Lift the nozzle. Turn one clockwise, looking down, and watch from below whether the bed rises. Put the direction right on the machine’s page, then begin again.',
          }
        : {
            title: `${name} turns the other way round than written down. Leave it alone`,
            words:
              'Lift the nozzle, turn it and watch from below whether the bed rises. Put its direction right on the machine’s page, then begin again.',
          };
    case 'spring-end':
      return {
        title: `${name} would have to go further than its spring allows. Leave it alone`,
        words:
          'Lift the nozzle. Turn it and watch from below: does the bed move with it? No: the screw is stuck or stripped. Yes: set all adjusters to the middle of their springs, move home instead, and begin again.',
      };
    case 'keys-say-nothing':
      return {
        title: 'The answers don’t follow the turns',
        words:
          'Nothing can be said from them. Check that the paper is the same, the nozzle is clean and home is where it was, then begin again.',
      };
    case 'wont-hold-still':
      return {
        title: 'The bed doesn’t hold still',
        words:
          'One place feels different again and again, with no turn between. Look for a loose carriage, a soft spring or a sheet that isn’t down, then begin again.',
      };
    case 'as-near-as-felt':
      return {
        title: `Even within ${figuresFor(reader).size(stop.within, 3)}, 19 times in 20`,
        words: `This is as near as this feel can tell. For less, measure the gauge with calipers, or use a probe.`,
      };
    case 'too-long':
      return {
        title: 'So many touches, and it still can’t be told',
        words:
          'Stop here. Look for play: a loose carriage, worn threads, a sheet that isn’t down. A probe, or a thicker gauge, tells more.',
      };
  }
}
