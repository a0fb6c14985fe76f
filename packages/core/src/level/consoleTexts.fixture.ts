import type { Extent } from './HeightPoint';
import type { ParseOptions } from './heightReading';

/**
 * Texts as consoles, files and keyboards give them, written for this test, each with what is true of it. The bed is
 * tilted and a little bent, so that a row, a column or a sign taken wrongly shows.
 */
export interface ConsoleText {
  name: string;
  text: string;
  /** What the person has said of the machine. */
  options: ParseOptions;
  /** The heights as they were, "x y" → z. */
  truth: Record<string, number>;
}

const XS = [10, 110, 210];
const YS = [20, 120, 220];
const EXTENT: Extent = { x0: 10, y0: 20, x1: 210, y1: 220 };
const Z = [
  [-0.213, -0.041, 0.172],
  [-0.164, 0.023, 0.216],
  [-0.094, 0.087, 0.311],
];
const TRUTH = truthOf(XS, YS, Z);
const FRONT: ParseOptions = { extent: EXTENT, firstRow: 'front' };
const REAR: ParseOptions = { extent: EXTENT, firstRow: 'rear' };

function truthOf(xs: number[], ys: number[], z: number[][]): Record<string, number> {
  return Object.fromEntries(ys.flatMap((y, r) => xs.map((x, c) => [`${x} ${y}`, z[r]![c]!])));
}
const places = YS.flatMap((y, r) => XS.map((x, c) => ({ x, y, z: Z[r]![c]!, r, c })));
type Place = (typeof places)[number];
const f = (z: number, digits = 3) => z.toFixed(digits);
const comma = (z: number, digits = 3) => f(z, digits).replace('.', ',');
const lines = (line: (place: Place, i: number) => string) => places.map(line).join('\n');
const rows = (row: (cells: string[], r: number) => string, digits = 3) =>
  Z.map((cells, r) =>
    row(
      cells.map((z) => f(z, digits)),
      r,
    ),
  ).join('\n');
const rear = (text: string) => text.split('\n').reverse().join('\n');
/** A second map, another bed. */
const OTHER = Z.map((row) => row.map((z, c) => Number((-z + 0.05 * c).toFixed(3))));
const otherLines = (line: (place: Place, i: number) => string) =>
  places.map((place, i) => line({ ...place, z: OTHER[place.r]![place.c]! }, i)).join('\n');
const otherRows = (row: (cells: string[], r: number) => string) =>
  OTHER.map((cells, r) =>
    row(
      cells.map((z) => f(z)),
      r,
    ),
  ).join('\n');

const text = (name: string, written: string, options: ParseOptions = {}, truth = TRUTH): ConsoleText => ({
  name,
  text: written,
  options,
  truth,
});

const COLUMNS: ConsoleText[] = [
  ...([',', ';', '\t', ' ', ' | '] as const).flatMap((d) => [
    text(`columns parted by "${d}"`, `x${d}y${d}z\n${lines(({ x, y, z }) => [x, y, f(z)].join(d))}`),
    text(`columns parted by "${d}", capitals, z first`, `Z${d}X${d}Y\n${lines(({ x, y, z }) => [f(z), x, y].join(d))}`),
    text(
      `columns parted by "${d}", running number`,
      `n${d}X${d}Y${d}Z\n${lines(({ x, y, z }, i) => [i, x, y, f(z)].join(d))}`,
    ),
    text(
      `columns parted by "${d}", no header`,
      lines(({ x, y, z }) => [x, y, f(z)].join(d)),
    ),
    text(
      `columns parted by "${d}", delimiter behind each row`,
      `x${d}y${d}z${d.trim() || d}\n${lines(({ x, y, z }) => [x, y, f(z)].join(d) + (d.trim() || d))}`,
    ),
  ]),
  text('columns with decimal commas', `x;y;z\n${lines(({ x, y, z }) => `${comma(x, 1)};${comma(y, 1)};${comma(z)}`)}`),
  text('units in the header', `X [mm],Y [mm],Height [mm]\n${lines(({ x, y, z }) => `${x},${y},${f(z)}`)}`),
  text('quotes around every cell', `"x","y","z"\n${lines(({ x, y, z }) => `"${x}","${y}","${f(z)}"`)}`),
  text(
    'quoted decimal commas',
    `"x","y","z"\n${lines(({ x, y, z }) => `"${comma(x, 1)}","${comma(y, 1)}","${comma(z)}"`)}`,
  ),
  text(
    'commanded z beside the reading, named',
    `Point,X,Y,Z,Reading\n${lines(({ x, y, z }, i) => `${i + 1},${x},${y},5.00,${f(z)}`)}`,
  ),
  text('commanded z beside the result', `X;Y;Z;Result\n${lines(({ x, y, z }) => `${x};${y};2;${f(z)}`)}`),
  text(
    'commanded z without a header',
    lines(({ x, y, z }) => `${x} ${y} 5.00 ${f(z)}`),
  ),
  text(
    'two columns that both change',
    `x,y,z,reading\n${lines(({ x, y, z, c }) => `${x},${y},${f(0.01 * c)},${f(z)}`)}`,
  ),
  text('a note behind the height', `x,y,z,note\n${lines(({ x, y, z }) => `${x},${y},${f(z)},ok`)}`),
  text('typographic minus', `x y z\n${lines(({ x, y, z }) => `${x} ${y} ${f(z).replace('-', '\u2212')}`)}`),
  text(
    'Windows line ends and a mark in front',
    `\uFEFFx,y,z\r\n${lines(({ x, y, z }) => `${x},${y},${f(z)}`).replace(/\n/g, '\r\n')}`,
  ),
  text(
    'two runs in one table',
    `x,y,z\n${otherLines(({ x, y, z }) => `${x},${y},${f(z)}`)}\n${lines(({ x, y, z }) => `${x},${y},${f(z)}`)}`,
  ),
  text(
    'one place with a word for a height',
    `x,y,z\n${lines(({ x, y, z }, i) => `${x},${y},${i === 4 ? 'fail' : f(z)}`)}`,
    {},
    without('110 120'),
  ),
  text(
    'each place read twice at once',
    `x,y,z\n${lines(({ x, y, z }) => `${x},${y},${f(z - 0.002)}\n${x},${y},${f(z + 0.002)}`)}`,
  ),
];

function without(...keys: string[]): Record<string, number> {
  return Object.fromEntries(Object.entries(TRUTH).filter(([key]) => !keys.includes(key)));
}

const LABELLED: ConsoleText[] = [
  text(
    'labels with colons',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}`),
  ),
  text(
    'labels with equals signs',
    lines(({ x, y, z }) => `x=${x} y=${y} z=${f(z)}`),
  ),
  text(
    'labels with spaces',
    lines(({ x, y, z }) => `X : ${x}  Y : ${y}  Z : ${f(z)}`),
  ),
  text(
    'words before the labels',
    lines(({ x, y, z }) => `Bed X:${x}.00 Y:${y}.00 Z:${f(z)}`),
  ),
  text(
    'a height behind a colon',
    lines(({ x, y, z }) => `at x=${x} y=${y}: ${f(z)}`),
  ),
  text(
    'places without labels',
    lines(({ x, y, z }) => `probe at ${x}.0,${y}.0 is z=${f(z)}`),
  ),
  text(
    'a running number in front',
    lines(({ x, y, z }, i) => `${i}: X=${x} Y=${y} Z=${f(z)}`),
  ),
  text(
    'commanded Z and a result',
    lines(({ x, y, z }) => `Probe X:${x} Y:${y} Z:5.00 result: ${f(z)}`),
  ),
  text(
    'commanded Z and a result with a minus sign',
    lines(({ x, y, z }) => `Probe X:${x} Y:${y} Z:5.00 result: ${f(z).replace('-', '\u2212')}`),
  ),
  text(
    'a result with its scatter',
    lines(({ x, y, z }) => `X:${x} Y:${y} result: ${f(z)} (dev 0.004)`),
  ),
  text(
    'a result with a labelled scatter',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)} dev:0.00${(x + y) % 7}`),
  ),
  text(
    'commanded Z and a bare reading',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:5.00 ${f(z)}`),
  ),
  text(
    'commanded Z and a triggered height',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:10 triggered: ${f(z)} mm`),
  ),
  text(
    'two heights that both change',
    lines(({ x, y, z, r }) => `X:${x} Y:${y} Z:${f(0.02 * r)} reading:${f(z)}`),
  ),
  text(
    'position reports between',
    lines(({ x, y, z }) => `X:${x}.00 Y:${y}.00 Z:5.00 E:0.00 Count X:800 Y:1600 Z:2000\nBed X:${x} Y:${y} Z:${f(z)}`),
  ),
  text(
    'temperatures between',
    lines(({ x, y, z }) => `T:210.0 /210.0 B:60.0 /60.0\nX:${x} Y:${y} Z:${f(z)}`),
  ),
  text(
    'temperature on the same line',
    lines(({ x, y, z }, i) => `X:${x} Y:${y} Z:${f(z)} T:${21 + i}.4`),
  ),
  text(
    'answers of ok between',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}\nok`),
  ),
  text(
    'commas behind the numbers',
    lines(({ x, y, z }) => `X: ${x}, Y: ${y}, Z: ${f(z)}`),
  ),
  text(
    'labels in brackets',
    lines(({ x, y, z }) => `[X=${x}, Y=${y}, Z=${f(z)}]`),
  ),
  text(
    'decimal commas',
    lines(({ x, y, z }) => `X:${comma(x, 1)} Y:${comma(y, 1)} Z:${comma(z)}`),
  ),
  text(
    'heights called h',
    lines(({ x, y, z }) => `x=${x} y=${y} h=${f(z)}`),
  ),
  text(
    'heights called height',
    lines(({ x, y, z }) => `x: ${x} y: ${y} height: ${f(z)} mm`),
  ),
  text(
    'samples counted',
    lines(({ x, y, z }) => `X:${x} Y:${y} samples:3 Z:${f(z)}`),
  ),
  text(
    'two runs one after the other',
    `${otherLines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}`)}\n${lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}`)}`,
  ),
  text(
    'two runs with words between',
    `run 1\n${otherLines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}`)}\nrun 2\n${lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(z)}`)}`,
  ),
  text(
    'one place not reached',
    lines(({ x, y, z }, i) => `X:${x} Y:${y} Z:${i === 4 ? 'nan' : f(z)}`),
    {},
    without('110 120'),
  ),
  text(
    'only a commanded height',
    lines(({ x, y }) => `X:${x} Y:${y} Z:5.00`),
  ),
  text(
    '+ means lower',
    lines(({ x, y, z }) => `X:${x} Y:${y} Z:${f(-z)}`),
    { plus: 'lower' },
  ),
];

const STAMPS: ConsoleText[] = (
  [
    ['clock', '14:02:11 '],
    ['clock with thousandths', '14:02:11.384 '],
    ['clock in brackets', '[14:02:11] '],
    ['clock with AM', '2:02:11 AM '],
    ['clock with pm', '02:02:11 pm: '],
    ['day and clock', '2026-03-14 14:02:11 '],
    ['day and clock with a T and a zone', '2026-03-14T14:02:11Z '],
    ['seconds since 1970', '1773496931 '],
    ['seconds since 1970 with parts', '1773496931.284: '],
    ['milliseconds since 1970', '[1773496931284] '],
    ['two strokes', '// '],
    ['an arrow', '> '],
    ['a double arrow', '>> '],
    ['colours', '\u001b[32m'],
  ] as const
).flatMap(([name, stamp]) => [
  text(
    `${name} before labelled lines`,
    lines(({ x, y, z }) => `${stamp}X:${x} Y:${y} Z:${f(z)}`),
  ),
  text(
    `${name} before a map`,
    rows((cells) => `${stamp}${cells.join('  ')}`),
    FRONT,
  ),
]);

const MAPS: ConsoleText[] = [
  text(
    'a bare map',
    rows((cells) => cells.join(' ')),
    FRONT,
  ),
  text('a bare map, rear first', rear(rows((cells) => cells.join(' '))), REAR),
  text(
    'in columns of fixed width',
    rows((cells) => cells.map((cell) => cell.padStart(9)).join('')),
    FRONT,
  ),
  text(
    'with tabs',
    rows((cells) => cells.join('\t')),
    FRONT,
  ),
  text(
    'with semicolons and decimal commas',
    rows((cells) => cells.map((cell) => cell.replace('.', ',')).join(';')),
    FRONT,
  ),
  text(
    'with commas',
    rows((cells) => cells.join(', ')),
    FRONT,
  ),
  text(
    'a comma behind each row',
    rows((cells) => `${cells.join(',')},`),
    FRONT,
  ),
  text(
    'a comma before each row',
    rows((cells) => `,${cells.join(',')}`),
    FRONT,
  ),
  text(
    'a tab behind each row',
    rows((cells) => `${cells.join('\t')}\t`),
    FRONT,
  ),
  text(
    'a semicolon behind each row',
    rows((cells) => `${cells.join(';')};`),
    FRONT,
  ),
  text(
    'with bars',
    rows((cells) => `| ${cells.join(' | ')} |`),
    FRONT,
  ),
  text('in brackets', `[${rows((cells) => `[${cells.join(', ')}]`).replace(/\n/g, ',\n')}]`, FRONT),
  text('with indices from 0', `      0      1      2\n${rows((cells, r) => `${r} ${cells.join(' ')}`)}`, FRONT),
  text('with indices from 1', `      1      2      3\n${rows((cells, r) => `${r + 1} ${cells.join(' ')}`)}`, FRONT),
  text('with indices from −1', `     -1      0      1\n${rows((cells, r) => `${r - 1} ${cells.join(' ')}`)}`, FRONT),
  text(
    'row indices from −1 alone',
    rows((cells, r) => `${r - 1} ${cells.join(' ')}`),
    FRONT,
  ),
  text(
    'row indices before a colon',
    rows((cells, r) => `${r}: ${cells.join(' ')}`),
    FRONT,
  ),
  text('row indices counted down, rear first', rear(rows((cells, r) => `${r}: ${cells.join(' ')}`)), REAR),
  text(
    'column indices counted down',
    `      2      1      0\n${rows((cells, r) => `${r} ${[...cells].reverse().join(' ')}`)}`,
    FRONT,
  ),
  text(
    'row indices that contradict what was said',
    rows((cells, r) => `${r}: ${cells.join(' ')}`),
    REAR,
  ),
  text('positions along both sides', `y/x;${XS.join(';')}\n${rows((cells, r) => `${YS[r]};${cells.join(';')}`)}`),
  text(
    'positions along both sides, said the other way',
    `y/x;${XS.join(';')}\n${rows((cells, r) => `${YS[r]};${cells.join(';')}`)}`,
    { firstRow: 'rear' },
  ),
  text(
    'row positions alone',
    rows((cells, r) => `${YS[r]}: ${cells.join(' ')}`),
    { extent: EXTENT },
  ),
  text(
    'row positions that contradict what was said',
    rows((cells, r) => `${YS[r]}: ${cells.join(' ')}`),
    REAR,
  ),
  text('words before and after', `Heights of the bed\n${rows((cells) => cells.join('  '))}\nok`, FRONT),
  text(
    'a prefix on each row',
    rows((cells) => `recv: ${cells.join('  ')}`),
    FRONT,
  ),
  text(
    'plus signs',
    rows((cells) => cells.map((cell) => (cell.startsWith('-') ? cell : `+${cell}`)).join(' ')),
    FRONT,
  ),
  text(
    'two maps with a blank line between',
    `${otherRows((cells) => cells.join(' '))}\n\n${rows((cells) => cells.join(' '))}`,
    FRONT,
  ),
  text(
    'two maps with words between',
    `before\n${otherRows((cells) => cells.join(' '))}\nafter\n${rows((cells) => cells.join(' '))}`,
    FRONT,
  ),
  text(
    'two maps under equal headers',
    `0 1 2\n${otherRows((cells, r) => `${r} ${cells.join(' ')}`)}\n0 1 2\n${rows((cells, r) => `${r} ${cells.join(' ')}`)}`,
    FRONT,
  ),
  text(
    'two maps with row indices',
    `${otherRows((cells, r) => `${r} ${cells.join(' ')}`)}\n${rows((cells, r) => `${r} ${cells.join(' ')}`)}`,
    FRONT,
  ),
  text(
    'a map printed twice without a break',
    `${rows((cells) => cells.join(' '))}\n${rows((cells) => cells.join(' '))}`,
    FRONT,
  ),
  text(
    'a line of means below',
    `${rows((cells) => cells.join(' '))}\n${[0, 1, 2].map((c) => f((Z[0]![c]! + Z[1]![c]! + Z[2]![c]!) / 3)).join(' ')}`,
    FRONT,
  ),
  text(
    'a named line of means below',
    `${rows((cells) => cells.join(' '))}\nmean: ${[0, 1, 2].map((c) => f((Z[0]![c]! + Z[1]![c]! + Z[2]![c]!) / 3)).join(' ')}`,
    FRONT,
  ),
  text(
    'a blank cell in the first row',
    rows((cells, r) => cells.map((cell, c) => (r === 0 && c === 1 ? '' : cell).padStart(9)).join('')),
    FRONT,
    without('110 20'),
  ),
  text(
    'a blank cell in the last row',
    rows((cells, r) => cells.map((cell, c) => (r === 2 && c === 2 ? '' : cell).padStart(9)).join('')),
    FRONT,
    without('210 220'),
  ),
  text(
    'cells coloured one by one',
    rows((cells) => cells.map((cell) => `\u001b[3${cell.startsWith('-') ? 1 : 2}m${cell}\u001b[0m`).join(' ')),
    FRONT,
  ),
  text(
    'an unreached cell as dots',
    rows((cells, r) => cells.map((cell, c) => (r === 1 && c === 1 ? '.' : cell)).join(' ')),
    FRONT,
    without('110 120'),
  ),
  ...wrapped(),
];

/** A map of ten columns and ten rows that a narrow console broke, and one of four that it broke unevenly. */
function wrapped(): ConsoleText[] {
  const n = 10;
  const xs = Array.from({ length: n }, (_, i) => 10 + 20 * i);
  const z = xs.map((_, r) => xs.map((__, c) => Number((0.03 * c - 0.02 * r + 0.002 * ((c * r) % 5)).toFixed(3))));
  const options: ParseOptions = { extent: { x0: 10, y0: 10, x1: 190, y1: 190 }, firstRow: 'front' };
  const truth = truthOf(xs, xs, z);
  const broken = (at: number) =>
    z
      .map(
        (row) =>
          `${row
            .slice(0, at)
            .map((v) => f(v))
            .join(' ')}\n  ${row
            .slice(at)
            .map((v) => f(v))
            .join(' ')}`,
      )
      .join('\n');
  return [
    text('ten columns broken into five and five', broken(5), options, truth),
    text('ten columns broken into seven and three', broken(7), options, truth),
  ];
}

const JSONS: ConsoleText[] = [
  text('JSON points', JSON.stringify({ points: places.map(({ x, y, z }) => ({ x, y, z })) })),
  text('JSON triples', JSON.stringify({ probed: places.map(({ x, y, z }) => [x, y, z]) })),
  text('JSON matrix with its extent', JSON.stringify({ x_min: 10, x_max: 210, y_min: 20, y_max: 220, heights: Z }), {
    firstRow: 'front',
  }),
  text('JSON matrix with its corners', JSON.stringify({ map_min: [10, 20], map_max: [210, 220], rows: Z }), {
    firstRow: 'front',
  }),
  text('JSON matrix without a place', JSON.stringify(Z), FRONT),
  text('JSON with an interpolation first', JSON.stringify({ interpolated: finer(), probed: Z }), FRONT),
  text('JSON with an interpolation last', JSON.stringify({ probed: Z, mesh_matrix: finer() }), FRONT),
  text('JSON with two profiles', JSON.stringify({ profiles: { spring: { rows: OTHER }, autumn: { rows: Z } } }), FRONT),
  text(
    'JSON with the same map as matrix and as points',
    JSON.stringify({ rows: Z, points: places.map(({ x, y, z }) => ({ x, y, z })) }),
    FRONT,
  ),
  text('JSON with NaN', JSON.stringify(Z).replace('0.023', 'NaN'), FRONT, without('110 120')),
  text('JSON with text for numbers', JSON.stringify(Z.map((row) => row.map((v) => String(v)))), FRONT),
];

function finer(): number[][] {
  return Array.from({ length: 5 }, (_, r) =>
    Array.from({ length: 5 }, (__, c) => Number((0.1 * r - 0.05 * c).toFixed(3))),
  );
}

const inches = (mm: number) => String(mm / 25.4);
const thou = (mm: number) => String(mm / 0.0254);
const micro = (mm: number) => String(Math.round(1000 * mm));
const UNITS: ConsoleText[] = [
  text('inches in every head', `x(in),y(in),z(in)\n${lines(({ x, y, z }) => [x, y, z].map(inches).join(','))}`),
  text(
    'inches in the head of the height alone, places in mm',
    `x;y;z [inch]\n${lines(({ x, y, z }) => `${x};${y};${inches(z)}`)}`,
  ),
  text('micrometres in the head', `x_mm,y_mm,z_um\n${lines(({ x, y, z }) => `${x},${y},${micro(z)}`)}`),
  text(
    'micrometres with their sign',
    `x (mm) y (mm) z (µm)\n${lines(({ x, y, z }) => `${x} ${y} ${micro(z)}`)}`.replaceAll(' (', '('),
    {},
  ),
  text(
    'labelled in inches',
    lines(({ x, y, z }) => `X:${inches(x)}in Y:${inches(y)}in Z:${inches(z)}in`),
  ),
  text(
    'labelled, micrometres behind the result',
    lines(({ x, y, z }) => `X:${x} Y:${y} result: ${micro(z)} um`),
  ),
  text('a matrix of thousandths', Z.map((row) => row.map((z) => `${thou(z)} thou`).join(', ')).join('\n'), FRONT),
  text(
    'a matrix with the sign of inches',
    Z.map((row) => row.map((z) => `${f(z / 25.4, 4)}"`).join(' ')).join('\n'),
    FRONT,
    inchesTo(4),
  ),
  text(
    'a matrix of micrometres that could be positions',
    Z.map((row) => row.map((z) => `${micro(z)}um`).join(' ')).join('\n'),
    FRONT,
  ),
  text('inches said above', `all values in inches\nx,y,z\n${lines(({ x, y, z }) => [x, y, z].map(inches).join(','))}`),
  text('a unit said above a matrix', `units: inch\n${Z.map((row) => row.map(inches).join(' ')).join('\n')}`, FRONT),
  text(
    'places as near as those in inches, unsaid',
    `x y z\n${lines(({ x, y, z }) => [x, y, z].map(inches).join(' '))}`,
  ),
  text(
    'JSON in micrometres',
    JSON.stringify({ points: places.map(({ x, y, z }) => ({ x, y, z_um: Number(micro(z)) })) }),
  ),
  text(
    'JSON that names its unit',
    JSON.stringify({ unit: 'in', points: places.map(({ x, y, z }) => ({ x: x / 25.4, y: y / 25.4, z: z / 25.4 })) }),
  ),
  text('a gap, larger where the bed is lower', `x,y,gap\n${lines(({ x, y, z }) => `${x},${y},${f(0.5 - z)}`)}`),
  text(
    'words that hold a unit by chance',
    `Bed level (in progress), 5 in all, 3in1\n${lines(({ x, y, z }) => `${x} ${y} ${f(z)}`)}`,
  ),
  text('a gap, and it was said', `x,y,gap\n${lines(({ x, y, z }) => `${x},${y},${f(-z)}`)}`, { plus: 'lower' }),
];

/** Heights as they read back that were written in inches with so many decimals. */
function inchesTo(digits: number): Record<string, number> {
  return truthOf(
    XS,
    YS,
    Z.map((row) => row.map((z) => 25.4 * Number((z / 25.4).toFixed(digits)))),
  );
}

export const CONSOLE_TEXTS: readonly ConsoleText[] = [...COLUMNS, ...LABELLED, ...STAMPS, ...MAPS, ...JSONS, ...UNITS];
