import type { LookAgain, LookReason, MeasuredLevel } from '@even-bed/core';
import { figuresFor, type Reader } from './figures';

const WAYS: Record<MeasuredLevel['way'], { name: string; mark: string }> = {
  probe: { name: 'by probe', mark: 'P' },
  typed: { name: 'typed heights', mark: 'T' },
  felt: { name: 'by paper and feel', mark: 'F' },
  quarters: { name: 'by quarter sheets', mark: 'Q' },
  sheet: { name: 'by one sheet', mark: 'S' },
  film: { name: 'on the film', mark: 'V' },
  lock: { name: 'by first-layer lock', mark: 'L' },
  skirt: { name: 'by its skirt', mark: 'K' },
};

/** How a level was found. */
export const levelWayWords = (way: MeasuredLevel['way']): string => WAYS[way].name;
/** One letter for it, for under a drawing. */
export const levelWayMark = (way: MeasuredLevel['way']): string => WAYS[way].mark;

/** How far a bed or platform is apart, as well as it is known. */
export function levelRangeWords({ least, most }: Pick<MeasuredLevel, 'least' | 'most'>, reader: Reader): string {
  const { length } = figuresFor(reader);
  if (least === null) return 'not measured by this way';
  if (most === null) return `${length(least)} or more`;
  if (least === most) return `${length(least)}, how well is not known`;
  return `${length(least)} to ${length(most)}`;
}

const REASONS: Record<LookReason['why'], string> = {
  'forced-off': 'a print was forced off',
  film: 'a new film was put in',
  refit: 'platform or base were refitted',
  stack: 'something else lies on it',
  failures: 'two prints failed alike',
  drift: 'by its own drift it may be out',
};

/** Why a level is to be looked at again. */
export const lookReasonWords = (why: LookReason['why']): string => REASONS[why];

/** When its own drift asks for another look, and what that rests on. */
export function driftWords({ next, more }: Pick<LookAgain, 'next' | 'more'>, reader: Reader): string {
  if (next === null)
    return more > 0
      ? `Its drift isn’t known yet: ${more} more ${more === 1 ? 'check' : 'checks'} with days between would tell.`
      : 'Its drift says nothing after a level of this way: a check does.';
  const { size } = figuresFor(reader);
  const rate =
    next.rate <= 0
      ? 'it has not drifted that could be seen'
      : `it drifts about ${size(next.rate, 4)} a day, give or take ${size(next.sd, 4)}`;
  return `Every ${next.days} ${next.days === 1 ? 'day' : 'days'}: ${rate}.`;
}
