import type { QuestionCode } from '@even-bed/core';

/** What is asked of a text that can be read in two ways. */
export const QUESTION_WORDS: Record<QuestionCode, string> = {
  height: 'Two values change from place to place. Which one is the height?',
  map: 'More than one height map stands here. Which one counts?',
  columns: 'The columns are counted downward. How do they lie?',
  wrapped: 'Was each row broken into two lines?',
  'last-row': 'The last row holds the mean of each column. Is it a row of the bed?',
  axes: 'The corner names both axes. Which one runs along the columns?',
  unit: 'In which unit are these heights written?',
  places: 'The places lie close together. In which unit are they written?',
  layout: 'Whole numbers in columns. What are they?',
  'first-row': 'There are four numbers above the map. What are they?',
  rows: 'The row labels and what was said of the first row contradict each other. Where does the first row lie?',
};

/** An answer in words; names that stand in the text are said as they stand there. */
export function answerWords(code: QuestionCode, option: string): string {
  switch (code) {
    case 'map':
      return option === 'all' ? 'All of it together' : /^\d+$/.test(option) ? `Map ${option}` : option;
    case 'height':
      return option === 'last' ? 'The number at the end' : `“${option}”`;
    default:
      return OPTION_WORDS[option] ?? option;
  }
}

const OPTION_WORDS: Record<string, string> = {
  'as-printed': 'As they are printed',
  'by-index': 'From the right, by their number',
  no: 'No, as it stands',
  yes: 'Yes, two lines are one row',
  'left-out': 'No, leave it out',
  kept: 'Yes, keep it',
  front: 'At the front',
  rear: 'At the rear',
  points: 'Places and heights: x, y, then the height',
  matrix: 'A map: each row a row of heights',
  'x0 y0 x1 y1': 'The outermost places: left, front, right, rear',
  'x0 x1 y0 y1': 'The outermost places: left, right, front, rear',
  row: 'A row like the others, or the places of the columns',
  mm: 'Millimetres',
  in: 'Inches',
  thou: 'Thousandths of an inch',
  um: 'Micrometres',
  cm: 'Centimetres',
  m: 'Metres',
  'columns-x': 'X along the columns, Y down the rows',
  'rows-x': 'X down the rows, Y along the columns',
};
