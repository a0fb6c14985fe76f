import { asLearned } from './asLearned';
import { learnAdjusters, type AdjusterLearned, type AdjusterWay, type TurnsSeen } from './learnAdjusters';
import { planTurns, type Adjuster } from './planTurns';
import { seededRandom } from './seededMap.fixture';
import { stiffBed } from './stiffBed';

const FOUR: Adjuster[] = [
  [0, 0],
  [220, 0],
  [0, 220],
  [220, 220],
].map(([x, y], i) => ({ id: `s${i}`, x: x!, y: y!, pitch: 0.5, clockwise: 'lowers' }));
const known = (way: AdjusterWay | null, share: number, uncertainty = 0.03): AdjusterLearned => ({
  ...{ id: 's0', way, share, uncertainty },
  likely: { 'as-said': 0, 'other-thread': 0, stuck: 0, reversed: 0, ...(way ? { [way]: 1 } : {}) },
});
const first = (one: AdjusterLearned) => asLearned(FOUR, [one]);

test('another thread is taken by what it does, a reversed one turned over; the others stay', () => {
  const thread = first(known('other-thread', 0.7));
  expect(thread.adjusters[0]).toMatchObject({ pitch: 0.35, clockwise: 'lowers' });
  expect(thread.adjusters.slice(1)).toEqual(FOUR.slice(1));
  expect(thread.otherwise).toEqual([{ id: 's0', share: 0.7 }]);
  expect(first(known('reversed', -0.98)).adjusters[0]).toMatchObject({ pitch: 0.5, clockwise: 'raises' });
});

test.each([
  ['as said', known('as-said', 1.02)],
  ['not sure yet', known(null, 0.6)],
  ['stuck: more of the same turn would wind it up', known('stuck', 0.05)],
  ['not known well', known('other-thread', 0.7, 0.2)],
  ['less than half', known('other-thread', 0.3)],
  ['no number', known('other-thread', NaN)],
])('%s stays as it is written', (_, one) => {
  expect(first(one)).toEqual({ adjusters: FOUR, otherwise: [] });
});

interface Life {
  /** Rounds to the aim in each of its checks. */
  rounds: number[];
}

/** Three checks in the life of a machine whose first adjuster moves by a share, its bed upset between them. */
function life(seed: number, odd: number, learns: boolean): Life {
  const random = seededRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const bed = stiffBed(FOUR);
  const shares = FOUR.map((_, i) => (i === 0 ? odd : 1) * (1 + 0.03 * normal()));
  let [a, b] = [0, 0];
  const read = () =>
    Array.from({ length: 25 }, (_, i) => {
      const [x, y] = [55 * (i % 5), 55 * Math.floor(i / 5)];
      return { x, y, z: a * x + b * y + 0.006 * normal() };
    });
  const seen: TurnsSeen[] = [];
  const rounds = [1, 2, 3].map(() => {
    const upset = bed(FOUR.map(() => 0.35 * normal()));
    [a, b] = [a + upset.a, b + upset.b];
    // What is learned is taken when a check begins, and stays for its length.
    const learned = learnAdjusters({ adjusters: FOUR, rounds: seen });
    const adjusters = learns ? asLearned(FOUR, learned).adjusters : FOUR;
    let before = read();
    for (let round = 1; round <= MOST_ROUNDS; round++) {
      const plan = planTurns({ points: before, adjusters, aim: 0.06 });
      if (plan.verdict === 'within') return round;
      const turns = plan.turns.map(({ said }) => said);
      const move = bed(turns.map((turn, i) => -(turn === 0 ? 0 : turn + 0.02 * normal()) * 0.5 * shares[i]!));
      [a, b] = [a + move.a, b + move.b];
      const now = read();
      seen.push({ before, now, turns });
      before = now;
    }
    return MOST_ROUNDS + 1;
  });
  return { rounds };
}
const MOST_ROUNDS = 8;

/** Mean rounds to the aim in the third check of 200 seeded machines. */
function thirdCheck(odd: number, learns: boolean): number {
  const lives = Array.from({ length: 200 }, (_, seed) => life(seed + 1, odd, learns));
  return lives.reduce((sum, { rounds }) => sum + rounds[2]!, 0) / lives.length;
}

test.each([
  // The next round makes up for what is missing: hardly anything is gained, and nothing lost.
  ['another thread, 40 % more', 1.4, 0],
  ['another thread, 30 % less', 0.7, -0.05],
  // By what is written down it never gets there.
  ['reversed', -1, 3],
])('%s: by the third check rounds to the aim with what was learned, against without', (_, odd, fewer) => {
  expect(thirdCheck(odd, false) - thirdCheck(odd, true)).toBeGreaterThan(fewer);
});

test('where all is as said, learning costs no round', () => {
  expect(Math.abs(thirdCheck(1, true) - thirdCheck(1, false))).toBeLessThan(0.05);
});
