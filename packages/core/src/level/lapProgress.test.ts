import { normalFrom } from './bedShapes.fixture';
import { grainOf, GRITS } from './grits';
import { LAP_PLACES, lapProgress, ROUND_STROKES, type LapPlace, type LapRound } from './lapProgress';
import { seededRandom } from './seededMap.fixture';

const SIDE = 21;
/** A platform as heights on a grid, mm: dome, dish, twist or wedge, each with waves. */
function platform(random: () => number): Float64Array {
  const [a, b, c] = Array.from({ length: 3 }, () => 0.16 * (random() - 0.5)) as [number, number, number, number];
  const [phase, wave] = [6 * random(), 0.01 * random()];
  return Float64Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [u, v] = [(2 * (i % SIDE)) / (SIDE - 1) - 1, (2 * Math.floor(i / SIDE)) / (SIDE - 1) - 1];
    return a * u * u + b * v * v + c * u * v + wave * Math.sin(5 * u + 4 * v + phase);
  });
}

/** A round on a flat reference takes a volume off what stands highest: the platform tilts as it likes, here it does not. */
function lap(heights: Float64Array, volume: number): void {
  const sorted = [...heights].sort((p, q) => q - p);
  let [level, left] = [sorted[0]!, volume];
  for (let k = 1; k <= sorted.length; k++) {
    const next = sorted[k] ?? -Infinity;
    const step = (level - next) * k;
    if (step >= left) {
      level -= left / k;
      break;
    }
    left -= step;
    level = next;
  }
  for (let i = 0; i < heights.length; i++) heights[i] = Math.min(heights[i]!, level);
}
/** Hands that rock take the edges down. */
function rock(heights: Float64Array, by: number): void {
  for (let i = 0; i < heights.length; i++) {
    const [u, v] = [(2 * (i % SIDE)) / (SIDE - 1) - 1, (2 * Math.floor(i / SIDE)) / (SIDE - 1) - 1];
    heights[i]! -= by * ((u * u + v * v) / 2);
  }
}
const SCRATCH = 0.003;
const partOf = (i: number): LapPlace => {
  const [column, row] = [i % SIDE, Math.floor(i / SIDE)];
  const inner = (k: number) => k >= 6 && k <= 14;
  if (inner(column) && inner(row)) return 'middle';
  return `${row < SIDE / 2 ? 'front' : 'rear'}-${column < SIDE / 2 ? 'left' : 'right'}` as LapPlace;
};
/** What is scratched by a few light strokes, by part, %. */
function touchedOf(heights: Float64Array): Record<LapPlace, number> {
  const top = Math.max(...heights);
  const [hit, all] = [new Map<LapPlace, number>(), new Map<LapPlace, number>()];
  for (let i = 0; i < heights.length; i++) {
    const part = partOf(i);
    all.set(part, (all.get(part) ?? 0) + 1);
    if (heights[i]! >= top - SCRATCH) hit.set(part, (hit.get(part) ?? 0) + 1);
  }
  return Object.fromEntries(
    LAP_PLACES.map((place) => [place, (100 * (hit.get(place) ?? 0)) / all.get(place)!]),
  ) as Record<LapPlace, number>;
}
/** As an eye tells it: to five in a hundred. */
const seen = (touched: Record<LapPlace, number>, random: () => number): Record<LapPlace, number> =>
  Object.fromEntries(
    LAP_PLACES.map((place) => {
      const told = Math.round((touched[place] + 6 * normalFrom(random)) / 5) * 5;
      // The last spots are looked for: a hundred is said only where it is so.
      return [place, touched[place] >= 98.5 ? 100 : Math.min(95, Math.max(0, told))];
    }),
  ) as Record<LapPlace, number>;
const isDone = (touched: Record<LapPlace, number>) => LAP_PLACES.every((place) => touched[place] >= 98.5);

test('rounds left lie within what is said as often as is said, on 500 platforms', () => {
  let [inside, said] = [0, 0];
  for (let seed = 1; seed <= 500; seed++) {
    const random = seededRandom(seed);
    const heights = platform(random);
    const volume = (0.02 + 0.05 * random()) * 0.12 * heights.length;
    const truth: boolean[] = [];
    const rounds: LapRound[] = [];
    for (let k = 0; k < 60; k++) {
      lap(heights, volume);
      const touched = touchedOf(heights);
      truth.push(isDone(touched));
      rounds.push({ strokes: ROUND_STROKES, touched: seen(touched, random) });
      if (truth.at(-1)) break;
    }
    const total = truth.length;
    if (total < 4) continue;
    const after = Math.max(2, Math.ceil(total / 2));
    const { left, verdict } = lapProgress(rounds.slice(0, after));
    if (!left) {
      expect(verdict).toMatch(/stalled|doming/);
      continue;
    }
    said++;
    if (total - after >= left.low && total - after <= left.high) inside++;
  }
  expect(said).toBeGreaterThan(350);
  // Nine in ten is said.
  expect(Math.abs(inside / said - 0.9)).toBeLessThan(0.03);
});

test('hands that rock are named before it costs a round; steady ones are not', () => {
  let [inTime, late, never, accused, steady] = [0, 0, 0, 0, 0];
  for (let seed = 1; seed <= 300; seed++) {
    const random = seededRandom(seed);
    const heights = platform(random);
    const volume = 0.004 * heights.length;
    const rounds: LapRound[] = [];
    const begins = 3 + Math.floor(3 * random());
    let cost = 0;
    let named = -1;
    for (let k = 0; k < begins + 6 && named < 0; k++) {
      lap(heights, volume);
      const before = touchedOf(heights);
      if (isDone(before)) break;
      if (k >= begins) {
        const flat = Float64Array.from(heights);
        rock(heights, 0.008);
        // What it takes off beyond a flat round has to be lapped away again.
        cost += flat.reduce((sum, z, i) => sum + z - heights[i]!, 0) / volume;
      }
      rounds.push({ strokes: ROUND_STROKES, touched: seen(touchedOf(heights), random) });
      const { verdict } = lapProgress(rounds);
      if (k < begins) {
        steady++;
        if (verdict === 'doming') accused++;
      } else if (verdict === 'doming') named = k;
    }
    if (named >= 0 && cost <= 1.0001) inTime++;
    else if (named >= 0) late++;
    else never++;
  }
  // A round's worth of metal is what rocking costs; the others are named later, or done before it shows.
  expect(inTime / 300).toBeGreaterThan(0.78);
  expect(late / 300).toBeLessThan(0.12);
  expect(inTime + late + never).toBe(300);
  expect(accused / steady).toBeLessThan(0.01);
});

const all = (value: number): Record<LapPlace, number> =>
  Object.fromEntries(LAP_PLACES.map((place) => [place, value])) as Record<LapPlace, number>;
test('stages: one round, done, stalled', () => {
  expect(lapProgress([{ strokes: 20, touched: all(30) }])).toMatchObject({ verdict: 'first', left: null, touched: 30 });
  expect(lapProgress([{ strokes: 20, touched: all(100) }]).verdict).toBe('done');
  const same = { strokes: 20, touched: all(60) };
  expect(lapProgress([same, same, same]).verdict).toBe('stalled');
  const last = { ...all(100), 'rear-left': 80 };
  expect(
    lapProgress([
      { strokes: 20, touched: all(70) },
      { strokes: 20, touched: last },
    ]),
  ).toMatchObject({ least: 'rear-left' });
});

test('what can’t be is refused', () => {
  expect(() => lapProgress([])).toThrow(RangeError);
  expect(() => lapProgress([{ strokes: 0, touched: all(10) }])).toThrow(/strokes/);
  expect(() => lapProgress([{ strokes: 20, touched: all(120) }])).toThrow(/0 to 100/);
  expect(() => lapProgress([{ strokes: 20, touched: { ...all(10), middle: NaN } }])).toThrow(RangeError);
});

// ISO 6344, from memory: P80 201 µm, P120 125 µm, P400 35.0 µm, P2000 10.3 µm.
test('grits by the standard', () => {
  expect([80, 120, 400, 2000].map(grainOf)).toEqual([201, 125, 35, 10.3]);
  expect(GRITS.every(({ grain }, i) => i === 0 || grain < GRITS[i - 1]!.grain)).toBe(true);
  expect(() => grainOf(123)).toThrow(RangeError);
});
