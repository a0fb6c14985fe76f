import { afterFeel, afterTurn, nextMove, startFeel, type FeelState } from './feel';
import { handBed } from './feelHand.fixture';
import { ADJUSTER_WAYS, learnAdjusters, WAY_PRIOR, type AdjusterWay } from './learnAdjusters';
import { learnByFeel } from './learnByFeel';

/** What is felt and turned by advice on a bed whose first adjuster is something; it may never end there. */
function felt(seed: number, count: 3 | 4, odd: number, most = 30, back = false): FeelState {
  const bed = handBed({ seed, count, odd, gain: 0.03 });
  let state = startFeel({ adjusters: bed.adjusters, gauge: { thickness: 0.1, uncertainty: 0.003 } });
  for (let touches = 0; touches < most; touches++) {
    const move = nextMove(state);
    if (move.do === 'done') break;
    if (move.do === 'feel')
      state = afterFeel(state, { at: move.at, feel: bed.feel(state.places.find(({ id }) => id === move.at)!) });
    else {
      bed.turn(
        bed.adjusters.findIndex(({ id }) => id === move.adjuster),
        move.turns,
      );
      state = afterTurn(state, move);
    }
  }
  // Turned back by as much, as what does not answer asks for, and once more.
  const [first] = bed.adjusters;
  const net = state.history.reduce(
    (sum, event) => sum + (event.do === 'turn' && event.adjuster === first!.id ? event.turns : 0),
    0,
  );
  for (const turns of back && net !== 0 ? [-net, -Math.sign(net) * 0.75] : []) {
    bed.turn(0, turns);
    state = afterTurn(state, { adjuster: first!.id, turns });
    state = afterFeel(state, { at: first!.id, feel: bed.feel(first!) });
  }
  return state;
}

/** Its first adjuster was turned three times or more. */
const turnedOften = ({ history, adjusters }: FeelState) =>
  history.filter((event) => event.do === 'turn' && event.adjuster === adjusters[0]!.id).length >= 3;

const ODD: Record<Exclude<AdjusterWay, 'as-said'>, number> = { 'other-thread': 1.45, stuck: 0.05, reversed: -1 };
const adjustersOf = (state: FeelState) => state.adjusters.map((one) => ({ ...one }));
const likelyOf = (state: FeelState) =>
  learnByFeel({ adjusters: adjustersOf(state), runs: [{ gauge: state.gauge, history: state.history }] });

test('nothing felt is what is thought beforehand', () => {
  const state = startFeel({
    adjusters: handBed({ seed: 1, count: 4 }).adjusters,
    gauge: { thickness: 0.1, uncertainty: 0 },
  });
  const likely = learnByFeel({ adjusters: adjustersOf(state), runs: [] });
  // One odd one among four is thought of at a time: a little less likely than four that each may be.
  for (const one of likely) for (const way of ADJUSTER_WAYS) expect(one[way]).toBeCloseTo(WAY_PRIOR[way], 1);
  for (const one of likely) expect(ADJUSTER_WAYS.reduce((sum, way) => sum + one[way], 0)).toBeCloseTo(1, 12);
});

describe.each([3, 4] as const)('one level by paper on 150 seeded beds with %i adjusters', (count) => {
  // With four a stuck one is mostly made up for by its neighbours: paper can't tell it, a probe does.
  test.each([
    ['reversed', 0.8],
    ['stuck', count === 3 ? 0.8 : 0.25],
  ] as const)(
    '%s is found not to be as said in %d of those turned three times; turned back, which of the two',
    (way, share) => {
      const likely = Array.from({ length: 150 }, (_, seed) => felt(seed + 1, count, ODD[way]))
        .filter(turnedOften)
        .map(likelyOf);
      expect(likely.length).toBeGreaterThan(40);
      expect(likely.filter(([first]) => first!['as-said'] < 0.1).length / likely.length).toBeGreaterThan(share);
      const told = Array.from({ length: 150 }, (_, seed) => likelyOf(felt(seed + 1, count, ODD[way], 30, true))).filter(
        ([first]) => first!['as-said'] < 0.1,
      );
      expect(told.filter(([first]) => first![way] > 0.5).length / told.length).toBeGreaterThan(0.8);
    },
  );
  test('of those that are as said at most 2 % are said to be something else', () => {
    let alarms = 0;
    for (let seed = 1; seed <= 150; seed++)
      if (likelyOf(felt(seed, count, 1)).some((one) => one['as-said'] < 0.1)) alarms++;
    expect(alarms / 150).toBeLessThanOrEqual(0.02);
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
  expect(learned[1]!.way).toBe('as-said');
});
