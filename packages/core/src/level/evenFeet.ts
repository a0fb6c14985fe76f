import { needNumbers } from '../needNumbers';

/** Two readings of one tilt, the level or the phone turned by 180° between them. Degrees, + the right (or the rear) is lower. */
export interface TurnedPair {
  first: number;
  /** As it is shown after the turn: the other way round. */
  turned: number;
}

export interface EvenFeet {
  /** Tilt of the printer, degrees, free of the level's own bias. */
  tilt: number;
  /** What the level or the phone itself is off by. */
  bias: number;
  /** How far one foot stands below the other over their distance, mm. */
  lower: number;
  /** even: resin lies level enough · shim: under the lower feet */
  verdict: 'even' | 'shim';
}

/** So little lower over a printer's width no vat shows. Common practice: a bubble within its lines. Degrees. */
const EVEN = 0.2;

/**
 * How a printer's feet stand, so that resin lies even: the bias of a level cancels when it is turned by 180° between two
 * readings, (first − turned) / 2, and half of their sum is the bias. This can't tram a bed: only the gap matters there.
 * @param span distance of the feet along that direction, mm
 * @throws RangeError angles that are none, or 45° and more; a span that is not above 0
 * Source: reversal method for spirit levels, as in workshop practice; e.g. T. Moore, Foundations of Mechanical Accuracy (1970)
 * (from memory).
 */
export function evenFeet({ first, turned }: TurnedPair, span: number): EvenFeet {
  needNumbers('evenFeet', { first, turned, span });
  for (const angle of [first, turned])
    if (!(Math.abs(angle) < 45)) throw new RangeError(`evenFeet needs angles below 45°, got ${angle}`);
  if (!(span > 0)) throw new RangeError(`evenFeet needs a span above 0 mm, got ${span}`);
  const tilt = (first - turned) / 2;
  const lower = span * Math.tan((tilt * Math.PI) / 180);
  return { tilt, bias: (first + turned) / 2, lower, verdict: Math.abs(tilt) <= EVEN ? 'even' : 'shim' };
}
