import { parseHeights, type HeightGrid } from '@even-bed/core';
import { printMap, type MapLayout } from './printMap';

const grid: HeightGrid = {
  xs: [15, 112.5, 210],
  ys: [15, 112.5, 210],
  heights: [
    [0.1, -0.25, 0],
    [0.003, NaN, 1.2],
    [-0.1, 0.05, 0.2],
  ],
};
const extent = { x0: 15, y0: 15, x1: 210, y1: 210 };

test.each<[MapLayout, object]>([
  ['labelled', {}],
  ['positions', {}],
  ['indexed', { extent, firstRow: 'rear' }],
  ['bare', { extent, firstRow: 'front' }],
])('what a console prints as %s is read back', (layout, options) => {
  const text = printMap(grid, layout).join('\n');
  expect(parseHeights(text, options).grid).toEqual(grid);
  expect(parseHeights(text, options).warnings).toEqual([]);
});

test('no layout prints a minus zero', () => {
  for (const layout of ['labelled', 'indexed', 'bare'] as const)
    expect(printMap(grid, layout).join('\n')).not.toContain('-0.000');
});
