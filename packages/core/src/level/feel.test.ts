import fc from 'fast-check';
import { Matrix } from 'ml-matrix';
import { feelToEnd, feltBy, type FeltToEnd } from '../simulated/feelPerson.fixture';
import { PEOPLE, TIDY, type Person } from '../simulated/people.fixture';
import { proved, trials } from '../simulated/prove.fixture';
import { byRoutine, screwBed, type ScrewBedAsk } from '../simulated/screwBed.fixture';
import {
  afterFeel,
  afterTurn,
  FEEL_EDGES,
  feelFindings,
  FEELS,
  gapAt,
  MIDDLE,
  nextMove,
  normalBelow,
  replayFeel,
  startFeel,
  sureOf,
  USUAL_BED,
  type Feel,
  type FeelAdjuster,
} from './feel';
import { alongRow, beliefBefore, feelFrame, feltBelief, turnedBelief, USUAL_WORLD } from './feelBelief';
import { feltHistory, feltText } from './feltText';
import { parseHeights } from './parseHeights';
import { stiffBed } from './stiffBed';

const paper = { thickness: 0.1, uncertainty: 0.003 };
const square: FeelAdjuster[] = [
  ['front-left', 0, 0],
  ['front-right', 200, 0],
  ['rear-left', 0, 200],
  ['rear-right', 200, 200],
].map(([id, x, y]) => ({ id: id as string, x: x as number, y: y as number, pitch: 0.5, clockwise: 'lowers' }));
const three = [square[0]!, square[1]!, { ...square[2]!, id: 'rear', x: 100 }];

const share = (values: readonly number[], part: number) =>
  [...values].sort((a, b) => a - b)[Math.ceil(part * values.length) - 1]!;

/** Beds and people that advice is followed on, and what it may say of each. */
const ROWS: [name: string, bed: Partial<ScrewBedAsk>, person: Person, may?: { deaf?: boolean }][] = [
  ['tidy', {}, TIDY],
  ['noise and edges half as assumed', {}, PEOPLE['feels finely']],
  ['noise and edges twice as assumed', {}, PEOPLE['feels coarsely']],
  ['noise 0.015, edges × 1.4', {}, { ...TIDY, noise: 0.015, edges: 1.4 }],
  ['5 % of keys slip', {}, PEOPLE['slips a key']],
  ['a tenth of a turn of backlash', { backlash: 0.1 }, TIDY],
  ['plate twists half', { twist: 0.5 }, TIDY],
  ['plate twists wholly', { twist: 1 }, TIDY],
  ['begins 0.9 off', { height: 0.9 }, TIDY],
  ['one screw stuck', { share: [0] }, TIDY, { deaf: true }],
  ['one screw reversed', { share: [-1] }, TIDY, { deaf: true }],
  ['all screws reversed', { share: [-1, -1, -1, -1] }, TIDY, { deaf: true }],
  ['turns the wrong way, 3 %', {}, PEOPLE['turns the wrong way']],
  ['forgets a turn, 3 %', {}, PEOPLE['forgets one']],
  ['takes the next knob, 3 %', {}, PEOPLE['swaps two']],
  ['always “drags”', {}, { ...TIDY, always: 2 }],
  ['always “jammed”', {}, { ...TIDY, always: 0 }, { deaf: true }],
  ['always “light”', {}, { ...TIDY, always: 3 }, { deaf: true }],
  ['any key at random', {}, PEOPLE['answers at random'], { deaf: true }],
];
const accuses = ({ end }: FeltToEnd) =>
  end.do === 'stop' && (end.why === 'does-not-answer' || end.why === 'turns-other-way');

describe.each([3, 4] as const)('advice by paper and feel, followed to its end on %i adjusters', (count) => {
  const BEDS = trials(1000, count === 3 ? 15 : 5);
  test.each(ROWS)('%s', (...row) => {
    const [name, bed, person, may] = row;
    const ends = Array.from({ length: BEDS }, (_, i) => feelToEnd(screwBed({ seed: i + 1, count, ...bed }), person));
    const touches = ends.map((end) => end.touches);
    const count_ = (is: (end: FeltToEnd) => boolean) => ends.filter(is).length;
    const wrong = count_((end) => end.wrong);
    const deaf = count_(accuses);
    const unflagged = ends.reduce((sum, end) => sum + end.unflagged, 0);
    const largest = Math.max(...ends.map((end) => end.largest));
    const why = (code: string) => count_(({ end }) => end.do === 'stop' && end.why === code);
    proved(
      `paper and feel, ${count} adjusters`,
      name,
      `${share(touches, 0.5)} / ${share(touches, 0.95)} touches · done ${count_(({ end }) => end.do === 'done')} · within 0.05 ${why('as-near-as-felt')} · looked at from below ${deaf + why('spring-end')} · keys say nothing ${why('keys-say-nothing')} · other ${why('wont-hold-still') + why('too-long')} · wrong “done” ${wrong} · false “does not answer” ${may?.deaf ? '–' : deaf} · largest turn ${largest} · into the nozzle unflagged ${unflagged} · of ${BEDS}`,
    );
    // Two of a hundred of tidy hands; elsewhere as often as it says. A small sample is given its own chance on top.
    const most = (part: number) => Math.ceil(part * BEDS + 2 * Math.sqrt(part * BEDS));
    expect(wrong).toBeLessThanOrEqual(
      BEDS >= 1000 ? (name === 'tidy' ? 0.02 : 0.05) * BEDS : most(name === 'tidy' ? 0.02 : 0.05),
    );
    if (!may?.deaf) expect(deaf).toBeLessThanOrEqual(BEDS >= 1000 ? 0.02 * BEDS : most(0.02));
    expect(largest).toBeLessThanOrEqual(2);
    expect(Math.max(...ends.map((end) => end.farthest))).toBeLessThanOrEqual(5.1);
    // A hand that turns another way than it is told is beyond what can be foretold.
    const own = Math.max(person.wrongWay ?? 0, person.swaps ?? 0, person.random ? 0.01 : 0);
    expect(unflagged / BEDS).toBeLessThanOrEqual(4 * own);
  });

  test('a screw that turns the other way and jams at the end is not turned without the nozzle lifted', () => {
    for (const seed of [483, 484, 485])
      expect(feelToEnd(screwBed({ seed, count, share: [-1] }), TIDY).unflagged).toBe(0);
  });

  test('against turning each by an eighth until it drags: fewer touches, and seldomer wrong', () => {
    const beds = trials(1000, 15);
    const [touches, routine] = [[] as number[], [] as number[]];
    let [wrong, wrongBefore] = [0, 0];
    for (let seed = 1; seed <= beds; seed++) {
      const before = screwBed({ seed, count });
      routine.push(byRoutine(before, (place) => feltBy(before, TIDY, place)));
      if (before.places.some((_, i) => Math.abs(before.gap(i)) > 0.03)) wrongBefore++;
      const end = feelToEnd(screwBed({ seed, count }), TIDY);
      touches.push(end.touches);
      if (end.wrong) wrong++;
    }
    proved(
      `paper and feel, ${count} adjusters`,
      'against the routine by eighths',
      `${share(touches, 0.5)} / ${share(touches, 0.95)} touches against ${share(routine, 0.5)} / ${share(routine, 0.95)} · wrong ${wrong} against ${wrongBefore} of ${beds}`,
    );
    // What being sure costs: half of the touches were enough for who is not told when the hand can't tell.
    expect(share(touches, 0.5)).toBeLessThanOrEqual(0.85 * share(routine, 0.5));
    expect(share(touches, 0.95)).toBeLessThanOrEqual(0.6 * share(routine, 0.95));
    expect(wrong).toBeLessThanOrEqual(wrongBefore);
  });
});

describe('what is known', () => {
  test('a normal curve: values of the standard table (handbook of statistics)', () => {
    // Φ(1) = 0.841345, Φ(1.96) = 0.975002, Φ(−2.326) = 0.010008.
    expect(normalBelow(1)).toBeCloseTo(0.841345, 6);
    expect(normalBelow(1.96)).toBeCloseTo(0.975002, 6);
    expect(normalBelow(-2.326)).toBeCloseTo(0.010009, 5);
    expect([normalBelow(Infinity), normalBelow(-Infinity)]).toEqual([1, 0]);
  });

  test('before anything is felt every adjuster is as uncertain as the prior says', () => {
    for (const adjusters of [three, square]) {
      const state = startFeel({ adjusters, gauge: paper });
      const all = adjusters.map(({ id }) => gapAt(state, id).sd ** 2);
      // Beds that begin far off are thought of, too: as much as the prior says, and half as much again.
      const sd = Math.sqrt(all.reduce((sum, v) => sum + v, 0) / all.length);
      expect(sd).toBeGreaterThan(state.prior.height);
      expect(sd).toBeLessThan(1.6 * state.prior.height);
      expect(nextMove(state)).toMatchObject({ do: 'feel', again: false });
    }
  });

  test('a feel narrows what is known to about its interval, checked against drawing 200,000 gaps', () => {
    const frame = feelFrame({ adjusters: three, prior: { ...USUAL_BED, slip: 0 }, gauge: 0 });
    const start = beliefBefore(frame, USUAL_WORLD);
    const sd = Math.sqrt(alongRow(start, frame.places[0]!).variance);
    let seed = 7;
    const random = () => ((seed = (seed * 48271) % 2147483647) - 1) / 2147483646;
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const kept: number[] = [];
    for (let i = 0; i < 200_000; i++) {
      const gap = sd * normal();
      if (gap + USUAL_BED.noise * normal() > FEEL_EDGES[3]) kept.push(gap);
    }
    const mean = kept.reduce((sum, gap) => sum + gap, 0) / kept.length;
    const spread = Math.sqrt(kept.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / kept.length);
    const { belief, likely } = feltBelief(frame, start, 0, FEELS.indexOf('free'));
    const after = alongRow(belief, frame.places[0]!);
    expect(after.mean).toBeCloseTo(mean, 2);
    expect(Math.sqrt(after.variance)).toBeCloseTo(spread, 2);
    expect(likely).toBeCloseTo(kept.length / 200_000, 2);
  });

  test('turns move it by the geometry: three tip each other, four share, a plate that twists follows its own screw', () => {
    const turned = (adjusters: FeelAdjuster[], twist: number) => {
      const frame = feelFrame({ adjusters, prior: USUAL_BED, gauge: 0.003 });
      const after = turnedBelief(frame, beliefBefore(frame, { ...USUAL_WORLD, twist }), {
        index: 0,
        rise: 0.5,
        back: false,
      });
      return frame.places.map((row) => alongRow(after, row).mean);
    };
    // It is raised by 0.5 where it is turned: the gap closes; the other two of three stay, the middle takes a third.
    for (const [i, gap] of [-0.5, 0, 0, -1 / 6].entries()) expect(turned(three, 0)[i]).toBeCloseTo(gap, 9);
    // On four equal springs three quarters of it, a quarter at the neighbours, and the far corner sinks.
    for (const [i, gap] of [-0.375, -0.125, -0.125, 0.125, -0.125].entries())
      expect(turned(square, 0)[i]).toBeCloseTo(gap, 9);
    for (const [i, gap] of [-0.5, 0, 0, 0, -0.125].entries()) expect(turned(square, 1)[i]).toBeCloseTo(gap, 9);
    // What was turned is less certain than what was not.
    const state = startFeel({ adjusters: three, gauge: paper });
    const after = afterTurn(state, { adjuster: 'front-left', turns: -1 });
    expect(gapAt(after, 'front-left').sd).toBeGreaterThan(gapAt(state, 'front-left').sd);
  });

  test('turns move mean and covariance as a matrix library does: F·m and F·Σ·Fᵀ (ml-matrix)', () => {
    const frame = feelFrame({ adjusters: square, prior: { ...USUAL_BED, hand: 0 }, gauge: 0.003 });
    let belief = beliefBefore(frame, USUAL_WORLD);
    const n = belief.mean.length;
    let mean = Matrix.columnVector([...belief.mean]);
    let covariance = Matrix.from1DArray(n, n, [...belief.covariance]);
    const bed = stiffBed(square);
    for (const [i, rise] of [0.25, -0.6, 0.2, 1, -0.03].entries()) {
      const k = i % square.length;
      const { a, b, c } = bed(square.map((_, j) => (j === k ? 1 : 0)));
      const step = Matrix.eye(n);
      // In the basis of the middle, scaled by the farthest adjuster: 100·√2. After plane and bow stands one twist.
      step.set(0, 5 + k, -rise * (c + 100 * a + 100 * b));
      step.set(1, 5 + k, -rise * a * 100 * Math.SQRT2);
      step.set(2, 5 + k, -rise * b * 100 * Math.SQRT2);
      mean = step.mmul(mean);
      covariance = step.mmul(covariance).mmul(step.transpose());
      belief = turnedBelief(frame, belief, { index: k, rise, back: false });
      for (const [j, value] of belief.mean.entries()) expect(value).toBeCloseTo(mean.get(j, 0), 12);
      for (const [j, value] of belief.covariance.entries())
        expect(value).toBeCloseTo(covariance.get(Math.floor(j / n), j % n), 12);
    }
  });

  test('advice to turn always goes the way that the feel asks for, and is said in sixteenths', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FEELS), fc.constantFrom(...three), fc.boolean(), (feel, at, raises) => {
        const adjusters = three.map((one): FeelAdjuster => ({ ...one, clockwise: raises ? 'raises' : 'lowers' }));
        const state = afterFeel(startFeel({ adjusters, gauge: paper }), { at: at.id, feel });
        const move = nextMove(state);
        if (move.do !== 'turn') return;
        expect(move.adjuster).toBe(at.id);
        expect(move.raises).toBe(FEELS.indexOf(feel) > 2);
        expect(move.turns > 0).toBe(move.raises === raises);
        expect(Number.isInteger(16 * move.turns)).toBe(true);
        // It never turns farther than the widest bed that was thought possible.
        expect(Math.abs(move.turns) * at.pitch).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('what stands out', () => {
  const fed = (adjusters: FeelAdjuster[], feels: [string, Feel][]) =>
    feels.reduce((state, [at, feel]) => afterFeel(state, { at, feel }), startFeel({ adjusters, gauge: paper }));

  test('free and then jammed without a turn between is felt again', () => {
    const settled = fed(three, [
      ['front-left', 'drags'],
      ['front-left', 'drags'],
    ]);
    const odd = afterFeel(settled, { at: 'front-left', feel: 'jammed' });
    expect(odd.contradiction).toEqual({ at: 'front-left', feel: 'jammed', expected: 'drags' });
    expect(nextMove(odd)).toEqual({ do: 'feel', at: 'front-left', again: true });
    // A turn between explains it.
    expect(
      afterFeel(afterTurn(settled, { adjuster: 'front-left', turns: -0.25 }), { at: 'front-left', feel: 'jammed' })
        .contradiction,
    ).toBeNull();
  });

  test('one culprit, a bed that won’t hold still, a spring near its end', () => {
    const one = fed(square, [
      ['front-left', 'drags'],
      ['front-right', 'drags'],
      ['rear-left', 'drags'],
    ]);
    expect(feelFindings(one)).toEqual([]);
    const culprit = fed(three, [
      ['front-left', 'drags'],
      ['front-right', 'drags'],
      ['rear', 'free'],
    ]);
    expect(feelFindings(culprit)).toEqual([{ code: 'one-culprit', adjuster: 'rear' }]);
    const gives = fed(three, [
      ['rear', 'free'],
      ['rear', 'jammed'],
      ['rear', 'free'],
    ]);
    expect(feelFindings(gives)).toContainEqual({ code: 'wont-hold-still' });
    const far = afterTurn(startFeel({ adjusters: three, gauge: paper }), { adjuster: 'rear', turns: 3.5 });
    expect(feelFindings(far)).toContainEqual({ code: 'near-its-end', adjuster: 'rear', turns: 3.5 });
  });

  test('a screw that moves half of what its thread says comes out as one that moves less', () => {
    const bed = screwBed({ seed: 3, count: 3, gain: 0, share: [0.5] });
    let state = startFeel({ adjusters: three, gauge: paper });
    for (let i = 0; i < 14; i++) {
      state = afterFeel(state, { at: three[0]!.id, feel: FEELS[feltBy(bed, { noise: 0.004 }, 0)]! });
      const turns = i % 2 === 0 ? 0.25 : -0.25;
      bed.turn(0, turns);
      state = afterTurn(state, { adjuster: three[0]!.id, turns });
    }
    expect(feelFindings(state).filter(({ code }) => code === 'moves-more')).toEqual([]);
  });
});

describe('it ends, and says what to do with the hands', () => {
  const told = (feel: (turned: number) => Feel, most = 60) => {
    let state = startFeel({ adjusters: three, gauge: paper });
    let turned = 0;
    for (let i = 0; i < most; i++) {
      const move = nextMove(state);
      if (move.do === 'done' || move.do === 'stop') return move;
      if (move.do === 'feel') state = afterFeel(state, { at: move.at, feel: feel(turned) });
      else {
        turned++;
        state = afterTurn(state, move);
      }
    }
    throw new Error('it never ended');
  };
  test('one key for ever, or two by turns, end without a level', () => {
    for (const feel of FEELS) expect(told(() => feel)).toMatchObject({ do: 'stop' });
    let i = 0;
    expect(told(() => (i++ % 2 === 0 ? 'free' : 'jammed'), 150)).toMatchObject({ do: 'stop' });
  });
});

describe('a level that was felt is a reading like any other', () => {
  test('its text gives the heights, and keeps every touch so that it can be played again', () => {
    const { state } = feelToEnd(screwBed({ seed: 11, count: 4 }), TIDY);
    const text = feltText(state);
    const parsed = parseHeights(text, {});
    expect(parsed.questions).toEqual([]);
    expect(parsed.points).toHaveLength(4);
    for (const [i, { id }] of state.adjusters.entries())
      expect(parsed.points[i]!.z).toBeCloseTo(-gapAt(state, id).mean, 3);
    const kept = feltHistory(text)!;
    expect(kept.history).toEqual(state.history);
    const again = replayFeel(startFeel({ adjusters: state.adjusters, gauge: paper }), kept.history);
    expect(again.worlds.map(({ belief }) => belief.mean)).toEqual(state.worlds.map(({ belief }) => belief.mean));
    expect(sureOf(again)).toBe(sureOf(state));
    expect(feltHistory('x,y,z\n1,2,3')).toBeNull();
  });

  test('on a bed of inches’ size no unit is asked, of what an older app kept neither', () => {
    const tiny = three.map((one) => ({ ...one, x: one.x / 10, y: one.y / 10 }));
    const text = feltText(afterFeel(startFeel({ adjusters: tiny, gauge: paper }), { at: tiny[0]!.id, feel: 'drags' }));
    expect(parseHeights(text, {}).questions).toEqual([]);
    expect(parseHeights(text.replace('x_mm,y_mm,z_mm', 'x,y,z'), {}).questions).toEqual([]);
  });

  test('the middle counts once it was felt', () => {
    const state = afterFeel(startFeel({ adjusters: three, gauge: paper }), { at: MIDDLE, feel: 'drags' });
    expect(parseHeights(feltText(state), {}).points).toHaveLength(4);
  });
});

test('hostile input is refused by name', () => {
  const state = startFeel({ adjusters: three, gauge: paper });
  expect(() => startFeel({ adjusters: three.slice(1), gauge: paper })).toThrow('at least 3');
  expect(() => startFeel({ adjusters: three, gauge: { thickness: 0, uncertainty: 0 } })).toThrow('above 0');
  expect(() => startFeel({ adjusters: three, gauge: { thickness: NaN, uncertainty: 0 } })).toThrow();
  expect(() => startFeel({ adjusters: [{ ...three[0]!, pitch: 0 }, ...three.slice(1)], gauge: paper })).toThrow(
    'pitch',
  );
  expect(() => afterFeel(state, { at: 'lid', feel: 'drags' })).toThrow('no place');
  expect(() => afterFeel(state, { at: 'rear', feel: 'soft' as never })).toThrow('knows');
  expect(() => afterTurn(state, { adjuster: 'rear', turns: NaN })).toThrow('number');
  expect(() => afterTurn(state, { adjuster: 'lid', turns: 1 })).toThrow('no adjuster');
});
