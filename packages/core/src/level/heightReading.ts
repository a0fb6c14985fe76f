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
}

/** A matrix as read: rows in the order of the text, with the positions the text gave, if it did. */
export interface RawMatrix {
  kind: 'matrix';
  rows: number[][];
  columnPositions: number[] | null;
  rowPositions: number[] | null;
  extent?: Extent | undefined;
  firstRow?: 'front' | 'rear' | undefined;
}

/** Points as read: z is NaN where the place was not reached. */
export interface RawPoints {
  kind: 'points';
  points: HeightPoint[];
}
