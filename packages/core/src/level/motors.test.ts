import { startFeel, nextMove, afterFeel } from './feel';
import { plainAdjuster } from './plainAdjuster';
import { planTurns, type Adjuster } from './planTurns';
import { roundMove } from './roundTurn';
import { lookingDown } from './seenFrom';
import { skirtTrim } from './skirtTrim';
import { stiffBed } from './stiffBed';

/** Three motors under a bed, as a machine's page has them, whatever stands there of a thread. */
const MOTORS = [
  { id: 'front', x: 110, y: 10 },
  { id: 'rear-left', x: 10, y: 210 },
  { id: 'rear-right', x: 210, y: 210 },
].map((place) => plainAdjuster({ ...place, thread: 'motor', pitch: 0.7, clockwise: 'lowers' }));

const points = [0, 55, 110, 165, 220].flatMap((y) =>
  [0, 55, 110, 165, 220].map((x) => ({ x, y, z: 0.0011 * (x - 110) - 0.0007 * (y - 110) })),
);

test('a motor is told hundredths of a millimetre, + up, from wherever it is seen', () => {
  expect(MOTORS[0]).toEqual({ id: 'front', x: 110, y: 10, pitch: 1, clockwise: 'raises', motor: true });
  expect(lookingDown(MOTORS, 'below')).toEqual(MOTORS);
  expect(roundMove(0.1234, true)).toBe(0.12);
  expect(roundMove(-0.006, true)).toBe(-0.01);
  expect(roundMove(0.1234, false)).toBe(0.125);
  expect(Object.is(roundMove(-0.001, true), 0)).toBe(true);
});

test('a plan for motors brings the bed flat to hundredths, and small moves are not spared', () => {
  const plan = planTurns({ points, adjusters: MOTORS, aim: 0.05 });
  for (const { said, saidRise, rise } of plan.turns) {
    expect(Math.abs(said * 100 - Math.round(said * 100))).toBeLessThan(1e-9);
    expect(saidRise).toBe(said);
    expect(Math.abs(said - rise)).toBeLessThanOrEqual(0.01);
  }
  // Followed: each motor goes up by what it was told.
  const { a, b } = stiffBed(MOTORS)(plan.turns.map(({ said }) => said));
  const left = points.map(({ x, y, z }) => z + a * x + b * y);
  expect(Math.max(...left) - Math.min(...left)).toBeLessThan(0.02);
  expect(plan.verdict).toBe('reaches');
});

test('hands and motors under one bed: each by its own steps', () => {
  const mixed: Adjuster[] = MOTORS.map((one, i) =>
    i === 0 ? { ...one, pitch: 0.7, clockwise: 'lowers', motor: undefined as never } : one,
  );
  delete (mixed[0] as { motor?: true }).motor;
  const plan = planTurns({ points, adjusters: mixed });
  expect(Math.abs(plan.turns[0]!.said * 16 - Math.round(plan.turns[0]!.said * 16))).toBeLessThan(1e-9);
  expect(Math.abs(plan.turns[1]!.said * 100 - Math.round(plan.turns[1]!.said * 100))).toBeLessThan(1e-9);
});

test('paper and feel tells a motor by how much, a skirt by some hundredths', () => {
  let state = startFeel({ adjusters: MOTORS, gauge: { thickness: 0.1, uncertainty: 0.003 } });
  for (let i = 0; i < 6 && nextMove(state).do === 'feel'; i++) {
    const move = nextMove(state);
    if (move.do === 'feel') state = afterFeel(state, { at: move.at, feel: 'free' });
  }
  const move = nextMove(state);
  expect(move.do).toBe('turn');
  if (move.do === 'turn') {
    expect(move.raises).toBe(true);
    expect(move.turns).toBeGreaterThan(0);
    expect(Math.abs(move.turns * 100 - Math.round(move.turns * 100))).toBeLessThan(1e-9);
  }
  const looks = { front: 'gaps', right: 'touching', rear: 'touching', left: 'touching' } as const;
  const print = { x: 0, y: 0, width: 220, depth: 220 };
  expect(skirtTrim({ adjusters: MOTORS, print, rounds: [{ looks, made: null }] })).toEqual({
    do: 'turn',
    adjuster: 'front',
    turns: 0.04,
    raises: true,
  });
});
