import type { FeelAdjuster } from './feel';
import { proved, trials } from '../simulated/prove.fixture';
import { seededRandom } from './seededMap.fixture';
import {
  LINE_LOOKS,
  SKIRT_SIDES,
  skirtRange,
  skirtTrim,
  TRIM_ROUNDS,
  type LineLook,
  type SkirtAdvice,
  type SkirtMove,
  type SkirtRound,
  type SkirtSide,
} from './skirtTrim';
import { stiffBed } from './stiffBed';

const print = { x: 5, y: 5, width: 210, depth: 210 };
const adjuster = (id: string, x: number, y: number, clockwise: FeelAdjuster['clockwise'] = 'lowers'): FeelAdjuster => ({
  id,
  x,
  y,
  pitch: 0.7,
  clockwise,
});
const FOUR = [
  adjuster('front-left', 20, 20),
  adjuster('front-right', 200, 20),
  adjuster('rear-left', 20, 200),
  adjuster('rear-right', 200, 200),
];
const THREE = [adjuster('front', 110, 15), adjuster('rear-left', 20, 205), adjuster('rear-right', 200, 205)];

const looks = (front: LineLook, right: LineLook, rear: LineLook, left: LineLook) => ({ front, right, rear, left });
const advise = (seen: Record<SkirtSide, LineLook>, adjusters = FOUR): SkirtAdvice =>
  skirtTrim({ adjusters, print, rounds: [{ looks: seen, made: null }] });

test('all touching is done; all gaps is nearer by little; all ridged is farther', () => {
  expect(advise(looks('touching', 'touching', 'touching', 'touching'))).toEqual({ do: 'done' });
  expect(advise(looks('gaps', 'gaps', 'gaps', 'gaps'))).toEqual({ do: 'offset', by: -0.02 });
  expect(advise(looks('ridged', 'ridged', 'ridged', 'ridged'))).toEqual({ do: 'offset', by: 0.05 });
});

test('gaps along the front on three adjusters: the front one, a sixteenth, raises (common practice)', () => {
  expect(advise(looks('gaps', 'touching', 'touching', 'touching'), THREE)).toEqual({
    do: 'turn',
    adjuster: 'front',
    turns: -1 / 16,
    raises: true,
  });
});

test('ridged along the rear on four: one of the rear ones lowers', () => {
  const move = advise(looks('touching', 'touching', 'ridged', 'touching'));
  expect(move).toMatchObject({ do: 'turn', turns: 1 / 16, raises: false });
  expect((move as { adjuster: string }).adjuster).toMatch(/^rear/);
});

test('where it drags the offset goes up first, whatever else is seen', () => {
  expect(advise(looks('dragged', 'gaps', 'gaps', 'gaps'))).toEqual({ do: 'offset', by: 0.05 });
});

test('front and rear apart with the sides ridged is shape: no screw cures it', () => {
  expect(advise(looks('gaps', 'ridged', 'gaps', 'ridged'))).toEqual({ do: 'level', why: 'across' });
});

test('the offset never goes down while a side is ridged; a skirt that drags for ever is sent to level', () => {
  for (const seen of [looks('gaps', 'touching', 'gaps', 'ridged'), looks('gaps', 'gaps', 'gaps', 'ridged')])
    for (const adjusters of [THREE, FOUR, []]) {
      const move = advise(seen, adjusters);
      expect(move.do === 'offset' && move.by < 0).toBe(false);
    }
  const dragged: SkirtRound = {
    looks: looks('dragged', 'dragged', 'dragged', 'dragged'),
    made: { do: 'offset', by: 0.05 },
  };
  expect(skirtTrim({ adjusters: FOUR, print, rounds: Array<SkirtRound>(TRIM_ROUNDS + 1).fill(dragged) })).toEqual({
    do: 'level',
    why: 'rounds',
  });
});

test('without three adjusters there is the offset alone; after too many rounds it is no trim', () => {
  expect(advise(looks('ridged', 'ridged', 'touching', 'touching'), [])).toMatchObject({ do: 'offset', by: 0.03 });
  const round: SkirtRound = { looks: looks('gaps', 'touching', 'touching', 'touching'), made: null };
  const rounds = Array<SkirtRound>(TRIM_ROUNDS + 1).fill(round);
  expect(skirtTrim({ adjusters: FOUR, print, rounds })).toEqual({ do: 'level', why: 'rounds' });
});

test('refuses nothing seen, words that are none and numbers that are none', () => {
  expect(() => skirtTrim({ adjusters: FOUR, print, rounds: [] })).toThrow('needs a skirt');
  expect(() => advise(looks('wavy' as LineLook, 'gaps', 'gaps', 'gaps'))).toThrow('skirtTrim knows looks');
  expect(() =>
    skirtTrim({
      adjusters: FOUR,
      print: { ...print, x: NaN },
      rounds: [{ looks: looks('gaps', 'gaps', 'gaps', 'gaps'), made: null }],
    }),
  ).toThrow('needs numbers');
});

test('a range is what the looks allow', () => {
  expect(skirtRange(looks('touching', 'touching', 'touching', 'touching'))).toEqual({ least: 0, most: 0.05 });
  expect(skirtRange(looks('touching', 'ridged', 'touching', 'touching'))).toEqual({ least: 0, most: 0.1 });
  expect(skirtRange(looks('gaps', 'ridged', 'touching', 'touching'))).toEqual({ least: 0.05, most: null });
});

/** A bed whose gaps nobody knows, trimmed by whoever does what is said. @returns rounds, and how near the nozzle ever came */
function followed(seed: number, adjusters: readonly FeelAdjuster[], slip: number, tilt = 0.1) {
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  // After a level the tilt left is small; the offset may be off more.
  const [a0, b0] = [between(-tilt / 200, tilt / 200), between(-tilt / 200, tilt / 200)];
  let plane = { a: a0, b: b0, c: between(-0.12, 0.08) };
  const places = [
    { x: 110, y: 5 },
    { x: 215, y: 110 },
    { x: 110, y: 215 },
    { x: 5, y: 110 },
  ];
  const gaps = () => places.map(({ x, y }) => plane.c + plane.a * (x - 110) + plane.b * (y - 110));
  const look = (gap: number): LineLook => {
    const right = gap > 0.025 ? 0 : gap > -0.025 ? 1 : gap > -0.075 ? 2 : 3;
    const off = random() < slip ? (random() < 0.5 ? -1 : 1) : 0;
    return LINE_LOOKS[Math.min(3, Math.max(0, right + off))]!;
  };
  const begun = Math.min(...gaps());
  const dragged = gaps().map((gap) => gap < -0.1);
  let nearest = begun;
  let newly = false;
  const rounds: SkirtRound[] = [];
  for (let n = 0; n < 40; n++) {
    const seen = Object.fromEntries(SKIRT_SIDES.map((side, i) => [side, look(gaps()[i]!)])) as Record<
      SkirtSide,
      LineLook
    >;
    rounds.push({ looks: seen, made: null });
    const advice = skirtTrim({ adjusters, print, rounds });
    if (advice.do === 'done' || advice.do === 'level')
      return { end: advice.do, rounds: n + 1, begun, nearest, newly, gaps: gaps() };
    rounds[n] = { looks: seen, made: advice as SkirtMove };
    if (advice.do === 'offset') plane = { ...plane, c: plane.c + advice.by };
    else {
      const rises = adjusters.map(({ id, pitch, clockwise }) =>
        id === advice.adjuster ? advice.turns * pitch * (clockwise === 'raises' ? 1 : -1) : 0,
      );
      const { a, b, c } = stiffBed(adjusters)(rises);
      plane = { a: plane.a - a, b: plane.b - b, c: plane.c - (c + a * 110 + b * 110) };
    }
    nearest = Math.min(nearest, ...gaps());
    newly ||= gaps().some((gap, i) => gap < -0.1 && !dragged[i]);
  }
  return { end: 'never', rounds: 40, begun, nearest, newly, gaps: gaps() };
}

test.each([
  ['three', THREE],
  ['four', FOUR],
  ['four that raise clockwise', FOUR.map((one) => ({ ...one, clockwise: 'raises' as const }))],
])(
  'followed on 1,000 beds with %s: it ends touching, and never brings the nozzle to where it drags',
  (_, adjusters) => {
    const all = Array.from({ length: 1000 }, (__, seed) => followed(seed, adjusters, 0));
    const done = all.filter(({ end }) => end === 'done');
    expect(done.length).toBeGreaterThan(970);
    expect(done.every(({ gaps }) => gaps.every((gap) => Math.abs(gap) <= 0.025))).toBe(true);
    // Nearer than ridged only where it was so when it began.
    expect(all.every(({ begun, nearest }) => nearest >= Math.min(begun, -0.1) - 1e-9)).toBe(true);
    expect(Math.max(...done.map(({ rounds }) => rounds))).toBeLessThanOrEqual(TRIM_ROUNDS + 1);
  },
);

test('an eye that errs once in twenty still gets there, or is sent to level', () => {
  const all = Array.from({ length: 1000 }, (_, seed) => followed(seed, FOUR, 0.05));
  expect(all.filter(({ end }) => end === 'done').length).toBeGreaterThan(930);
  expect(all.filter(({ end }) => end === 'never')).toEqual([]);
  expect(all.every(({ begun, nearest }) => nearest >= Math.min(begun, -0.1) - 1e-9)).toBe(true);
});

test.each([
  ['three', THREE],
  ['four', FOUR],
])('on beds tilted by 0.25 with %s adjusters a side that did not drag hardly ever comes to', (name, adjusters) => {
  const beds = trials(2000, 500);
  for (const [who, slip] of [
    ['a true eye', 0],
    ['an eye that errs once in twenty', 0.05],
  ] as const) {
    const all = Array.from({ length: beds }, (_, seed) => followed(seed, adjusters, slip, 0.25));
    const newly = all.filter((one) => one.newly).length;
    proved(
      'skirt',
      `${name} adjusters, tilted by 0.25, ${who}`,
      `a side newly drags in ${newly} of ${beds}, ${all.filter(({ end }) => end === 'done').length} end touching`,
    );
    expect(newly / beds).toBeLessThanOrEqual(slip === 0 ? 0 : 0.03);
  }
});
