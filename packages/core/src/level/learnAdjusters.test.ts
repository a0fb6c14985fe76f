import { learnAdjusters, learningTurns, type AdjusterWay, type TurnsSeen } from './learnAdjusters';
import type { Adjuster } from './planTurns';
import { proved, trials } from '../simulated/prove.fixture';
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

/** Slopes of a plate on its screws, worked out apart from the sums: a square on equal springs, or a plane through three. */
const slopes = (h: readonly number[]) =>
  h.length === 3
    ? { a: (h[2]! - h[1]!) / 220, b: (h[0]! - (h[1]! + h[2]!) / 2) / 225 }
    : { a: (h[1]! + h[3]! - h[0]! - h[2]!) / 440, b: (h[2]! + h[3]! - h[0]! - h[1]!) / 440 };

interface Seen {
  seen: TurnsSeen[];
  adjusters: Adjuster[];
  shares: number[];
}

/** A made-up machine over rounds that teach. `odd`: the first screw's share; `all`: that of every screw. */
function machine(
  seed: number,
  count: number,
  {
    odd = 1,
    all = 1,
    backlash = 0,
    never = -1,
    rounds = 3,
  }: Partial<Record<'odd' | 'all' | 'backlash' | 'never' | 'rounds', number>>,
): Seen {
  const random = seededRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const adjusters = corners(count);
  const heights = adjusters.map(() => 0.3 * normal());
  const bow = 0.04 * normal();
  const shares = adjusters.map((_, i) => (i === 0 ? odd : 1) * all * (1 + 0.03 * normal()));
  const last = adjusters.map(() => 0);
  const read = () => {
    // Each reading homes anew: its height as a whole means nothing.
    const home = 0.2 * normal();
    const { a, b } = slopes(heights);
    return PLACES.map(({ x, y }) => ({
      x,
      y,
      z: a * x + b * y + home + bow * (((x - 110) / 110) ** 2 + ((y - 110) / 110) ** 2) + 0.008 * normal(),
    }));
  };
  const seen: TurnsSeen[] = [];
  let before = read();
  for (let round = 0; round < rounds; round++) {
    const turns = learningTurns({
      adjusters,
      learned: learnAdjusters({ adjusters, rounds: seen }),
      done: seen.map((one) => one.turns),
    }).map((turn, i) => (i === never ? 0 : turn));
    for (const [i, turn] of turns.entries()) {
      if (turn === 0) continue;
      const play = turn * last[i]! < 0 ? backlash : 0;
      const made = turn + 0.02 * normal();
      heights[i]! -= Math.sign(made) * Math.max(0, Math.abs(made) - play) * 0.5 * shares[i]!;
      last[i] = turn;
    }
    const now = read();
    seen.push({ before, now, turns });
    before = now;
  }
  return { seen, adjusters, shares };
}

/** What is really so of each adjuster. */
const wayOf = (share: number): AdjusterWay =>
  share < -0.5 ? 'reversed' : share < 0.3 ? 'stuck' : Math.abs(share - 1) > 0.2 ? 'other-thread' : 'as-said';

describe.each([3, 4])('seeded machines with %i adjusters that are', (count) => {
  const MACHINES = trials(2000, 150);
  test.each([
    ['all as said', {}],
    ['all the other way round', { all: -1 }],
    ['all of a finer thread', { all: 0.7 }],
    ['all of a coarser thread', { all: 1.4 }],
    ['one the other way round', { odd: -1 }],
    ['one stuck', { odd: 0.03 }],
    ['one of another thread', { odd: 1.4 }],
    ['as said, with a tenth of a turn of backlash', { backlash: 0.1 }],
    ['one the other way round, with backlash', { odd: -1, backlash: 0.1 }],
    ['all the other way round, one never turned', { all: -1, never: 0 }],
    ['as said, one never turned', { never: 0 }],
  ] as const)('%s are named rightly or left open, and their shares lie where it says', (name, ask) => {
    let [screws, right, wrong, wrongSign, covered, open] = [0, 0, 0, 0, 0, 0];
    for (let seed = 1; seed <= MACHINES; seed++) {
      const { seen, adjusters, shares } = machine(seed, count, { rounds: 4, ...ask });
      for (const [i, { way, share, uncertainty }] of learnAdjusters({ adjusters, rounds: seen }).entries()) {
        const never = 'never' in ask && ask.never === i;
        screws++;
        const is = wayOf(shares[i]!);
        if (way === null) open++;
        else if (way === is && !never) right++;
        else wrong++;
        if (way === 'as-said' && (share < 0 || shares[i]! < 0)) wrongSign++;
        if (never) expect(way === null || ('all' in ask && way === is)).toBe(true);
        if (Math.abs(share - shares[i]!) <= 1.96 * uncertainty) covered++;
      }
    }
    proved(
      `what adjusters do, ${count} adjusters`,
      name,
      `named ${percent(right, screws)} · open ${percent(open, screws)} · wrong ${percent(wrong, screws)} · as said with the wrong sign ${wrongSign} · its 95 % cover ${percent(covered, screws)} of ${screws}`,
    );
    if (!('never' in ask)) expect(wrong / screws).toBeLessThanOrEqual(0.05);
    expect(wrongSign).toBe(0);
    // It may cover more than it says, never 3 of 100 less.
    expect(covered / screws).toBeGreaterThanOrEqual(MACHINES < 1000 ? 0.9 : 0.92);
  });
});
const percent = (part: number, of: number) => `${((100 * part) / of).toFixed(1)} %`;

describe.each([3, 4])('500 seeded machines with %i adjusters, three rounds each', (count) => {
  test.each([
    ['other-thread', 1.4],
    ['stuck', 0.03],
    ['reversed', -1],
  ] as const)('one that is %s is recognised in 95 %', (way, odd) => {
    let found = 0;
    const machines = trials(500, 150);
    for (let seed = 1; seed <= machines; seed++) {
      const { seen, adjusters } = machine(seed, count, { odd });
      if (learnAdjusters({ adjusters, rounds: seen })[0]!.way === way) found++;
    }
    expect(found / machines).toBeGreaterThanOrEqual(0.93);
  });

  test('of those that are as said at most 2 % are said to be something else', () => {
    let [alarms, sum] = [0, 0];
    const machines = trials(500, 150);
    for (let seed = 1; seed <= machines; seed++) {
      const { seen, adjusters } = machine(seed, count, {});
      const learned = learnAdjusters({ adjusters, rounds: seen });
      if (learned.some(({ way }) => way !== null && way !== 'as-said')) alarms++;
      sum += learned[0]!.share;
    }
    expect(alarms / machines).toBeLessThanOrEqual(0.02);
    expect(sum / machines).toBeCloseTo(1, 1);
  });
});

test('nothing seen, nothing said', () => {
  const [first] = learnAdjusters({ adjusters: corners(4), rounds: [] });
  expect(first).toMatchObject({ way: null });
  expect(first!.likely['as-said']).toBeCloseTo(0.91, 1);
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
