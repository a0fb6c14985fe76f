import { DegenerateInput, UnreadableHeights } from './errors';
import type { QuestionCode } from './heightReading';
import type { HeightPoint } from './HeightPoint';
import { parseHeights } from './parseHeights';

/** A bed that differs in every direction, so that no turned, mirrored or scaled reading of it is the same. */
const XS = [10, 65, 120, 175, 230];
const YS = [15, 80, 145, 210];
const z = (x: number, y: number) => Number((0.0011 * x - 0.0007 * y + 0.000004 * x * y - 0.12).toFixed(3));
const BED: HeightPoint[] = YS.flatMap((y) => XS.map((x) => ({ x, y, z: z(x, y) })));
const SMALL = BED.map(({ x, y, z: height }) => ({ x: x / 8, y: y / 8, z: height }));

interface Text {
  what: string;
  text: string;
  bed?: HeightPoint[];
  /** It must be asked about: nothing in it tells. */
  asks?: QuestionCode;
}
const texts: Text[] = [];
const DELIMITERS = { tab: '\t', semicolon: ';', comma: ',', blanks: '   ', bar: ' | ' };

// Maps with both axes named in the corner, either way down.
for (const [name, between] of Object.entries(DELIMITERS))
  for (const corner of ['x\\y', 'X/Y', 'y\\x', 'Y/X', 'y/x']) {
    const down = (rows: readonly number[], columns: readonly number[], at: (r: number, c: number) => number) =>
      [
        [corner, ...columns].join(between),
        ...rows.map((r) => [r, ...columns.map((c) => at(r, c).toFixed(3))].join(between)),
      ].join('\n');
    texts.push({ what: `corner ${corner}, ${name}, y down`, text: down(YS, XS, (y, x) => z(x, y)) });
    if (/^x/i.test(corner))
      texts.push({ what: `corner ${corner}, ${name}, x down`, text: down(XS, YS, (x, y) => z(x, y)), asks: 'axes' });
  }
// Maps with columns that sum up a row.
for (const [name, between] of Object.entries(DELIMITERS))
  for (const sums of [['avg'], ['max'], ['min', 'max'], ['Mean', 'Range']]) {
    const sumOf = (kind: string, row: readonly number[]) =>
      ({
        avg: row.reduce((a, b) => a + b) / row.length,
        mean: row.reduce((a, b) => a + b) / row.length,
        max: Math.max(...row),
        min: Math.min(...row),
        range: Math.max(...row) - Math.min(...row),
      })[kind.toLowerCase()]!;
    texts.push({
      what: `columns ${sums.join()}, ${name}`,
      text: [
        ['y', ...XS, ...sums].join(between),
        ...YS.map((y) => {
          const row = XS.map((x) => z(x, y));
          return [y, ...row.map((v) => v.toFixed(3)), ...sums.map((kind) => sumOf(kind, row).toFixed(3))].join(between);
        }),
      ].join('\n'),
    });
  }
// Places and heights in every unit, said in the heads.
const UNITS = { mm: 1, cm: 10, m: 1000, um: 0.001, µm: 0.001, in: 25.4, inch: 25.4, thou: 0.0254 };
for (const [unit, mm] of Object.entries(UNITS))
  for (const [open, close] of ['[]', '()', '_ '].map((pair) => [...pair])) {
    const ofPlaces = unit === 'um' || unit === 'µm' || unit === 'thou' ? 'mm' : unit;
    const p = UNITS[ofPlaces as keyof typeof UNITS];
    const head = (axis: string, said: string) => `${axis}${open === '_' ? '_' : ` ${open}`}${said}${close!.trim()}`;
    texts.push({
      what: `heads in ${unit} ${open}`,
      text: [
        [head('X', ofPlaces), head('Y', ofPlaces), head('Z', unit)].join(','),
        ...BED.map(({ x, y, z: height }) => [x / p, y / p, height / mm].map((v) => Number(v.toPrecision(9))).join(',')),
      ].join('\n'),
    });
  }
// Heights in mm over places as near as those of a bed in inches.
for (const bed of [SMALL, BED])
  for (const between of [',', ';', '\t']) {
    const list = bed.map(({ x, y, z: height }) => [x, y, height]);
    texts.push({
      what: `heights in mm, ${bed === SMALL ? 'a small bed' : 'a common bed'}`,
      text: [['X', 'Y', 'Z (mm)'].join(between), ...list.map((row) => row.join(between))].join('\n'),
      bed,
      ...(bed === SMALL ? { asks: 'places' as const } : {}),
    });
  }
// Labelled rows that go on in lines without a label.
for (const pieces of [
  [3, 2],
  [2, 2, 1],
  [4, 1],
])
  for (const label of [(i: number) => `Row ${i}: `, (i: number) => `[${i}] : `, (i: number) => `${i} | `]) {
    const text = YS.map((y, i) => {
      const row = XS.map((x) => z(x, y).toFixed(3));
      let at = 0;
      return pieces.map((n, k) => `${k === 0 ? label(i) : '       '}${row.slice(at, (at += n)).join(' ')}`).join('\n');
    }).join('\n');
    texts.push({ what: `continued labels ${pieces.join('+')}`, text });
  }
// Decimal commas with commas between.
for (const gap of [', ', ',  '])
  texts.push({
    what: 'decimal comma, comma between',
    text: YS.map((y) => XS.map((x) => z(x, y).toFixed(3).replace('.', ',')).join(gap)).join('\n'),
  });
// Three readings and their mean.
for (const between of [',', ';', '\t'])
  for (const mean of ['Mean', 'avg', 'Average'])
    texts.push({
      what: `three readings and ${mean}`,
      text: [
        ['X', 'Y', 'Z1', 'Z2', 'Z3', mean].join(between),
        ...BED.map(({ x, y, z: height }) =>
          [x, y, height - 0.002, height + 0.003, height - 0.001, height].map((v) => Number(v.toFixed(3))).join(between),
        ),
      ].join('\n'),
    });
// Escape codes of a terminal round each number.
for (const code of ['\u001b[32m', '\u001b[1;31m'])
  texts.push({
    what: 'escape codes',
    text: YS.map((y) => XS.map((x) => `${code}${z(x, y).toFixed(3)}\u001b[0m`).join('  ')).join('\n'),
  });

// Rows behind stamps of every kind.
const STAMPS: Record<string, (i: number) => string> = {
  'hours and minutes': (i) => `12:0${i} `,
  'seconds since the start, in brackets': (i) => `[${(12.345 + 0.8 * i).toFixed(3)}] `,
  'seconds since the start, padded': (i) => `[  ${(181.2 + 0.8 * i).toFixed(6)}] `,
  'day, month, year and time': (i) => `01.12.2026 12:03:0${i} `,
  'year first': (i) => `2026-12-01 12:03:0${i} `,
  'year first, with T and thousandths': (i) => `2026-12-01T12:03:0${i}.250Z `,
  'AM and PM': (i) => `1:03:0${i} PM `,
  'time with thousandths': (i) => `12:03:0${i}.125 `,
  'time in brackets': (i) => `[12:03:0${i}] `,
};
for (const [name, stamp] of Object.entries(STAMPS)) {
  texts.push({
    what: `rows behind ${name}`,
    text: YS.map((y, i) => `${stamp(i)}${XS.map((x) => z(x, y).toFixed(3)).join(' ')}`).join('\n'),
  });
  texts.push({
    what: `labelled places behind ${name}`,
    text: BED.map(({ x, y, z: height }, i) => `${stamp(i % 10)}X:${x} Y:${y} Z:${height}`).join('\n'),
  });
}

// Heights in whole micrometres, or thousandths of an inch, without a word of it: as a map, and as places with heights.
const FOUR = XS.slice(0, 4);
const inFour = BED.filter(({ x }) => x !== XS[4]);
for (const between of Object.values(DELIMITERS).slice(0, 4)) {
  const um = (height: number) => Math.round(1000 * height);
  texts.push({
    what: 'whole micrometres in four columns',
    text: YS.map((y) => FOUR.map((x) => um(z(x, y))).join(between)).join('\n'),
    bed: inFour,
    asks: 'unit',
  });
  texts.push({
    what: 'whole micrometres in five columns',
    text: YS.map((y) => XS.map((x) => um(z(x, y))).join(between)).join('\n'),
    asks: 'unit',
  });
  texts.push({
    what: 'places and whole micrometres',
    text: ['x,y,z', ...BED.map((p) => [p.x, p.y, um(p.z)].join(','))].join('\n'),
    asks: 'unit',
  });
  texts.push({
    what: 'places and whole micrometres without a head',
    text: BED.map((p) => [p.x, p.y, um(p.z)].join(between)).join('\n'),
    asks: 'layout',
  });
  // A line of the outermost places above the map.
  for (const line of [
    [10, 15, FOUR[3]!, 210],
    [10, FOUR[3]!, 15, 210],
  ])
    texts.push({
      what: `a line of extent above a map of four columns, ${line.join(' ')}`,
      text: [line.join(between), ...YS.map((y) => FOUR.map((x) => z(x, y).toFixed(3)).join(between))].join('\n'),
      bed: inFour,
      asks: 'first-row',
    });
}

const EXTENT = { x0: 10, y0: 15, x1: 230, y1: 210 };
/** What somebody would say of where a map without places lies: one of four columns ends sooner. */
const extentFor = (text: string) => {
  const cells = text
    .split('\n')
    .at(-1)!
    .split(/[^\d.+-]+/)
    .filter(Boolean).length;
  return cells === 4 ? { ...EXTENT, x1: FOUR[3]! } : EXTENT;
};
type Answers = Partial<Record<QuestionCode, string>>;
/** Every way in which what is open can be answered. */
function waysOf(text: string, answers: Answers = {}, depth = 0): { points: HeightPoint[]; asked: QuestionCode[] }[] {
  const read = parseHeights(text, { extent: extentFor(text), firstRow: 'front', answers });
  const open = read.questions.find(({ taken, code }) => taken === null && answers[code] === undefined);
  if (!open || depth > 3) return [{ points: read.points, asked: [] }];
  return open.options.flatMap((option) =>
    waysOf(text, { ...answers, [open.code]: option }, depth + 1).map(({ points, asked }) => ({
      points,
      asked: [open.code, ...asked],
    })),
  );
}
const isBed = (points: readonly HeightPoint[], bed: readonly HeightPoint[]) =>
  points.length === bed.length &&
  bed.every((want) =>
    points.some(
      (p) => Math.abs(p.x - want.x) < 0.01 && Math.abs(p.y - want.y) < 0.01 && Math.abs(p.z - want.z) < 0.0011,
    ),
  );

test(`${texts.length} texts: right at once, or asked with the right answer on offer; none wrong in silence`, () => {
  let atOnce = 0;
  const wrong: string[] = [];
  for (const { what, text, bed = BED, asks } of texts) {
    let ways: ReturnType<typeof waysOf>;
    try {
      ways = waysOf(text);
    } catch (error) {
      if (!(error instanceof UnreadableHeights || error instanceof DegenerateInput)) throw error;
      wrong.push(`${what}: refused, ${(error as Error).message}`);
      continue;
    }
    if (!ways.some(({ points }) => isBed(points, bed))) wrong.push(`${what}: no way is right`);
    else if (ways.length === 1) atOnce++;
    else if (asks && !ways.some(({ asked }) => asked.includes(asks))) wrong.push(`${what}: ${asks} is not asked`);
  }
  expect(wrong).toEqual([]);
  expect(texts.length).toBeGreaterThanOrEqual(120);
  expect(atOnce).toBeGreaterThanOrEqual(100);
});
