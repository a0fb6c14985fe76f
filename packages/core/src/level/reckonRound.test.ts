import type { ParseOptions } from './heightReading';
import { planTurns, type Adjuster } from './planTurns';
import { planRound, reckonRound } from './reckonRound';

const adjusters: Adjuster[] = [
  { id: 'fl', x: 0, y: 0, pitch: 0.7, clockwise: 'lowers' },
  { id: 'fr', x: 200, y: 0, pitch: 0.7, clockwise: 'lowers' },
  { id: 'r', x: 100, y: 200, pitch: 0.7, clockwise: 'lowers' },
];
const setup = { adjusters, aim: 0.1, printWidth: 220, printDepth: 220 };
const text = (height: (x: number, y: number) => number) =>
  `x,y,z\n${[0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => `${x},${y},${height(x, y).toFixed(4)}`)).join('\n')}`;

test('a reading gives what the parts give, with contours', () => {
  const raw = text((x) => 0.002 * x);
  const { plan, parsed, contours, comparison, doubts } = reckonRound({ now: { raw, reading: {} }, setup });
  expect(plan).toEqual(planTurns({ points: parsed.points, adjusters, aim: 0.1 }));
  expect(contours!.bands.length).toBeGreaterThan(2);
  expect([comparison, doubts]).toEqual([null, []]);
});

test('repeats become the noise that the plan judges by', () => {
  const twice = `${text(() => 0)}\n${text((x, y) => ((x + y) % 200 === 0 ? 0.04 : -0.04))
    .split('\n')
    .slice(1)
    .join('\n')}`;
  const reading = { answers: { map: 'all' } } as const;
  expect(planRound({ raw: twice, reading }, setup).plan!.limit).toBe('noise');
  // Unsaid, the second counts, and that there were two is told.
  expect(planRound({ raw: twice, reading: {} }, setup).parsed.questions).toEqual([
    { code: 'map', options: ['1', '2', 'all'], taken: '2' },
  ]);
});

test('the answer to the turns made: as said, or the other way round', () => {
  const first = { raw: text((x) => 0.002 * x), reading: {} };
  const made = planRound(first, setup).plan!.turns.map(({ id, turns }) => ({ adjusterId: id, turns }));
  const answer = (slope: number) =>
    reckonRound({ now: { raw: text((x) => slope * x), reading: {} }, setup, previous: { ...first, made } }).comparison
      ?.answer ?? null;
  // Within its aim nobody is asked whose fault it was.
  expect(answer(0)).toBeNull();
  expect(answer(0.004)).toBe('reversed');
  expect(answer(0.002)).toBe('unmoved');
});

test('a map without its place has no plan yet', () => {
  const { plan, contours, parsed } = reckonRound({ now: { raw: '0.1 0.2 0.3\n0 0 0\n0.1 0 0', reading: {} }, setup });
  expect([plan, contours, parsed.needs]).toEqual([null, null, ['extent', 'firstRow']]);
});

test('says what is doubtful: an absurd range, readings beside the plate', () => {
  const absurd = (reading: ParseOptions) => reckonRound({ now: { raw: text((x) => 0.1 * x), reading }, setup });
  // A bed in another unit, perhaps: asked, with nothing planned meanwhile. Said to be millimetres it is doubted.
  expect(absurd({})).toMatchObject({
    parsed: { questions: [{ code: 'unit', options: ['um', 'thou', 'mm'], taken: null }] },
    plan: null,
  });
  expect(absurd({ answers: { unit: 'mm' } }).parsed.warnings).toMatchObject([
    { message: expect.stringContaining('20.0 mm') },
  ]);
  const small = { ...setup, printWidth: 100 };
  expect(reckonRound({ now: { raw: text(() => 0.1), reading: {} }, setup: small }).doubts).toEqual([
    expect.stringContaining('3 readings lie outside'),
  ]);
});

test('what can be read in two ways has no plan until it is said, and both ways are worked out', () => {
  const raw = [0, 100, 200]
    .flatMap((y) =>
      [0, 100, 200].map((x) => `X:${x} Y:${y} Z:${(0.001 * x).toFixed(3)} reading:${(0.004 * x).toFixed(3)}`),
    )
    .join('\n');
  const asked = reckonRound({ now: { raw, reading: {} }, setup });
  expect(asked.plan).toBeNull();
  expect(asked.ways!.map(({ option, plan }) => [option, plan!.before.range])).toEqual([
    ['z', 0.2],
    ['reading', 0.8],
  ]);
  const answers = { height: 'reading' };
  const said = reckonRound({ now: { raw, reading: { answers } }, setup });
  expect(said.plan!.before.range).toBe(0.8);
  expect(said.ways).toBeNull();
});
