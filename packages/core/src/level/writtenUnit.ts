import { ask, type Reader } from './heightReading';
import type { HeightPoint } from './HeightPoint';

/** Units in which texts of heights are written. */
export const HEIGHT_UNITS = ['mm', 'in', 'thou', 'um', 'cm', 'm'] as const;
export type HeightUnit = (typeof HEIGHT_UNITS)[number];

/** Millimetres of one. Source: 1 in = 25.4 mm exactly (international yard and pound agreement, 1959). */
export const MM_OF: Record<HeightUnit, number> = { mm: 1, in: 25.4, thou: 0.0254, um: 0.001, cm: 10, m: 1000 };

const UNIT = 'mm|cm|m|in|inch|inches|thou|mils?|um|µm|μm|microns?|micromet(?:er|re)s?';
/** Behind a number. "in" parted from it only where nothing follows: "5 in progress" is none. */
const BEHIND_NUMBER =
  /\d(?:[ ]?(um|µm|μm|microns?|mils?|thou|inch(?:es)?|mm)(?![a-zµμ])|(in)(?![a-z\d])|[ ](in)(?=[ \t]{0,4}(?:[,;|\])\n]|$)))/i;
/** A number with the sign of an inch: one that no quote opened. */
const INCH_SIGN = /(?:^|[\s;|(])[+-]?[\d.]{1,12}["″](?=[\s,;|)]|$)/m;
/** In the head of a column, or the key of a value. "(in progress)" is no unit. */
const HEADED = new RegExp(
  String.raw`(?:^|[^a-z])(x|y|z|dz|h|heights?|reading|result|measured|value|probed|touch|triggered|contact|delta|level|offset|gap|depth)[ \t]{0,3}(?:[_.](${UNIT})(?![a-zµμ_])|[\[(][ \t]{0,3}(${UNIT})[ \t]{0,3}[\])])`,
  'gi',
);
/** Said of the text as a whole: whether it is meant of the heights is not sure. */
const ANYWHERE = new RegExp(
  String.raw`\bunits?\b[^a-z0-9\n]{0,6}(${UNIT})(?![a-zµμ])|\b(inch(?:es)?|thousandths|thou|mils|microns?|micromet(?:er|re)s?)\b`,
  'i',
);
/** Outermost places of no bed lie nearer to each other, mm: those of a bed in inches do. */
const LEAST_BED = 40;

/** Units of a text, as they are taken. */
export interface Written {
  heights: HeightUnit;
  places: HeightUnit;
}

/**
 * In which units a text is written. One that stands at the heights is taken, one that stands elsewhere is asked about, and so
 * are places as near to each other as those of a bed in inches.
 * @param text with plain signs, as it came otherwise
 * Where nothing is said and the heights are no bed's in mm, the units are asked in which they would be one's.
 * @param places the places that were read from it; none for a matrix without
 * @param read rows of heights as they stand there
 */
export function writtenUnit(
  text: string,
  places: readonly Pick<HeightPoint, 'x' | 'y'>[],
  read: readonly (readonly number[])[],
  reader: Reader,
): Written {
  const headed = [...text.matchAll(HEADED)].map(([, name, joined, bracketed]) => ({
    name: name!.toLowerCase(),
    unit: named((joined ?? bracketed)!),
  }));
  const ofPlaces = headed.find(({ name }) => name === 'x' || name === 'y')?.unit ?? null;
  const behind = BEHIND_NUMBER.exec(text);
  const number = behind ? named((behind[1] ?? behind[2] ?? behind[3])!) : INCH_SIGN.test(text) ? 'in' : null;
  const said = headed.find(({ name }) => name !== 'x' && name !== 'y')?.unit ?? number;
  const anywhere = said ? null : ANYWHERE.exec(text);
  const near = places.length > 2 && extent(places) < LEAST_BED;
  const heights = said ?? (anywhere ? named((anywhere[1] ?? anywhere[2])!) : (ofPlaces ?? (near ? 'in' : 'mm')));
  const taken = (unit: HeightUnit): Written => ({
    heights: unit,
    places: unit === 'mm' && !said ? 'mm' : (ofPlaces ?? (near && unit !== 'um' ? 'in' : 'mm')),
  });
  if (heights === 'mm') {
    // Heights said to be in mm say nothing of places as near to each other as those of a bed in inches.
    const sensible = said === null && ofPlaces === null ? unitsThatFit(read) : [];
    if (sensible.length > 0) {
      const unit = ask(reader, 'unit', [...sensible, 'mm'], null) as HeightUnit;
      return { heights: unit, places: near && unit !== 'um' && unit !== 'mm' ? 'in' : 'mm' };
    }
    if (said === 'mm' && near && !ofPlaces)
      return { heights: 'mm', places: ask(reader, 'places', ['mm', 'in'], null) as HeightUnit };
    return { heights: 'mm', places: ofPlaces ?? 'mm' };
  }
  return taken(ask(reader, 'unit', ['mm', heights], said) as HeightUnit);
}

/** Heights of a bed lie within so much, mm, whole numbers of millimetres within less; and differ by what a probe tells. */
const MOST_RANGE = 10;
const MOST_WHOLE_RANGE = 2;
const SENSIBLE = [0.005, 3] as const;

/** Units in which heights that no bed has in mm are a bed's. One slip among sound heights is none: it is named elsewhere. */
function unitsThatFit(read: readonly (readonly number[])[]): HeightUnit[] {
  let [lowest, low, high, highest] = [Infinity, Infinity, -Infinity, -Infinity];
  let whole = true;
  for (const row of read)
    for (let i = 0; i < row.length; i++) {
      const z = row[i]!;
      if (z < low) [lowest, low] = z < lowest ? [z, lowest] : [lowest, z];
      if (z > high) [high, highest] = z > highest ? [highest, z] : [z, highest];
      if (whole && z === z && !Number.isInteger(z)) whole = false;
    }
  // Without the one that is farthest out; of fewer than three nothing is left.
  const range = Math.min(high - lowest, highest - low);
  if (!(range > (whole ? MOST_WHOLE_RANGE : MOST_RANGE)) || !Number.isFinite(range)) return [];
  return (['um', 'thou'] as const).filter((unit) => {
    const left = range * MM_OF[unit];
    return left >= SENSIBLE[0] && left <= SENSIBLE[1];
  });
}

/** The longer side of what the places span. */
function extent(places: readonly Pick<HeightPoint, 'x' | 'y'>[]): number {
  const span = (of: (place: Pick<HeightPoint, 'x' | 'y'>) => number) => {
    let [low, high] = [Infinity, -Infinity];
    for (const place of places) [low, high] = [Math.min(low, of(place)), Math.max(high, of(place))];
    return high - low;
  };
  return Math.max(
    span(({ x }) => x),
    span(({ y }) => y),
  );
}

function named(word: string): HeightUnit {
  const unit = word.toLowerCase();
  if (unit === 'mm' || unit === 'cm' || unit === 'm') return unit;
  if (unit.startsWith('in')) return 'in';
  return /^(?:thou|mil)/.test(unit) && !unit.startsWith('milli') ? 'thou' : 'um';
}
