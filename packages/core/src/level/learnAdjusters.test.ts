import { ADJUSTER_WAYS, learnAdjusters, learningTurns, type AdjusterWay, type TurnsSeen } from './learnAdjusters';
import type { Adjuster } from './planTurns';
import { seededRandom } from './seededMap.fixture';
import { stiffBed } from './stiffBed';

const PLACES = [0, 55, 110, 165, 220].flatMap((y) => [0, 55, 110, 165, 220].map((x) => ({ x, y })));
const corners = (count: number): Adjuster[] =>
  (count === 3
    ? [
        [110, 225],
        [0, 0],
        [220, 0],
      ]
    : [
        [0, 0],
        [220, 0],
        [0, 220],
        [220, 220],
      ]
  ).map(([x, y], i) => ({ id: `s${i}`, x: x!, y: y!, pitch: 0.5, clockwise: 'lowers' }));

/** A made-up machine whose first adjuster is something, over rounds that teach. */
function machine(
  seed: number,
  count: number,
  way: AdjusterWay,
  rounds: number,
): { seen: TurnsSeen[]; adjusters: Adjuster[] } {
  const random = seededRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const adjusters = corners(count);
  const bed = stiffBed(adjusters);
  const start = bed(adjusters.map(() => 0.3 * normal()));
  let [a, b, c] = [start.a, start.b, start.c];
  const bow = 0.04 * normal();
  const odd =
    way === 'other-thread'
      ? random() < 0.5
        ? 1.4
        : 0.7
      : way === 'stuck'
        ? 0.05 * random()
        : way === 'reversed'
          ? -1
          : 1;
  const shares = adjusters.map((_, i) => (i === 0 ? odd : 1) * (1 + 0.03 * normal()));
  const read = () => {
    // Each reading homes anew: its height as a whole means nothing.
    const home = 0.2 * normal();
    return PLACES.map(({ x, y }) => ({
      x,
      y,
      z: a * x + b * y + c + home + bow * (((x - 110) / 110) ** 2 + ((y - 110) / 110) ** 2) + 0.008 * normal(),
    }));
  };
  const seen: TurnsSeen[] = [];
  let before = read();
  for (let round = 0; round < rounds; round++) {
    const turns = learningTurns({
      adjusters,
      learned: learnAdjusters({ adjusters, rounds: seen }),
      done: seen.map((one) => one.turns),
    });
    const rises = turns.map((turn, i) => -(turn === 0 ? 0 : turn + 0.02 * normal()) * 0.5 * shares[i]!);
    const move = bed(rises);
    [a, b, c] = [a + move.a, b + move.b, c + move.c];
    const now = read();
    seen.push({ before, now, turns });
    before = now;
  }
  return { seen, adjusters };
}

describe.each([3, 4])('500 seeded machines with %i adjusters, three rounds each', (count) => {
  test.each(ADJUSTER_WAYS.filter((way) => way !== 'as-said'))('%s is recognised in 95 %', (way) => {
    let found = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const { seen, adjusters } = machine(seed, count, way, 3);
      if (learnAdjusters({ adjusters, rounds: seen })[0]!.way === way) found++;
    }
    expect(found / 500).toBeGreaterThanOrEqual(0.95);
  });

  test('of those that are as said at most 2 % are said to be something else', () => {
    let alarms = 0;
    let sum = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const { seen, adjusters } = machine(seed, count, 'as-said', 3);
      const learned = learnAdjusters({ adjusters, rounds: seen });
      if (learned.some(({ way }) => way !== null && way !== 'as-said')) alarms++;
      sum += learned[0]!.share;
    }
    expect(alarms / 500).toBeLessThanOrEqual(0.02);
    expect(sum / 500).toBeCloseTo(1, 1);
  });
});

test('nothing seen, nothing said', () => {
  const [first] = learnAdjusters({ adjusters: corners(4), rounds: [] });
  expect(first).toMatchObject({ way: null });
  expect(first!.likely['as-said']).toBeCloseTo(0.91, 2);
  // Readings of other places, or of too few, tell nothing.
  const elsewhere = PLACES.map(({ x, y }) => ({ x: x + 7, y, z: 0 }));
  const before = PLACES.map((place) => ({ ...place, z: 0 }));
  expect(
    learnAdjusters({ adjusters: corners(4), rounds: [{ before, now: elsewhere, turns: [1, 0, 0, 0] }] })[0]!.way,
  ).toBeNull();
});

test('a noiseless share comes out as it is, whatever was turned', () => {
  const adjusters = corners(3);
  const bed = stiffBed(adjusters);
  const before = PLACES.map((place) => ({ ...place, z: 0 }));
  const moved = (turns: number[]) => {
    const { a, b } = bed(turns.map((turn, i) => -turn * 0.5 * (i === 0 ? 1.4 : 1)));
    return { before, now: PLACES.map(({ x, y }) => ({ x, y, z: a * x + b * y })), turns };
  };
  const learned = learnAdjusters({ adjusters, rounds: [moved([1, 0, 0]), moved([0, 1, 0]), moved([0, 0, -1])] });
  expect(learned.map(({ way }) => way)).toEqual(['other-thread', 'as-said', 'as-said']);
  expect(learned[0]!.share).toBeCloseTo(1.4, 1);
});

test('hostile input is refused by name', () => {
  const before = PLACES.map((place) => ({ ...place, z: 0 }));
  const ask = (turns: number[]) => () =>
    learnAdjusters({ adjusters: corners(3), rounds: [{ before, now: before, turns }] });
  expect(ask([1, 2])).toThrow('each of 3 adjusters');
  expect(ask([NaN, 0, 0])).toThrow('each of 3 adjusters');
  expect(() => learnAdjusters({ adjusters: corners(3).slice(1), rounds: [] })).toThrow('at least 3');
});
