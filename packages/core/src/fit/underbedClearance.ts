import { washerPile, type WasherPile } from './washers';
import { tidyLength } from './tidyLength';

export interface UnderbedInput {
  /** What stands under the bed one above the other at the worst place: clamps, insulation, ties. mm each. */
  parts: readonly { name: string; height: number }[];
  /** Height of the springs fully compressed, mm. */
  springCompressed: number;
  /** Pile already under each spring, or wanted there, mm. */
  washers?: number;
  /** What can be piled further. */
  kinds?: readonly { name: string; thickness: number }[];
  /** mm of travel per turn of the adjusters. */
  pitch?: number;
  /** Turns that the adjusters stand back from fully compressed. */
  backOff?: number;
  /** mm from fully compressed to where the nut would come off. */
  travel?: number;
}

export interface UnderbedClearance {
  /** What stands under there, mm. */
  stands: number;
  /** stands − springCompressed: + so much too tall, before any washer. */
  interference: number;
  /** Room with the springs fully compressed, washers counted: − it touches and bows the bed upward. */
  compressed: number;
  /** Room with the adjusters backed off as said. */
  backedOff: number;
  /** More under each spring so that nothing touches even fully compressed; null when no pile of them does. */
  needed: number;
  pile: WasherPile | null;
  /** What that pile leaves free, fully compressed. */
  withPile: number | null;
  /** Adjuster travel left after the washers, counted from where it stands; null when not told. */
  travelLeft: number | null;
  verdict: 'clear' | 'touches-compressed' | 'touches';
  reminder: string;
}

/**
 * Whether parts under a bed touch it when its springs are compressed, and what pile of washers frees it.
 * @throws RangeError heights, washers, turns or travel below 0, a pitch that is not above 0
 * Source: arithmetic of what stands there; common practice.
 * @example underbedClearance({ parts: [{ name: 'clamp', height: 7.2 }, { name: 'foam', height: 5.5 }],
 *   springCompressed: 11.6, washers: 1.5 }).compressed // 0.4
 */
export function underbedClearance(input: UnderbedInput): UnderbedClearance {
  const { parts, springCompressed, washers = 0, kinds = [], pitch, backOff = 0, travel } = input;
  for (const { name, height } of parts)
    if (!(height >= 0)) throw new RangeError(`underbedClearance needs heights of 0 or more, ${name} has ${height}`);
  for (const [name, value] of Object.entries({ springCompressed, washers, backOff, travel: travel ?? 0 }))
    if (!(value >= 0)) throw new RangeError(`underbedClearance needs ${name} of 0 or more, got ${value}`);
  if (pitch !== undefined && !(pitch > 0))
    throw new RangeError(`underbedClearance needs a pitch above 0 mm, got ${pitch}`);
  const stands = tidyLength(parts.reduce((sum, { height }) => sum + height, 0));
  const interference = tidyLength(stands - springCompressed);
  const compressed = tidyLength(washers - interference);
  const back = backOff * (pitch ?? 0);
  const backedOff = tidyLength(compressed + back);
  const needed = Math.max(0, -compressed);
  const pile = washerPile(needed, kinds);
  const raised = washers + (pile?.thickness ?? 0);
  return {
    stands,
    interference,
    compressed,
    backedOff,
    needed,
    pile,
    withPile: pile === null ? null : tidyLength(compressed + pile.thickness),
    travelLeft: travel === undefined ? null : tidyLength(travel - raised - back),
    verdict: compressed >= 0 ? 'clear' : backedOff >= 0 ? 'touches-compressed' : 'touches',
    reminder:
      raised > 0
        ? 'Washers raise the lowest position of the bed: move the trip point by as much, and home again.'
        : 'Look again after every change under the bed: what touches it there bows it upward.',
  };
}
