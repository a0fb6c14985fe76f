import type { Extent, HeightGrid } from './HeightPoint';
import type { ParseOptions } from './heightReading';

/** How a number is written: its decimal mark, its minus and what stands for a cell that was not reached. */
export interface Writing {
  comma: boolean;
  minus: string;
  unreached: string;
}

/** Every layout that parseHeights promises to read, as a writer of a grid. */
export interface HeightLayout {
  name: string;
  write: (grid: HeightGrid, writing: Writing) => string;
  /** What the reader has to be told. */
  options?: (grid: HeightGrid) => ParseOptions;
  /** Decimal commas can't be told from the delimiter. */
  pointOnly?: boolean;
  /** Nothing can't stand for unreached. */
  noEmpty?: boolean;
}

export const extentOfGrid = ({ xs, ys }: HeightGrid): Extent => ({
  x0: xs[0]!,
  y0: ys[0]!,
  x1: xs[xs.length - 1]!,
  y1: ys[ys.length - 1]!,
});

function writeNumber(value: number, { comma, minus, unreached }: Writing, digits = 4): string {
  if (Number.isNaN(value)) return unreached;
  const text = Math.abs(value).toFixed(digits);
  return (value < 0 ? minus : '') + (comma ? text.replace('.', ',') : text);
}

const rowsOf = ({ heights }: HeightGrid, writing: Writing) =>
  heights.map((row) => row.map((z) => writeNumber(z, writing)));
const places = ({ xs, ys, heights }: HeightGrid) =>
  ys.flatMap((y, r) => xs.map((x, c) => ({ x, y, z: heights[r]![c]! })));
const matrixOptions = (firstRow: 'front' | 'rear') => (grid: HeightGrid) => ({
  extent: extentOfGrid(grid),
  firstRow,
  layout: 'matrix' as const,
});

const columns = (
  name: string,
  delimiter: string,
  header: string | null,
  order: ('x' | 'y' | 'z')[],
  pointOnly: boolean,
): HeightLayout => ({
  name,
  pointOnly,
  noEmpty: delimiter === ' ',
  ...(header === null ? { options: () => ({ layout: 'points' as const }) } : {}),
  write: (grid, writing) =>
    [
      ...(header === null ? [] : [header]),
      ...places(grid).map((place) => order.map((axis) => writeNumber(place[axis], writing)).join(delimiter)),
    ].join('\n'),
});

const pad = (cell: string) => cell.padStart(9);

export const LAYOUTS: HeightLayout[] = [
  columns('comma columns with header', ',', 'x,y,z', ['x', 'y', 'z'], true),
  columns('semicolon columns, other order and case', ';', 'Z;X;Y', ['z', 'x', 'y'], false),
  columns('tab columns with units in the header', '\t', 'Y (mm)\tX (mm)\tZ (mm)', ['y', 'x', 'z'], false),
  columns('space columns without header', ' ', null, ['x', 'y', 'z'], false),
  columns('comma columns without header', ',', null, ['x', 'y', 'z'], true),
  {
    name: 'bare matrix, front row first, spaces',
    noEmpty: true,
    options: matrixOptions('front'),
    write: (grid, writing) =>
      rowsOf(grid, writing)
        .map((row) => row.map(pad).join(' '))
        .join('\n'),
  },
  {
    name: 'bare matrix, rear row first, tabs, Windows line ends',
    options: matrixOptions('rear'),
    write: (grid, writing) =>
      rowsOf(grid, writing)
        .reverse()
        .map((row) => row.join('\t'))
        .join('\r\n'),
  },
  {
    name: 'matrix with commas and brackets',
    pointOnly: true,
    noEmpty: true,
    options: matrixOptions('front'),
    write: (grid, writing) =>
      `[${rowsOf(grid, writing)
        .map((row) => `[${row.join(', ')}]`)
        .join(',\n ')}]`,
  },
  {
    name: 'matrix with bars',
    options: matrixOptions('front'),
    write: (grid, writing) =>
      rowsOf(grid, writing)
        .map((row) => `| ${row.join(' | ')} |`)
        .join('\n'),
  },
  {
    name: 'matrix with column and row indices, time stamps, words around it',
    noEmpty: true,
    options: matrixOptions('rear'),
    write: (grid, writing) =>
      [
        '14:02:11 heights of the bed:',
        `14:02:11       ${grid.xs.map((_, i) => pad(String(i))).join(' ')}`,
        ...rowsOf(grid, writing)
          .map((row, r) => `14:02:1${r % 10} ${r} ${row.map(pad).join(' ')}`)
          .reverse(),
        '14:02:19 ok',
      ].join('\n'),
  },
  {
    name: 'matrix with row indices before a colon and a prefix',
    noEmpty: true,
    options: matrixOptions('front'),
    write: (grid, writing) =>
      rowsOf(grid, writing)
        .map((row, r) => `> ${r}: ${row.join('  ')}`)
        .join('\n'),
  },
  {
    name: 'matrix with positions along both sides, semicolons',
    write: (grid, writing) =>
      [
        `y\\x;${grid.xs.map((x) => writeNumber(x, writing)).join(';')}`,
        ...rowsOf(grid, writing)
          .map((row, r) => `${writeNumber(grid.ys[r]!, writing)};${row.join(';')}`)
          .reverse(),
      ].join('\n'),
  },
  {
    name: 'labelled lines',
    noEmpty: true,
    write: (grid, writing) =>
      places(grid)
        .map(
          ({ x, y, z }, i) =>
            `${i} X:${writeNumber(x, writing, 2)} Y:${writeNumber(y, writing, 2)} Z:${writeNumber(z, writing)}`,
        )
        .join('\n'),
  },
  {
    name: 'labelled lines with equals signs, chatter between',
    noEmpty: true,
    write: (grid, writing) =>
      places(grid)
        .map(
          ({ x, y, z }) =>
            `probe at bed x=${writeNumber(x, writing)} y=${writeNumber(y, writing)} is z=${writeNumber(z, writing)}\nok`,
        )
        .join('\n'),
  },
  {
    name: 'places without labels before a labelled height',
    pointOnly: true,
    noEmpty: true,
    write: (grid, writing) =>
      places(grid)
        .map(
          ({ x, y, z }) =>
            `probe at ${x.toFixed(3)},${y.toFixed(3)} is z=${Number.isNaN(z) ? 'nan' : writeNumber(z, writing, 6)}`,
        )
        .join('\n'),
  },
  {
    name: 'JSON matrix with its corners',
    pointOnly: true,
    options: () => ({ firstRow: 'front', layout: 'matrix' }),
    write: (grid) => {
      const { x0, y0, x1, y1 } = extentOfGrid(grid);
      return JSON.stringify({ map_min: [x0, y0], map_max: [x1, y1], rows: grid.heights });
    },
  },
  {
    name: 'JSON points',
    pointOnly: true,
    write: (grid) => JSON.stringify({ points: places(grid).map(({ x, y, z }) => ({ X: x, Y: y, Z: z })) }),
  },
  {
    name: 'JSON matrix with its extent',
    pointOnly: true,
    options: () => ({ firstRow: 'front', layout: 'matrix' }),
    write: (grid) => {
      const { x0, y0, x1, y1 } = extentOfGrid(grid);
      return JSON.stringify({ scan: { x_min: x0, x_max: x1, y_min: y0, y_max: y1, heights: grid.heights } });
    },
  },
];
