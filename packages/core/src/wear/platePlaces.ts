/** The nine places of a plate, as somebody sees them who stands before the machine; from the back to the front. */
export const PLATE_PLACES = [
  'back-left',
  'back',
  'back-right',
  'left',
  'centre',
  'right',
  'front-left',
  'front',
  'front-right',
] as const;
export type PlatePlace = (typeof PLATE_PLACES)[number];

export const PLACE_WORDS: Record<PlatePlace, string> = {
  'back-left': 'rear left',
  back: 'rear',
  'back-right': 'rear right',
  left: 'left',
  centre: 'centre',
  right: 'right',
  'front-left': 'front left',
  front: 'front',
  'front-right': 'front right',
};

/**
 * Places in words, in the plate's own order, each once.
 * @example placesInWords(['front', 'back-left']) // 'rear left, front'
 */
export function placesInWords(places: readonly PlatePlace[]): string {
  if (PLATE_PLACES.every((place) => places.includes(place))) return 'the whole plate';
  return PLATE_PLACES.filter((place) => places.includes(place))
    .map((place) => PLACE_WORDS[place])
    .join(', ');
}
