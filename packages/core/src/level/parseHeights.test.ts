import fc from 'fast-check';
import { UnreadableHeights } from './errors';
import { extentOfGrid, LAYOUTS, type Writing } from './heightLayouts.fixture';
import type { HeightGrid } from './HeightPoint';
import { LONGEST_TEXT } from './longestText';
import { parseHeights } from './parseHeights';
import { seededRandom } from './seededMap.fixture';

const MINUS = ['-', '\u2212', '\u2013', '\u2012', '\uFE63', '\uFF0D'];

const gridArbitrary: fc.Arbitrary<HeightGrid> = fc
  .record({
    columns: fc.integer({ min: 3, max: 7 }),
    rows: fc.integer({ min: 3, max: 7 }),
    x0: fc.integer({ min: 1, max: 40 }),
    y0: fc.integer({ min: 1, max: 40 }),
    dx: fc.integer({ min: 11, max: 60 }),
    dy: fc.integer({ min: 11, max: 60 }),
    seed: fc.integer({ min: 1, max: 1e6 }),
    holes: fc.boolean(),
  })
  .map(({ columns, rows, x0, y0, dx, dy, seed, holes }) => {
    const random = seededRandom(seed);
    return {
      xs: Array.from({ length: columns }, (_, i) => x0 + i * dx),
      ys: Array.from({ length: rows }, (_, j) => y0 + j * dy),
      heights: Array.from({ length: rows }, () =>
        Array.from({ length: columns }, () =>
          holes && random() < 0.12 ? NaN : Math.round((random() - 0.5) * 8000) / 10000,
        ),
      ),
    };
  })
  // A map that was hardly reached anywhere is no map.
  .filter(
    ({ heights }) =>
      heights.flat().filter(Number.isFinite).length > 0.6 * heights.flat().length &&
      heights.every((row) => row.some(Number.isFinite)),
  );

const writingArbitrary: fc.Arbitrary<Writing> = fc.record({
  comma: fc.boolean(),
  minus: fc.constantFrom(...MINUS),
  unreached: fc.constantFrom('nan', 'NaN', '-', '.', ''),
});

describe('parseHeights reads back what is written', () => {
  test.each(LAYOUTS.map((layout) => [layout.name, layout] as const))('%s', (_, layout) => {
    fc.assert(
      fc.property(gridArbitrary, writingArbitrary, (grid, raw) => {
        const writing = {
          ...raw,
          comma: raw.comma && !layout.pointOnly,
          unreached: raw.unreached === '' && layout.noEmpty ? 'nan' : raw.unreached,
        };
        const parsed = parseHeights(layout.write(grid, writing), layout.options?.(grid));
        expect(parsed.needs).toEqual([]);
        expect(parsed.grid!.xs.map((x) => Math.round(x * 100) / 100)).toEqual(grid.xs);
        expect(parsed.grid!.ys.map((y) => Math.round(y * 100) / 100)).toEqual(grid.ys);
        expect(parsed.grid!.heights).toEqual(grid.heights.map((row) => row.map((z) => z + 0)));
        expect(parsed.points).toHaveLength(grid.heights.flat().filter(Number.isFinite).length);
      }),
      { numRuns: 60 },
    );
  });

  test('the sign is converted once: lower reads as the negative of higher', () => {
    fc.assert(
      fc.property(gridArbitrary, fc.integer({ min: 0, max: LAYOUTS.length - 1 }), (grid, which) => {
        const layout = LAYOUTS[which]!;
        const text = layout.write(grid, { comma: false, minus: '-', unreached: 'nan' });
        const higher = parseHeights(text, layout.options?.(grid));
        const lower = parseHeights(text, { ...layout.options?.(grid), plus: 'lower' });
        expect(lower.points).toEqual(higher.points.map(({ x, y, z }) => ({ x, y, z: -z + 0 })));
      }),
    );
  });
});

describe('parseHeights asks instead of guessing', () => {
  const bare = '0.1 0.2 0.3\n0.0 0.1 0.2\n-0.1 0.0 0.1';

  test('a bare matrix needs its extent and its first row', () => {
    const parsed = parseHeights(bare);
    expect(parsed).toMatchObject({
      layout: 'matrix',
      points: [],
      grid: null,
      needs: ['extent', 'firstRow'],
      matrix: { rows: 3, columns: 3 },
    });
    const extent = { x0: 10, y0: 20, x1: 210, y1: 220 };
    expect(parseHeights(bare, { extent }).needs).toEqual(['firstRow']);
    expect(parseHeights(bare, { firstRow: 'rear' }).needs).toEqual(['extent']);
    const placed = parseHeights(bare, { extent, firstRow: 'rear' });
    expect(placed.points[0]).toEqual({ x: 10, y: 20, z: -0.1 });
    expect(placed.points[8]).toEqual({ x: 210, y: 220, z: 0.3 });
  });

  test('indices name no place: the map still needs its extent', () => {
    expect(parseHeights('   0    1    2\n0 0.1 0.2 0.3\n1 0.0 0.1 0.2').needs).toEqual(['extent', 'firstRow']);
  });

  test('three columns without a header are read as places only when they can be nothing else, and it is said', () => {
    const places = parseHeights('0 0 0.1\n100 0 0.2\n0 100 0.05\n100 100 0.1');
    expect(places.layout).toBe('points');
    expect(places.warnings[0]!.message).toMatch(/no header/);
    expect(parseHeights(bare, { layout: 'points' }).layout).toBe('points');
  });
});

describe('parseHeights warns by line', () => {
  test('a row that is too short counts as not reached, and the rows behind it keep their place', () => {
    const parsed = parseHeights('0.1 0.2 0.3\n0.4 0.5\n0.7 0.8 0.9', {
      extent: { x0: 0, y0: 0, x1: 20, y1: 20 },
      firstRow: 'front',
    });
    expect(parsed.warnings).toEqual([
      { line: 2, message: expect.stringContaining('holds 2 numbers where the others hold 3') },
    ]);
    expect(parsed.unreached).toBe(3);
    expect(parsed.points.at(-1)).toEqual({ x: 20, y: 20, z: 0.9 });
  });

  const place = { extent: { x0: 0, y0: 0, x1: 20, y1: 20 }, firstRow: 'front' } as const;

  test.each([
    ['in the middle', '  0.10    0.12    0.11\n  0.05            0.07\n -0.02    0.01    0.03\n', [0.05, NaN, 0.07]],
    ['at the end', '  0.10    0.12    0.11\n  0.05    0.07\n -0.02    0.01    0.03\n', [0.05, 0.07, NaN]],
    ['but for the first', '  0.10    0.12    0.11\n  0.05                \n -0.02    0.01    0.03\n', [0.05, NaN, NaN]],
  ])('in columns of fixed width a blank place is known by where the others stand: %s', (_, text, row) => {
    const parsed = parseHeights(text, place);
    expect(parsed.grid!.heights[1]).toEqual(row);
    expect(parsed.warnings).toEqual([{ line: 2, message: expect.stringContaining('Blank places') }]);
  });

  test.each([
    ['cells one space apart', '0.10 0.12 0.11\n0.05      0.07\n0.02 0.01 0.03'],
    ['edges that wander', '  0.10    0.12    0.11\n  0.05            0.07\n -0.02      0.01    0.03'],
    ['a number under no column', '  0.10    0.12    0.11\n      0.05        0.07\n -0.02    0.01    0.03'],
  ])('no place is guessed where that is not plain: %s', (_, text) => {
    const parsed = parseHeights(text, place);
    expect(parsed.grid!.heights[1]).toEqual([NaN, NaN, NaN]);
    expect(parsed.warnings[0]!.message).toContain('holds 2 numbers');
  });

  test('a row of a single number below a row is no silent loss: the rows behind it keep their place', () => {
    const parsed = parseHeights('0.1 0.2 0.3\n0.4\n0.7 0.8 0.9', place);
    expect(parsed.matrix).toEqual({ rows: 3, columns: 3 });
    expect(parsed.warnings).toEqual([{ line: 2, message: expect.stringContaining('holds 1 numbers') }]);
    expect(parsed.points.find(({ z }) => z === 0.7)).toEqual({ x: 0, y: 20, z: 0.7 });
  });

  test('rows of five broken after the fourth are joined; a count under the map is no row of it', () => {
    const broken = parseHeights('0.1 0.2 0.3 0.4\n0.5\n0.2 0.2 0.3 0.4\n0.6\n0.3 0.2 0.3 0.4\n0.7', place);
    expect(broken.grid!.heights.map((row) => row.at(-1))).toEqual([0.5, 0.6, 0.7]);
    const counted = parseHeights('0.1 0.2 0.3\n0.2 0.2 0.3\n0.3 0.2 0.3\n9', place);
    expect(counted.matrix).toEqual({ rows: 3, columns: 3 });
    expect(counted.warnings).toEqual([{ line: 4, message: expect.stringContaining('no row of the map') }]);
  });

  test('lines that grow are no broken rows: none is joined', () => {
    const parsed = parseHeights('0.1 0.2\n0.3 0.4 0.5\n0.1 0.2\n0.3 0.4 0.5\n0.1 0.2\n0.3 0.4 0.5', place);
    expect(parsed.matrix).toEqual({ rows: 6, columns: 3 });
    expect(parsed.warnings.map(({ line }) => line)).toEqual([1, 3, 5]);
    // Three pieces to a row, the last one shorter; two even ones alike are asked about instead.
    const row = '0.1 0.2 0.3\n0.4 0.5 0.6\n0.7\n';
    const joined = parseHeights(row.repeat(3), place);
    expect(joined.matrix).toEqual({ rows: 3, columns: 7 });
    expect(joined.warnings[0]!.message).toContain('broken into 3 lines');
  });

  test.each(['y;z\n0;0,1\n10;0,2\n20;0,3', 'x;z\n0;0,1\n10;0,2\n20;0,3'])(
    'a header that names one axis alone places nothing: %j',
    (text) => expect(parseHeights(text, place).layout).toBe('matrix'),
  );

  test('spaces and signs at the end of a line are no cells', () => {
    const plain = parseHeights('0.1;0.2;0.3\n0.4;0.5;0.6\n0.7;0.8;0.9', place);
    const trailing = parseHeights('0.1;0.2;0.3;   \n  0.4;0.5;0.6; \n0.7;0.8;0.9;', place);
    expect(trailing.grid).toEqual(plain.grid);
    expect(trailing.warnings).toEqual([]);
  });

  test('rows of a JSON map that are shorter are said', () => {
    const short = (rows: number[][]) => parseHeights(JSON.stringify({ map: rows }), place).warnings;
    const full = [0.1, 0.2, 0.3];
    expect(short([full, full, full])).toEqual([]);
    expect(short([full, [0.1, 0.2], full])[0]!.message).toMatch(/^One row is shorter/);
    expect(short([full, [0.1, 0.2], [0.3, 0.4]])[0]!.message).toMatch(/^2 rows are shorter/);
  });

  test('a header that stands apart from its rows belongs to them', () => {
    const text = '0 50 100\n\n0.1 0.2 0.3\n0.4 0.5 0.6\n0.7 0.8 0.9';
    expect(parseHeights(text, { firstRow: 'front', extent: { x0: 0, y0: 0, x1: 100, y1: 100 } }).points).toContainEqual(
      {
        x: 50,
        y: 0,
        z: 0.2,
      },
    );
  });

  test('a radius and an angle are no x and y', () => {
    expect(() => parseHeights('r,theta,z\n0,0,0.1\n50,90,0.2\n50,180,0.15')).toThrow('a radius and an angle');
    expect(parseHeights('x,y,z,angle\n0,0,0.1,5\n100,0,0.2,5\n0,100,0.1,5').points).toHaveLength(3);
  });

  test('a word in a cell is named', () => {
    const parsed = parseHeights('x;y;z\n0;0;0,1\n10;0;oops\n0;10;0,2');
    expect(parsed.points).toHaveLength(2);
    expect(parsed.warnings).toEqual([{ line: 3, message: '“oops” is not a number; the line was left out.' }]);
  });

  test('position reports between labelled readings are left out', () => {
    const parsed = parseHeights(
      'X:0.0 Y:0.0 Z:5.00 E:0.00 Count X:0 Y:0 Z:2000\nBed X:10,0 Y:10,0 Z:−0,043\nBed X:20 Y:10 Z:0.01',
    );
    expect(parsed.points).toEqual([
      { x: 10, y: 10, z: -0.043 },
      { x: 20, y: 10, z: 0.01 },
    ]);
    expect(parsed.warnings[0]).toMatchObject({ line: 1 });
  });

  test('the last of several maps under equal headers is used', () => {
    const map = (z: string) => `   0    1    2\n0 ${z} 0.2 0.3\n1 0.0 0.1 0.2\n2 0.0 0.1 0.2\n`;
    const parsed = parseHeights(map('0.1') + map('0.9'), {
      extent: { x0: 0, y0: 0, x1: 20, y1: 20 },
      firstRow: 'front',
    });
    expect(parsed.points[0]!.z).toBe(0.9);
    expect(parsed.warnings[0]!.message).toMatch(/2 height maps/);
  });
});

describe('parseHeights refuses by name', () => {
  test.each([
    ['', 'no-heights'],
    ['ok\nbusy\n', 'no-heights'],
    ['{"a":1}', 'no-heights'],
    ['nan nan\nnan nan', 'no-heights'],
    ['x,y,z\n1,2,nan', 'no-heights'],
    ['1 2 3', 'no-heights'],
    ['0.1\n0.2\n0.3', 'no-heights'],
    ['x'.repeat(LONGEST_TEXT + 1), 'too-large'],
  ])('%#', (text, code) => {
    expect(() => parseHeights(text)).toThrow(UnreadableHeights);
    try {
      parseHeights(text);
    } catch (error) {
      expect((error as UnreadableHeights).code).toBe(code);
    }
  });

  test('an extent inside out', () => {
    expect(() => parseHeights('1 2\n3 4', { extent: { x0: 10, y0: 0, x1: 0, y1: 10 }, firstRow: 'front' })).toThrow(
      UnreadableHeights,
    );
  });
});

test('10,000 random mutations never throw anything else and never hang', () => {
  const random = seededRandom(20_261_125);
  const pick = (count: number) => Math.floor(random() * count);
  const grid: HeightGrid = {
    xs: [5, 100, 195],
    ys: [5, 100, 195],
    heights: [
      [0.1, -0.2, 0],
      [NaN, 0.3, 1],
      [-0.1, 0.05, 0.2],
    ],
  };
  const seeds = LAYOUTS.map((layout) => layout.write(grid, { comma: false, minus: '-', unreached: 'nan' }));
  const spice = [
    '[',
    ']',
    '{',
    '}',
    '"',
    ':',
    ';',
    ',',
    '.',
    '-',
    '\u2212',
    '\n',
    '\r',
    '\t',
    ' ',
    '|',
    'x',
    'Y:',
    'Z=',
    'nan',
    'e9',
    '1e999',
    '0x1F',
    '\u0000',
    '12:00:00',
    '<',
    '9'.repeat(40),
    '\uD800',
    'é',
  ];
  let slowest = 0;
  for (let i = 0; i < 10_000; i++) {
    let text = seeds[pick(seeds.length)]!;
    for (let changes = 1 + pick(8); changes > 0; changes--) {
      const at = pick(text.length + 1);
      const action = pick(4);
      if (action === 0) text = text.slice(0, at) + text.slice(at + 1 + pick(12));
      else if (action === 1) text = text.slice(0, at) + spice[pick(spice.length)]!.repeat(1 + pick(3)) + text.slice(at);
      else if (action === 2) text = text.slice(0, at) + text.slice(pick(text.length), at + pick(200)) + text.slice(at);
      else text = text.slice(at) + text.slice(0, at);
    }
    const start = performance.now();
    try {
      const { points } = parseHeights(text, pick(2) ? { extent: extentOfGrid(grid), firstRow: 'rear' } : {});
      for (const { x, y, z } of points) {
        if (![x, y, z].every(Number.isFinite)) throw new Error(`point (${x}, ${y}, ${z}) from ${JSON.stringify(text)}`);
      }
    } catch (error) {
      if (!(error instanceof UnreadableHeights)) throw new Error(`${String(error)} for ${JSON.stringify(text)}`);
    }
    slowest = Math.max(slowest, performance.now() - start);
  }
  expect(slowest).toBeLessThan(1000);
});

test.each([
  '1,'.repeat(20_000),
  `${' '.repeat(50_000)}x`,
  '[['.repeat(20_000),
  '1 '.repeat(30_000),
  '-'.repeat(100_000),
  'x:1 '.repeat(20_000),
  '"'.repeat(50_000),
  '9'.repeat(100_000),
])('long hostile text %# ends within a second', (text) => {
  const start = performance.now();
  try {
    parseHeights(`${text}\n${text}`);
  } catch (error) {
    expect(error).toBeInstanceOf(UnreadableHeights);
  }
  expect(performance.now() - start).toBeLessThan(1000);
});
