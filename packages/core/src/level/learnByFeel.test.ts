import { adjustersOf as screwsOf, feelToEnd, feltBy } from '../simulated/feelPerson.fixture';
import { TIDY } from '../simulated/people.fixture';
import { trials } from '../simulated/prove.fixture';
import { screwBed } from '../simulated/screwBed.fixture';
import { afterFeel, afterTurn, FEELS, startFeel, type FeelState } from './feel';
import { ADJUSTER_WAYS, learnAdjusters, WAY_PRIOR, type AdjusterWay } from './learnAdjusters';
import { learnByFeel } from './learnByFeel';

/** What is felt and turned by advice on a bed whose first adjuster is something; it may never end there. */
function felt(seed: number, count: 3 | 4, odd: number, most = 30, back = false): FeelState {
  const bed = screwBed({ seed, count, gain: 0.03, share: [odd] });
  let { state } = feelToEnd(bed, TIDY, most);
  // Turned back by as much, as what does not answer asks for, and once more.
  const [first] = state.adjusters;
  const net = state.history.reduce(
    (sum, event) => sum + (event.do === 'turn' && event.adjuster === first!.id ? event.turns : 0),
    0,
  );
  for (const turns of back && net !== 0 ? [-net, -Math.sign(net) * 0.75] : []) {
    bed.turn(0, turns);
    state = afterTurn(state, { adjuster: first!.id, turns });
    state = afterFeel(state, { at: first!.id, feel: FEELS[feltBy(bed, TIDY, 0)]! });
  }
  return state;
}

/** Its first adjuster was turned twice or more: what doesn't answer is left alone soon. */
const turnedOften = ({ history, adjusters }: FeelState) =>
  history.filter((event) => event.do === 'turn' && event.adjuster === adjusters[0]!.id).length >= 2;

const ODD: Record<Exclude<AdjusterWay, 'as-said'>, number> = { 'other-thread': 1.45, stuck: 0.05, reversed: -1 };
const adjustersOf = (state: FeelState) => state.adjusters.map((one) => ({ ...one }));
const likelyOf = (state: FeelState) =>
  learnByFeel({ adjusters: adjustersOf(state), runs: [{ gauge: state.gauge, history: state.history }] });

test('nothing felt is what is thought beforehand', () => {
  const state = startFeel({
    adjusters: screwsOf(screwBed({ seed: 1, count: 4 })),
    gauge: { thickness: 0.1, uncertainty: 0 },
  });
  const likely = learnByFeel({ adjusters: adjustersOf(state), runs: [] });
  // One odd one among four is thought of at a time: a little less likely than four that each may be.
  for (const one of likely) for (const way of ADJUSTER_WAYS) expect(one[way]).toBeCloseTo(WAY_PRIOR[way], 1);
  for (const one of likely) expect(ADJUSTER_WAYS.reduce((sum, way) => sum + one[way], 0)).toBeCloseTo(1, 12);
});

describe.each([3, 4] as const)('one level by paper on seeded beds with %i adjusters', (count) => {
  const BEDS = trials(150, 40);
  // With four a stuck one is mostly made up for by its neighbours: paper can't tell it, a probe does.
  test.each([
    ['reversed', 0.8],
    ['stuck', count === 3 ? 0.8 : 0.25],
  ] as const)(
    '%s is found not to be as said in %d of those turned twice; turned back, which of the two',
    (way, share) => {
      const likely = Array.from({ length: BEDS }, (_, seed) => felt(seed + 1, count, ODD[way]))
        .filter(turnedOften)
        .map(likelyOf);
      expect(likely.length).toBeGreaterThan(BEDS / 5);
      expect(likely.filter(([first]) => first!['as-said'] < 0.1).length / likely.length).toBeGreaterThan(share);
      // Which of the two it is is said only where the feels tell.
      const told = Array.from({ length: BEDS }, (_, seed) =>
        likelyOf(felt(seed + 1, count, ODD[way], 30, true)),
      ).filter(([first]) => first!.stuck > 0.9 || first!.reversed > 0.9);
      expect(told.filter(([first]) => first![way] > 0.9).length).toBeGreaterThanOrEqual(0.9 * told.length);
    },
  );
  test('all the other way round is thought of as one slip', () => {
    const bed = screwBed({ seed: 5, count, gain: 0.03, share: [-1, -1, -1, -1] });
    let { state } = feelToEnd(bed, TIDY, 6);
    for (let i = 0; i < 3 * count; i++) {
      const { id } = state.adjusters[i % count]!;
      const turns = i % 2 === 0 ? 0.25 : -0.25;
      for (let times = 0; times < 2; times++) {
        bed.turn(i % count, turns);
        state = afterTurn(state, { adjuster: id, turns });
        state = afterFeel(state, { at: id, feel: FEELS[feltBy(bed, TIDY, i % count)]! });
      }
    }
    for (const one of likelyOf(state)) expect(one.reversed).toBeGreaterThan(0.8);
  });

  test('of those that are as said at most 2 % are said to be something else', () => {
    let alarms = 0;
    for (let seed = 1; seed <= BEDS; seed++)
      if (likelyOf(felt(seed, count, 1)).some((one) => one['as-said'] < 0.1)) alarms++;
    expect(alarms / BEDS).toBeLessThanOrEqual(0.02);
  });
});

test('what was felt is where the probe’s rounds begin: together they say more, and alone it can be said', () => {
  const state = Array.from({ length: 20 }, (_, seed) => felt(seed + 1, 4, -1, 30, true)).find(
    (one) => likelyOf(one)[0]!.reversed > 0.95,
  )!;
  const adjusters = adjustersOf(state);
  const likely = learnByFeel({ adjusters, runs: [{ gauge: state.gauge, history: state.history }] });
  const learned = learnAdjusters({ adjusters, rounds: [], likely });
  expect(learned[0]!.way).toBe('reversed');
  expect(learned[0]!.share).toBeLessThan(-0.8);
  expect(learned[1]!.way).not.toBe('reversed');
});
