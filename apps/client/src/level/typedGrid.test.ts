import { parseHeights } from '@even-bed/core/level/parseHeights';
import { emptyGrid, gridFault, gridText, withMissingMarked } from './typedGrid';

const grid = (cells: string[][]) => ({ ...emptyGrid(3, 230, 200, null), cells });

test('a grid covers the print area, 15 mm inside its edges, and keeps what was typed when its size changes', () => {
  const three = emptyGrid(3, 230, 200, null);
  expect([three.xs, three.ys]).toEqual([
    [15, 115, 215],
    [15, 100, 185],
  ]);
  three.cells[0]![1] = '0,1';
  expect(emptyGrid(4, 230, 200, three).cells[0]).toEqual(['', '0,1', '', '']);
});

test('faults: nothing yet, a word, missing cells by row', () => {
  expect(
    gridFault(
      grid([
        ['', '', ''],
        ['', '', ''],
        ['', '', ''],
      ]),
    )!.kind,
  ).toBe('empty');
  expect(
    gridFault(
      grid([
        ['0', '1', 'two'],
        ['', '', ''],
        ['', '', ''],
      ]),
    )!.message,
  ).toBe('“two” in row 1, place 3, is not a number.');
  expect(
    gridFault(
      grid([
        ['0', '1', '2'],
        ['', '', '1'],
        ['0', '0', ''],
      ]),
    )!.message,
  ).toBe('Readings are missing: 2 in row 2, 1 in row 3. Type them or mark them as not reached.');
});

test('nothing is asked of what was typed here, on a bed of inches’ size too', () => {
  const tiny = {
    ...emptyGrid(2, 60, 60, null),
    cells: [
      ['0', '0.1'],
      ['0.2', '0.1'],
    ],
  };
  expect(parseHeights(gridText(tiny))).toMatchObject({ questions: [], needs: [] });
});

test('decimal commas and unreached places come through as typed', () => {
  const typed = withMissingMarked(
    grid([
      ['0,05', '\u22120,1', '+0,02'],
      ['0', '', '0,1'],
      ['.1', '0', '0'],
    ]),
  );
  expect(gridFault(typed)).toBeNull();
  const parsed = parseHeights(gridText(typed));
  expect(parsed.points).toHaveLength(8);
  expect(parsed.unreached).toBe(1);
  expect(parsed.points.slice(0, 3).map(({ z }) => z)).toEqual([0.05, -0.1, 0.02]);
});
