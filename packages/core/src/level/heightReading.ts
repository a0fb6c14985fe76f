import type { Extent, HeightGrid, HeightPoint } from './HeightPoint';

/** How a text of heights is to be read, as far as somebody has said. */
export interface ParseOptions {
  /** What + means in the text. Default higher, nearer the nozzle. */
  plus?: 'higher' | 'lower' | undefined;
  /** Where the outermost readings of a bare matrix lie, mm. */
  extent?: Extent | undefined;
  /** Where the first row of a bare matrix lies. */
  firstRow?: 'front' | 'rear' | undefined;
  /** Says what three bare columns are, where the text leaves it open. */
  layout?: 'points' | 'matrix' | undefined;
  /** What was answered to the questions that the text leaves open. */
  answers?: Partial<Record<QuestionCode, string>> | undefined;
}

/**
 * What a text can leave open besides its place: which column is the height · which of several maps · whether columns
 * counted down run from the right · whether long rows were broken in two · whether the last row is one of means ·
 * whether row labels or what was said tells where the first row lies · which axis runs down · in which unit the heights, and the
 * places, are written · whether columns of whole numbers are places with heights or a map · whether four numbers above a map are
 * its outermost places.
 */
export const QUESTIONS = [
  'height',
  'map',
  'columns',
  'wrapped',
  'last-row',
  'rows',
  'axes',
  'unit',
  'places',
  'layout',
  'first-row',
] as const;
export type QuestionCode = (typeof QUESTIONS)[number];

export interface ReadingQuestion {
  code: QuestionCode;
  /** Answers that can be given, as `ParseOptions.answers` takes them. */
  options: string[];
  /** The answer that the reading rests on; null: it must be asked before anything follows from the reading. */
  taken: string | null;
}

/** Something in the text that a person should look at. `line` counts from 1; 0 speaks of the whole text. */
export interface LineWarning {
  line: number;
  message: string;
}

/** What a matrix leaves open and a person has to say. */
export type MatrixNeed = 'extent' | 'firstRow';

export interface ParsedHeights {
  layout: 'points' | 'labelled' | 'matrix' | 'json';
  /** Readings, mm, + higher; empty while `needs` is not. */
  points: HeightPoint[];
  /** The grid the readings lie on, if they lie on one. */
  grid: HeightGrid | null;
  /** Size of a matrix as written, whether or not it can be placed yet. */
  matrix: { rows: number; columns: number } | null;
  /** What has to be asked before a matrix can be placed on the plate. */
  needs: MatrixNeed[];
  /** Places named in the text that have no height. */
  unreached: number;
  warnings: LineWarning[];
  /** What the text leaves open, with what was taken; one without is still to be answered. */
  questions: ReadingQuestion[];
}

/** A matrix as read: rows in the order of the text, with the positions the text gave, if it did. */
export interface RawMatrix {
  kind: 'matrix';
  rows: number[][];
  columnPositions: number[] | null;
  rowPositions: number[] | null;
  extent?: Extent | undefined;
  firstRow?: 'front' | 'rear' | undefined;
  /** What row labels say of where the first row lies; null or left out: nothing. */
  rowOrder?: 'front' | 'rear' | null;
}

/** Points as read: z is NaN where the place was not reached. */
export interface RawPoints {
  kind: 'points';
  points: HeightPoint[];
}

/** What readers of a text share: what was said of it, what they noticed, and what they have to ask. */
export interface Reader {
  options: ParseOptions;
  warnings: LineWarning[];
  questions: ReadingQuestion[];
}

/**
 * Asks a question of a text: the answer that was given, else the preferred one, else it stays open and the first option
 * is read meanwhile.
 */
export function ask(
  { options, questions }: Reader,
  code: QuestionCode,
  choices: readonly string[],
  preferred: string | null,
): string {
  const given = options.answers?.[code];
  const taken = given !== undefined && choices.includes(given) ? given : preferred;
  questions.push({ code, options: [...choices], taken });
  return taken ?? choices[0]!;
}
