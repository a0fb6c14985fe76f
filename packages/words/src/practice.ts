import type { Cause, Lesson } from '@even-bed/core/level/practiceBed';

/** What a practice bed was about. */
export const LESSON_NAMES: Record<Lesson, string> = {
  tilt: 'out of level, no more',
  sticky: 'a sticking screw',
  reversed: 'a screw that turns the other way',
  'thick-paper': 'thick paper',
  debris: 'debris under the sheet',
  bowed: 'something under the bed',
  'map-sign': 'a map whose + means lower',
};

/** What a learner can say that it was. */
export const CAUSE_WORDS: Record<Cause, string> = {
  nothing: 'Only out of level',
  sticky: 'A screw moves less than its thread says',
  reversed: 'A screw turns the other way',
  'thick-paper': 'The paper is thicker than thought',
  debris: 'Debris under the sheet',
  bowed: 'Something presses from below',
  'map-sign': 'In its map + means lower',
};

/** What the bed teaches, and what would have saved the afternoon. */
export const LESSON_WORDS: Record<Lesson, string> = {
  tilt: 'Feel, turn, feel: each touch where it tells most, the middle last. Going round and round by eighths takes twice as long.',
  sticky:
    'A turn that moves a third of what it should is seen at once when the place is felt before and after. Free it, or count on it; turning the others instead tips the bed.',
  reversed: 'Clockwise lowers on most; here one raises. One turn and one feel settle it before any verdict.',
  'thick-paper':
    'Ten between the calipers, divided by ten. A thick sheet leaves the nozzle high at every corner alike: the fifth try is not the bed’s fault.',
  debris:
    'One place stands out and no screw moves it alone: lift the sheet, wipe under it. Turning for it tips everything else.',
  bowed:
    'Corners even and the middle jams: look under the bed, for a clamp, a tie, foam. Corners were levelled for weeks while it pressed.',
  'map-sign':
    'The map calls high what the paper calls wide: its sign is turned over. Settle the sign before any verdict, by a place known to be high or by one turn and a second map.',
};
