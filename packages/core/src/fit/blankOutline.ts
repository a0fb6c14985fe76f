import type { PlacedPiece } from './cutTree';

export type Point = readonly [x: number, y: number];

/** Corners of a piece on the sheet, counter-clockwise from the front-left, its own corners knocked off. mm. */
export function blankOutline({ x, y, width, depth }: PlacedPiece, corners = 0): Point[] {
  const [r, b] = [x + width, y + depth];
  if (!(corners > 0))
    return [
      [x, y],
      [r, y],
      [r, b],
      [x, b],
    ];
  return [
    [x + corners, y],
    [r - corners, y],
    [r, y + corners],
    [r, b - corners],
    [r - corners, b],
    [x + corners, b],
    [x, b - corners],
    [x, y + corners],
  ];
}
