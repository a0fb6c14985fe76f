import type { LevelEvents, ZMarkKind } from '@even-bed/contract';
import type { LevelNoteResult, NoteWay } from '@even-bed/core';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import type { Reader } from './figures';
import { LESSON_NAMES } from './practice';
import type { Sentences } from './sentence';
import { SHAPE_KIND_NAMES, shapeResultWords } from './shape';
import { motorWords, turnWords } from './turn';

/** The turns of a round as the technician saw them. */
function turnsInWords({ turns, seenFrom }: LevelEvents['turns-made'], reader: Reader): string {
  const made = turns.filter(({ turns: amount }) => amount !== 0);
  if (made.length === 0) return 'no turns made';
  const words = made.map(
    ({ name, turns: amount, motor }) =>
      `${name} ${motor ? motorWords(amount, reader) : turnWords(turnsAsSeen(amount, seenFrom), reader)}`,
  );
  if (made.every(({ motor }) => motor)) return `moved ${words.join(', ')}`;
  return `turned ${words.join(', ')}, ${seenFrom === 'above' ? 'looking down' : 'looking up from below'}`;
}

const noted = (note: string) => (note ? ` ${note}` : '');

const WAYS: Record<NoteWay, string> = {
  quarters: 'by four quarter sheets',
  sheet: 'by one sheet',
  film: 'with the film as gauge',
  lock: 'by the first-layer lock',
  skirt: 'trimmed by its skirt',
};

/** How a level was done by hand, in words. */
export const noteWayWords = (way: NoteWay): string => WAYS[way];

/** How far apart, as far as hands and eyes can say. */
export function handRangeWords(range: LevelNoteResult['range'], length: (mm: number) => string): string {
  if (range === null) return 'how far it is apart was not measured';
  if (range.most === null) return `apart by ${length(range.least)} or more`;
  return range.least === 0
    ? `apart by ${length(range.most)} at most`
    : `apart by ${length(range.least)} to ${length(range.most)}`;
}

const VERDICTS: Record<LevelNoteResult['verdict'], string> = {
  even: 'even',
  uneven: 'not even yet',
  unproven: 'its corners unproven',
};

const MARKS: Record<ZMarkKind, string> = {
  home: 'home was moved',
  zero: 'zero was set',
  'learn-anew': 'what its adjusters do is learned anew',
};

export const levelSentences: Sentences<LevelEvents> = {
  'check-started': ({ aim }, { machine, figures: { length } }) => `${machine}: level check begun, aim ${length(aim)}.`,
  'heights-read': ({ seq, points, range }, { machine, figures: { length } }) =>
    `${machine}: reading ${seq}, ${points} points, range ${length(range)}.`,
  'turns-made': (made, { machine, reader }) => `${machine}: ${turnsInWords(made, reader)}.`,
  'check-finished': ({ before, after, aim, rounds, note }, { machine, figures: { length, size } }) => {
    const change =
      rounds === 1 ? `range ${length(after)}` : `range ${length(before)} to ${length(after)} over ${rounds} readings`;
    const verdict =
      after <= aim
        ? `within the aim of ${length(aim)}`
        : `over the aim of ${length(aim)}${length(after) === length(aim) ? ` by ${size(after - aim, 4)}` : ''}`;
    return `${machine}: level check finished, ${change}, ${verdict}.${noted(note)}`;
  },
  'level-noted': ({ way, verdict, range }, { machine, figures: { length } }) =>
    `${machine}: levelled ${WAYS[way]}, ${VERDICTS[verdict]}, ${handRangeWords(range, length)}.`,
  'level-note-withdrawn': ({ way }, { machine }) => `${machine}: a level ${WAYS[way]} taken back.`,
  'shape-noted': ({ result }, { subject, reader }) => `${subject}: ${shapeResultWords(result, reader)}`,
  'shape-withdrawn': ({ shape }, { subject }) => `${subject}: ${SHAPE_KIND_NAMES[shape].toLowerCase()} taken back.`,
  'gauge-kept': ({ name, thickness, uncertainty }, { figures: { size } }) =>
    `Gauge ${name}: ${size(thickness, 3)}, give or take ${size(uncertainty, 3)}.`,
  'gauge-withdrawn': ({ name }) => `Gauge ${name} let go.`,
  practised: ({ lesson, seed, points, touches, best }) =>
    `Practice bed ${seed}, ${LESSON_NAMES[lesson]}: ${points} of 100 points, ${touches} touches where ${best} would do.`,
  'z-marked': ({ mark }, { machine }) => `${machine}: ${MARKS[mark]}.`,
  'z-mark-withdrawn': ({ mark }, { machine }) => `${machine}: that ${MARKS[mark]} is taken back.`,
  'check-dropped': ({ note }, { machine }) => `${machine}: level check dropped.${noted(note)}`,
};
