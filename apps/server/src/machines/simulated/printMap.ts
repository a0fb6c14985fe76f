import type { HeightGrid } from '@even-bed/core';

/**
 * How a console prints a height map. indexed: a matrix with indices, rear row first, time stamps before it ·
 * labelled: a line for each reading with X, Y and Z · positions: a table with positions along both sides, semicolons
 * and decimal commas · bare: a matrix and nothing else, front row first.
 */
export type MapLayout = 'indexed' | 'labelled' | 'positions' | 'bare';

/** A height map as a console prints it, line by line. */
export function printMap({ xs, ys, heights }: HeightGrid, layout: MapLayout): string[] {
  const signed = (z: number) => (Number.isNaN(z) ? 'nan' : `${z < 0 ? '-' : '+'}${Math.abs(z).toFixed(3)}`);
  switch (layout) {
    case 'indexed': {
      const stamp = (i: number) => `[09:14:${String(10 + (i % 50)).padStart(2, '0')}]`;
      const header = `${stamp(0)}     ${xs.map((_, i) => String(i).padStart(7)).join('')}`;
      const rows = heights.map(
        (row, r) => `${String(r).padStart(4)} ${row.map((z) => signed(z).padStart(7)).join('')}`,
      );
      return [
        `${stamp(0)} heights of the bed, mm`,
        header,
        ...rows.reverse().map((row, i) => `${stamp(i + 1)} ${row}`),
      ];
    }
    case 'labelled':
      return ys.flatMap((y, r) =>
        xs.map((x, c) => `bed at X:${x.toFixed(2)} Y:${y.toFixed(2)} Z:${signed(heights[r]![c]!)}`),
      );
    case 'positions': {
      const comma = (value: number, digits: number) => value.toFixed(digits).replace('.', ',');
      return [
        `y\\x;${xs.map((x) => comma(x, 1)).join(';')}`,
        ...ys.map((y, r) => `${comma(y, 1)};${heights[r]!.map((z) => (Number.isNaN(z) ? '' : comma(z, 3))).join(';')}`),
      ];
    }
    case 'bare':
      return heights.map((row) => row.map((z) => signed(z).padStart(8)).join(' '));
  }
}
