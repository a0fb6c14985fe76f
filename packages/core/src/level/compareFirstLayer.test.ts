import { normalFrom } from './bedShapes.fixture';
import { compareFirstLayer, layerPlaces, type LayerPlace } from './compareFirstLayer';
import { DegenerateInput } from './errors';
import { proved, trials } from '../simulated/prove.fixture';
import { seededMap, seededRandom } from './seededMap.fixture';

const caliper = (value: number, random: () => number) =>
  Math.max(0.01, Math.round((value + 0.015 * normalFrom(random)) * 100) / 100);

/** A bed, a machine that follows `share` times its map, and calipers: resolution 0.01, scatter 0.015. */
function printed({
  share,
  seed,
  places,
  repeats,
  size,
  stale = 0,
}: {
  share: number;
  seed: number;
  places: number;
  repeats: number;
  size: number;
  stale?: number;
}) {
  const random = seededRandom(seed);
  const [a, b, c] = [random() - 0.5, random() - 0.5, random() - 0.5];
  const [d, e] = [random() - 0.5, random() - 0.5];
  const height = ({ x, y }: { x: number; y: number }) =>
    size * (a * Math.cos(x / 60) + b * Math.sin(y / 50) + c * (x / 200) * (y / 200));
  const other = ({ x, y }: { x: number; y: number }) => stale * (d * Math.sin(x / 40) + e * Math.cos(y / 35));
  const readings = Array.from({ length: places }, (_, i): LayerPlace => {
    const place = { x: 20 + 90 * (i % 3), y: 20 + 90 * Math.floor(i / 3) };
    const truth = 0.35 + (share - 1) * height(place) + other(place);
    return { ...place, thickness: Array.from({ length: repeats }, () => caliper(truth, random)) };
  });
  return { readings, map: height };
}

test.each([
  [0, 'not-applied', null],
  [1, 'compensated', null],
  [2, 'wrong', 'twice-or-stale'],
  [-1, 'wrong', 'reversed'],
  [0.5, 'wrong', 'partly'],
] as const)('a machine that follows its map %d times: right or "can’t tell" in 98 of 100', (share, verdict, way) => {
  let [right, untold, wrong] = [0, 0, 0];
  const machines = trials(2000, 400);
  for (let seed = 1; seed <= machines; seed++) {
    const size = [0.04, 0.08, 0.12, 0.16][seed % 4]!;
    const { readings, map } = printed({ share, seed, places: 9, repeats: 1 + (seed % 5), size });
    const found = compareFirstLayer({ readings, map });
    if (found.verdict === verdict && found.way === way) right++;
    else if (found.verdict === 'untold') untold++;
    else wrong++;
  }
  proved(
    'first layer',
    `machine that follows ${share} times its map`,
    `right ${right}, can’t tell ${untold}, wrong ${wrong} of ${machines}`,
  );
  expect(wrong / machines).toBeLessThanOrEqual(0.02);
  // It is of use, though a half-applied map wants twice the care: on a bed with something to see it tells.
  expect(right / machines).toBeGreaterThan(0.15);
});

test('with five readings a place on a bed of two tenths it tells in nearly all', () => {
  let told = 0;
  for (let seed = 1; seed <= 200; seed++) {
    const { readings, map } = printed({ share: 0, seed, places: 9, repeats: 5, size: 0.2 });
    if (compareFirstLayer({ readings, map }).verdict === 'not-applied') told++;
  }
  // A map that is applied in part has to be told apart, too.
  expect(told).toBeGreaterThan(170);
});

test('a map that is old leaves something else', () => {
  let named = 0;
  for (let seed = 1; seed <= 200; seed++) {
    const { readings, map } = printed({ share: 1, seed, places: 9, repeats: 4, size: 0.15, stale: 0.2 });
    const { verdict } = compareFirstLayer({ readings, map });
    if (verdict !== 'compensated' && verdict !== 'untold') named++;
  }
  expect(named).toBeGreaterThan(160);
});

// Common practice: middle 0.26, corner 0.31; the map says −0.03 and +0.02. The layer rises where the bed is high, by as much;
// but one reading a place can't settle 0.05 mm.
test('0.26 and 0.31 against −0.03 and +0.02: can’t tell from one reading a place', () => {
  const readings = [
    { x: 110, y: 110, thickness: [0.26] },
    { x: 10, y: 10, thickness: [0.31] },
  ];
  const map = ({ x }: { x: number }) => (x > 50 ? -0.03 : 0.02);
  const found = compareFirstLayer({ readings, map, nominal: 0.3 });
  expect(found.verdict).toBe('untold');
  expect(found.slope!.value).toBeCloseTo(-1, 9);
  expect(found.more!.readings).toBeGreaterThanOrEqual(8);
  expect(found.more!.at).toEqual([
    { x: 10, y: 10 },
    { x: 110, y: 110 },
  ]);
  // With as many as it asks for, at those places, it tells.
  let told = 0;
  for (let seed = 1; seed <= 300; seed++) {
    const random = seededRandom(seed);
    const each = found.more!.readings / 2;
    const more = readings.map(({ x, y, thickness }) => ({
      x,
      y,
      thickness: [...thickness, ...Array.from({ length: each }, () => caliper(thickness[0]!, random))],
    }));
    const { verdict, way } = compareFirstLayer({ readings: more, map });
    if (verdict === 'wrong' && way === 'twice-or-stale') told++;
  }
  expect(told / 300).toBeGreaterThan(0.9);
});

// Common practice: 0.26 is 0.01 over a layer of 0.25, and 0.04 under one of 0.30.
test.each([
  [0.25, 0.01],
  [0.3, -0.04],
])('against a layer of %d it is %d over', (nominal, over) => {
  const found = compareFirstLayer({ readings: [{ x: 0, y: 0, thickness: [0.26] }], map: () => 0, nominal });
  expect(found.over).toBeCloseTo(over, 9);
  expect(found).toMatchObject({ verdict: 'untold', slope: null, more: null });
});

test('with the sign not settled only what is alike in both is said', () => {
  const off = printed({ share: 0, seed: 3, places: 9, repeats: 5, size: 0.2 });
  expect(compareFirstLayer({ ...off, sign: null }).verdict).toBe('sign');
  const works = printed({ share: 1, seed: 3, places: 9, repeats: 5, size: 0.2 });
  expect(compareFirstLayer({ ...works, sign: null }).verdict).toBe('compensated');
});

test('looks alone never give a verdict, and say where calipers would tell; a look that belies its thickness is named', () => {
  const map = ({ x }: { x: number }) => (x - 100) / 500;
  const places = [0, 50, 100, 150, 200].map((x) => ({ x, y: 0 }));
  for (let seed = 1; seed <= 100; seed++) {
    const random = seededRandom(seed);
    const looks = places.map((place) => ({
      ...place,
      thickness: [],
      look: (['gaps', 'touching', 'ridged'] as const)[Math.floor(3 * random())]!,
    }));
    const found = compareFirstLayer({ readings: looks, map, nominal: 0.3 });
    expect(found).toMatchObject({ verdict: 'untold', slope: null, over: null });
    expect(found.more!.at.map(({ x }) => x)).toEqual([200, 0]);
    // Without a nominal too: nothing is reckoned from looks.
    expect(compareFirstLayer({ readings: looks, map }).verdict).toBe('untold');
  }
  const odd = compareFirstLayer({
    readings: [{ x: 0, y: 0, thickness: [0.2], look: 'gaps' }],
    map,
    nominal: 0.3,
  });
  expect(odd.odd).toEqual([{ x: 0, y: 0 }]);
});

test('places worth measuring: highest, lowest, then far apart', () => {
  const map = seededMap(5);
  const places = layerPlaces(map, 9);
  expect(places).toHaveLength(9);
  expect(places[0]!.z).toBe(Math.max(...map.map(({ z }) => z)));
  expect(places[1]!.z).toBe(Math.min(...map.map(({ z }) => z)));
});

test('what can’t be is refused by name', () => {
  const place = { x: 0, y: 0, thickness: [0.3] };
  expect(() => compareFirstLayer({ readings: [], map: () => 0 })).toThrow(DegenerateInput);
  expect(() => compareFirstLayer({ readings: [{ ...place, thickness: [-0.1] }], map: () => 0 })).toThrow(RangeError);
  expect(() => compareFirstLayer({ readings: [place], map: () => NaN })).toThrow(RangeError);
  expect(() => compareFirstLayer({ readings: [place], map: () => 0, nominal: 0 })).toThrow(RangeError);
  expect(() => compareFirstLayer({ readings: [{ ...place, look: 'odd' as 'gaps' }], map: () => 0 })).toThrow(
    /knows looks/,
  );
});
