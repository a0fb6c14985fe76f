/** A sheet of labels; all lengths in mm, from the top left corner of the page. */
export interface LabelSheet {
  id: string;
  name: string;
  page: { width: number; height: number };
  columns: number;
  rows: number;
  label: { width: number; height: number };
  /** Where the first label begins, and how far the next one is to the right and below. */
  left: number;
  top: number;
  across: number;
  down: number;
}

const A4 = { width: 210, height: 297 };
const LETTER = { width: 215.9, height: 279.4 };

/** Sheets that stationers sell, by their measures. Source: common practice; check against the packet before printing. */
export const LABEL_SHEETS: readonly LabelSheet[] = [
  {
    id: 'a4-70x37',
    name: 'A4, 24 of 70 × 37 mm',
    page: A4,
    columns: 3,
    rows: 8,
    label: { width: 70, height: 37 },
    left: 0,
    top: 0.5,
    across: 70,
    down: 37,
  },
  {
    id: 'a4-63x38',
    name: 'A4, 21 of 63.5 × 38.1 mm',
    page: A4,
    columns: 3,
    rows: 7,
    label: { width: 63.5, height: 38.1 },
    left: 7.25,
    top: 15.15,
    across: 66,
    down: 38.1,
  },
  {
    id: 'a4-99x38',
    name: 'A4, 14 of 99.1 × 38.1 mm',
    page: A4,
    columns: 2,
    rows: 7,
    label: { width: 99.1, height: 38.1 },
    left: 4.65,
    top: 15.15,
    across: 101.6,
    down: 38.1,
  },
  {
    id: 'a4-48x25',
    name: 'A4, 44 of 48.5 × 25.4 mm',
    page: A4,
    columns: 4,
    rows: 11,
    label: { width: 48.5, height: 25.4 },
    left: 8,
    top: 8.8,
    across: 48.5,
    down: 25.4,
  },
  {
    id: 'letter-66x25',
    name: 'US letter, 30 of 2 5/8 × 1 in',
    page: LETTER,
    columns: 3,
    rows: 10,
    label: { width: 66.675, height: 25.4 },
    left: 4.7625,
    top: 12.7,
    across: 69.85,
    down: 25.4,
  },
  {
    id: 'roll-62x29',
    name: 'Roll, 62 × 29 mm each',
    page: { width: 62, height: 29 },
    columns: 1,
    rows: 1,
    label: { width: 62, height: 29 },
    left: 0,
    top: 0,
    across: 62,
    down: 29,
  },
];

/** Where a label goes: page from 0, and its top left corner in mm. */
export interface LabelPlace {
  page: number;
  x: number;
  y: number;
}

/**
 * Places for a number of labels, in reading order, on the cells of the first sheet that were chosen and all of the next.
 * @param cells cells of the first sheet to use, counted from 0; left out: all of them
 * @throws RangeError a cell that the sheet doesn't have, or no cell at all
 * @example labelPlaces(LABEL_SHEETS[0]!, 2, [0, 4])[1] // { page: 0, x: 70, y: 37.5 }
 */
export function labelPlaces(sheet: LabelSheet, count: number, cells?: readonly number[]): LabelPlace[] {
  const all = sheet.columns * sheet.rows;
  const first = [...new Set(cells ?? Array.from({ length: all }, (_, i) => i))].sort((p, q) => p - q);
  if (first.length === 0) throw new RangeError('labelPlaces needs at least one cell to print on');
  const strange = first.find((cell) => !Number.isInteger(cell) || cell < 0 || cell >= all);
  if (strange !== undefined) throw new RangeError(`labelPlaces knows cells 0 to ${all - 1}, got ${strange}`);
  return Array.from({ length: count }, (_, i) => {
    const later = i - first.length;
    const cell = later < 0 ? first[i]! : later % all;
    return {
      page: later < 0 ? 0 : 1 + Math.floor(later / all),
      x: sheet.left + (cell % sheet.columns) * sheet.across,
      y: sheet.top + Math.floor(cell / sheet.columns) * sheet.down,
    };
  });
}
