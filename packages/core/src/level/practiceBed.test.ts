import { FEELS, type Feel } from './feel';
import { fitPlane } from './fitPlane';
import type { HeightPoint } from './HeightPoint';
import {
  bestActs,
  bestTouches,
  CAUSES,
  LESSONS,
  practiceBed,
  practiceSaw,
  scorePractice,
  type PracticeAct,
} from './practiceBed';

const SEEDS = Array.from({ length: 60 }, (_, i) => i + 1);

test('the same lesson and number is the same bed, felt twice alike; another number another', () => {
  const acts: PracticeAct[] = [{ do: 'feel', at: 'middle' }, { do: 'map' }, { do: 'caliper' }];
  const bed = practiceBed('tilt', 4);
  expect(practiceSaw(bed, acts)).toEqual(practiceSaw(practiceBed('tilt', 4), acts));
  expect(practiceSaw(practiceBed('tilt', 6), acts)).not.toEqual(practiceSaw(bed, acts));
  expect(practiceBed('tilt', 3).adjusters).toHaveLength(3);
  expect(bed.adjusters).toHaveLength(4);
});

test('what is told of a bed tells nothing of what it hides', () => {
  for (const lesson of LESSONS) {
    const { lesson: _, ...told } = practiceBed(lesson, 2);
    const { lesson: __, ...plain } = practiceBed('tilt', 2);
    expect(told).toEqual(plain);
  }
});

test.each(['tilt', 'sticky', 'reversed', 'thick-paper', 'map-sign'] as const)(
  '%s: the best sequence brings it even on nearly every bed, and whoever does it and says so has all points',
  (lesson) => {
    const scores = SEEDS.map((seed) => {
      const bed = practiceBed(lesson, seed);
      const extra: PracticeAct[] =
        lesson === 'thick-paper' ? [{ do: 'caliper' }] : lesson === 'map-sign' ? [{ do: 'map' }] : [];
      return scorePractice(bed, [...bestActs(bed), ...extra], lesson === 'tilt' ? 'nothing' : lesson);
    });
    expect(scores.filter(({ even }) => even).length).toBeGreaterThanOrEqual(57);
    for (const { even, points } of scores) if (even) expect(points).toBe(100);
  },
);

test.each(['debris', 'bowed'] as const)(
  '%s: no turn cures it; to stop after a map and name it is all points',
  (lesson) => {
    for (const seed of SEEDS) {
      const bed = practiceBed(lesson, seed);
      expect(scorePractice(bed, [{ do: 'feel', at: 'middle' }, { do: 'map' }], lesson)).toMatchObject({
        even: null,
        points: 100,
      });
      expect(scorePractice(bed, bestActs(bed), 'nothing').points).toBe(0);
    }
  },
);

test('what each lesson hides can be seen by what hands can do', () => {
  for (const seed of SEEDS) {
    const rest = (lesson: (typeof LESSONS)[number]) => {
      const map = practiceSaw(practiceBed(lesson, seed), [{ do: 'map' }])[0] as HeightPoint[];
      return { map, residuals: fitPlane(map).residuals };
    };
    const peak = (values: ArrayLike<number>) => Math.max(...Array.from(values, Math.abs));
    expect(peak(rest('tilt').residuals)).toBeLessThan(0.06);
    // One place stands out.
    const debris = Array.from(rest('debris').residuals);
    expect(peak(debris)).toBeGreaterThan(0.08);
    expect(debris.filter((r) => Math.abs(r) > 0.6 * peak(debris)).length).toBeLessThanOrEqual(3);
    // The middle stands over the corners.
    const { residuals, map } = rest('bowed');
    const middle = residuals[map.findIndex(({ x, y }) => x === 110 && y === 110)]!;
    expect(middle).toBeGreaterThan(0.03);
    // Where the map says high, the paper says wide.
    const bed = practiceBed('map-sign', seed);
    const [printed] = practiceSaw(bed, [{ do: 'map' }]) as [HeightPoint[]];
    const corners = bed.adjusters.map(({ id, x, y }) => ({ id, z: printed.find((p) => p.x === x && p.y === y)!.z }));
    const [low, high] = [...corners].sort((a, b) => a.z - b.z).filter((_, i, all) => i === 0 || i === all.length - 1);
    const felt = (id: string) => FEELS.indexOf(practiceSaw(bed, [{ do: 'feel', at: id }])[0] as Feel);
    if (high!.z - low!.z > 0.15) expect(felt(high!.id)).toBeGreaterThanOrEqual(felt(low!.id));
    // Ten sheets are two and a half millimetres.
    expect(practiceSaw(practiceBed('thick-paper', seed), [{ do: 'caliper' }])[0]).toBeCloseTo(2.5, 1);
    expect(practiceSaw(practiceBed('tilt', seed), [{ do: 'caliper' }])[0]).toBeCloseTo(1, 1);
  }
});

test('haste costs touches, not evenness; a wrong name costs its part', () => {
  const bed = practiceBed('tilt', 8);
  const best = bestActs(bed);
  const dawdled = [...Array<PracticeAct>(best.length).fill({ do: 'feel', at: 'middle' }), ...best];
  const slow = scorePractice(bed, dawdled, 'nothing');
  expect(slow).toMatchObject({ even: true, named: true, touches: 2 * best.length, best: bestTouches(bed) });
  expect(slow.points).toBe(90);
  expect(scorePractice(bed, best, 'debris').points).toBe(70);
  expect(scorePractice(bed, [], 'nothing')).toMatchObject({ even: false, points: 30 });
});

test('refuses what is not there', () => {
  const bed = practiceBed('tilt', 2);
  expect(() => practiceBed('magic' as never, 1)).toThrow('practiceBed knows lessons');
  expect(() => practiceSaw(bed, [{ do: 'feel', at: 'attic' }])).toThrow('no place');
  expect(() => practiceSaw(bed, [{ do: 'turn', adjuster: 'attic', turns: 1 }])).toThrow('no adjuster');
  expect(() => practiceSaw(bed, [{ do: 'turn', adjuster: 'front left', turns: NaN }])).toThrow('needs turns');
  expect(() => scorePractice(bed, [], 'bad luck' as never)).toThrow(CAUSES.join(', '));
});
