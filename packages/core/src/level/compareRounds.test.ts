import { compareRounds, type RoundAnswer } from './compareRounds';
import { proved, trials } from '../simulated/prove.fixture';
import { planTurns, type Adjuster } from './planTurns';
import { repeatability } from './repeatability';
import { seededRandom } from './seededMap.fixture';
import { stiffBed } from './stiffBed';
import type { HeightPoint } from './HeightPoint';

const THREE: Adjuster[] = [
  { id: 'front', x: 100, y: 0, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rear-left', x: 0, y: 200, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rear-right', x: 200, y: 200, pitch: 0.5, clockwise: 'lowers' },
];
const FOUR: Adjuster[] = [
  { id: 'fl', x: 5, y: 5, pitch: 0.5, clockwise: 'lowers' },
  { id: 'fr', x: 215, y: 5, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rl', x: 5, y: 215, pitch: 0.5, clockwise: 'lowers' },
  { id: 'rr', x: 215, y: 215, pitch: 0.5, clockwise: 'lowers' },
];

/** Standard normal deviate (Box and Muller 1958). */
const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** What a person does with the turns asked for, and what of it is the case. */
const PEOPLE: Record<string, { does: (rises: number[], k: number, j: number) => number[]; is: RoundAnswer }> = {
  'as said': { does: (rises) => rises, is: 'as-said' },
  'all reversed': { does: (rises) => rises.map((rise) => -rise), is: 'reversed' },
  'one reversed': { does: (rises, k) => rises.map((rise, i) => (i === k ? -rise : rise)), is: 'one-reversed' },
  'half made': { does: (rises) => rises.map((rise) => rise / 2), is: 'half' },
  'one left out': { does: (rises, k) => rises.map((rise, i) => (i === k ? 0 : rise)), is: 'left-out' },
  'two swapped': {
    does: (rises, k, j) => rises.map((rise, i) => (i === k ? rises[j]! : i === j ? rises[k]! : rise)),
    is: 'swapped',
  },
  'nothing moved': { does: (rises) => rises.map(() => 0), is: 'unmoved' },
};

/** A seeded bed with its turns, a person who does them in some way, and the reading after it. */
function round(seed: number, person: (typeof PEOPLE)[string]) {
  const random = seededRandom(seed);
  const adjusters = random() < 0.5 ? THREE : FOUR;
  const noise = 0.005 + 0.025 * random();
  const side = 3 + Math.floor(random() * 3);
  const places = Array.from({ length: side * side }, (_, i) => ({
    x: 10 + (190 * (i % side)) / (side - 1),
    y: 10 + (190 * Math.floor(i / side)) / (side - 1),
  }));
  const dome = 0.1 * (random() - 0.5);
  const shape = (x: number, y: number) => dome * (1 - ((x - 105) / 95) ** 2 - ((y - 105) / 95) ** 2);
  // Each move at least three times the noise, as far as it moves at all.
  const rises = adjusters.map(() => (random() < 0.2 ? 0 : (random() < 0.5 ? -1 : 1) * noise * (3 + 20 * random())));
  const turned = rises.flatMap((rise, i) => (rise === 0 ? [] : [i]));
  const k = turned[Math.floor(random() * turned.length)] ?? 0;
  const j = (k + 1 + Math.floor(random() * (adjusters.length - 1))) % adjusters.length;
  const tilt = { a: 0.004 * (random() - 0.5), b: 0.004 * (random() - 0.5) };
  const read = (a: number, b: number): HeightPoint[] =>
    places.map(({ x, y }) => ({ x, y, z: a * x + b * y + shape(x, y) + noise * normal(random) }));
  const before = read(tilt.a, tilt.b);
  const move = stiffBed(adjusters)(person.does(rises, k, j));
  const now = read(tilt.a + move.a, tilt.b + move.b).map((p) => ({ ...p, z: p.z + 0.3 }));
  return { ask: { before, adjusters, rises, now }, noise, about: adjusters[k]!.id, turned: turned.length };
}

test.each([
  ['by what the two maps scatter by', false, 0.5],
  ['with the probe’s noise from its record', true, 0.55],
])(
  'turns made right by an ordinary hand, each off by 6 %% of it, are called as said or left open, %s',
  (name, told, least) => {
    const rounds = trials(2000, 600);
    const said: Partial<Record<RoundAnswer, number>> = {};
    for (let seed = 1; seed <= rounds; seed++) {
      const hands = seededRandom(50_000 + seed);
      const { ask, turned, noise } = round(seed, {
        does: (rises) => rises.map((rise) => rise * (1 + 0.06 * normal(hands))),
        is: 'as-said',
      });
      if (turned === 0) continue;
      const { answer } = compareRounds({ ...ask, ...(told ? { noise } : {}) });
      said[answer] = (said[answer] ?? 0) + 1;
    }
    proved('rounds', `right turns, 6 % scatter of the hand, ${name}`, JSON.stringify(said));
    const all = Object.values(said).reduce((sum, n) => sum + n, 0);
    const accused = all - ['as-said', 'unsure', 'small'].reduce((sum, one) => sum + (said[one as RoundAnswer] ?? 0), 0);
    expect(accused / all).toBeLessThanOrEqual(0.02);
    expect((said['as-said'] ?? 0) / all).toBeGreaterThanOrEqual(least);
  },
);

test('a noise that is told far too small accuses nobody: what the readings scatter by counts then', () => {
  let [accused, all] = [0, 0];
  for (let seed = 1; seed <= trials(2000, 600); seed++) {
    const hands = seededRandom(70_000 + seed);
    const { ask, turned, noise } = round(seed, {
      does: (rises) => rises.map((rise) => rise * (1 + 0.06 * normal(hands))),
      is: 'as-said',
    });
    if (turned === 0) continue;
    all++;
    const { answer } = compareRounds({ ...ask, noise: noise / 4 });
    if (!['as-said', 'unsure', 'small'].includes(answer)) accused++;
  }
  proved('rounds', 'right turns, the probe four times as noisy as its record says', `accused in ${accused} of ${all}`);
  expect(accused / all).toBeLessThanOrEqual(0.03);
});

describe('two thousand seeded rounds of each kind, noise 0.005 to 0.03, each move at least three times it', () => {
  test.each(Object.entries(PEOPLE))('%s', (_, person) => {
    let right = 0;
    let accused = 0;
    let judged = 0;
    for (let seed = 1; seed <= 2_000; seed++) {
      const { ask, about, turned } = round(seed, person);
      if (turned === 0) continue;
      judged++;
      const result = compareRounds(ask);
      // With one turn made, reversing it is reversing all, and leaving it out is moving nothing.
      const alone = turned === 1 && ['one-reversed', 'left-out'].includes(person.is);
      const named = alone ? { 'one-reversed': 'reversed', 'left-out': 'unmoved' }[person.is as 'left-out'] : person.is;
      const cantTell = ['unsure', 'small'].includes(result.answer);
      const knob = result.about.length !== 1 || result.about[0] === about;
      if (cantTell || (result.answer === named && knob)) right++;
      if (person.is === 'as-said' && !cantTell && result.answer !== 'as-said') accused++;
    }
    expect(right / judged).toBeGreaterThanOrEqual(0.95);
    expect(accused / judged).toBeLessThanOrEqual(0.02);
  });

  test('it does tell: as said and all reversed are named far more often than not', () => {
    const named = (name: string, answer: RoundAnswer) => {
      const asks = Array.from({ length: 500 }, (_, seed) => round(seed + 1, PEOPLE[name]!)).filter(
        ({ turned }) => turned,
      );
      return asks.filter(({ ask }) => compareRounds(ask).answer === answer).length / asks.length;
    };
    expect(named('all reversed', 'reversed')).toBeGreaterThan(0.4);
    expect(named('as said', 'as-said')).toBeGreaterThan(0.2);
  });
});

describe('compareRounds', () => {
  const bed = (a: number, b: number): HeightPoint[] =>
    [0, 100, 200].flatMap((y) => [0, 100, 200].map((x) => ({ x, y, z: a * x + b * y + 0.00002 * (x - 100) ** 2 })));
  const before = bed(0.002, -0.001);
  const { turns } = planTurns({ points: before, adjusters: THREE });
  const rises = turns.map(({ saidRise }) => saidRise);
  const after = (changed: readonly number[]) => {
    const move = stiffBed(THREE)(changed);
    return bed(0.002 + move.a, -0.001 + move.b);
  };
  const answer = (changed: readonly number[], more: object = {}) =>
    compareRounds({ before, adjusters: THREE, rises, now: after(changed), ...more });

  test('a sign turned over makes the reading worse, and the share says −1', () => {
    const result = answer(rises.map((rise) => -rise));
    expect(result).toMatchObject({ answer: 'reversed', worse: true });
    expect(result.followed).toBeCloseTo(-1, 6);
  });

  test('one knob that turns the other way is named', () => {
    const k = rises.findIndex((rise) => Math.abs(rise) > 0.05);
    expect(answer(rises.map((rise, i) => (i === k ? -rise : rise)))).toMatchObject({
      answer: 'one-reversed',
      about: [THREE[k]!.id],
    });
  });

  test('turns too small to judge by are not judged', () => {
    expect(compareRounds({ before, adjusters: THREE, rises: [0.001, 0, 0], now: before })).toMatchObject({
      answer: 'small',
      followed: null,
    });
    expect(compareRounds({ before, adjusters: THREE, rises: [0, 0, 0], now: before }).answer).toBe('small');
  });

  test('a noisy probe is judged by its noise: the same move is plain to a good one and beyond a bad one', () => {
    expect(answer(rises, { noise: 0.005 }).answer).toBe('as-said');
    expect(answer(rises, { noise: 0.5 }).answer).toBe('small');
  });

  test('homing that lifts the whole bed changes nothing', () => {
    const now = after(rises).map((p) => ({ ...p, z: p.z + 3 }));
    expect(compareRounds({ before, adjusters: THREE, rises, now }).answer).toBe('as-said');
  });

  test('readings at other places are compared by their planes', () => {
    const move = stiffBed(THREE)(rises);
    const [a, b] = [0.002 + move.a, -0.001 + move.b];
    const now = [20, 90, 190].flatMap((y) => [30, 110, 180].map((x) => ({ x, y, z: a * x + b * y })));
    const flat = before.map(({ x, y }) => ({ x, y, z: 0.002 * x - 0.001 * y }));
    expect(compareRounds({ before: flat, adjusters: THREE, rises, now, noise: 0.004 }).answer).toBe('as-said');
  });
});

describe('repeatability', () => {
  // Pooled standard deviation by hand: deviations ±0.01 and ±0.02 with one degree of freedom each: √((0.0002 + 0.0008)/2).
  test('pools places that were read twice', () => {
    const points = [0.1, 0.12].map((z) => ({ x: 0, y: 0, z })).concat([0.2, 0.24].map((z) => ({ x: 9, y: 0, z })));
    expect(repeatability(points)).toBeCloseTo(Math.sqrt(0.0005), 12);
  });
  test('null without repeats', () => expect(repeatability([{ x: 0, y: 0, z: 0 }])).toBeNull());
});
