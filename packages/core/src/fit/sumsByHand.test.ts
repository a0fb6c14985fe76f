import { STACKS_BY_HAND, UNDERBEDS_BY_HAND } from './sumsByHand.fixture';
import { stackChange } from './stackChange';
import { underbedClearance } from './underbedClearance';

test('there are at least sixty sums by hand beside the worked ones', () => {
  expect(STACKS_BY_HAND.length + UNDERBEDS_BY_HAND.length).toBeGreaterThanOrEqual(67);
});

test.each(STACKS_BY_HAND)('stack: $why', ({ input, change, verdict, spacer, turns, take, enough, zero }) => {
  const result = stackChange(input);
  expect(result.change).toBeCloseTo(change, 9);
  expect(result.verdict).toBe(verdict);
  expect(result.spacer && [result.spacer.printed, result.spacer.layers, result.spacer.leftover]).toEqual(
    spacer ?? null,
  );
  if (turns === undefined) expect(result.screwTurns).toBeNull();
  else expect(result.screwTurns).toBeCloseTo(turns, 9);
  if (take === undefined) expect(result.adjusters).toBeNull();
  else expect(result.adjusters).toMatchObject({ take: expect.closeTo(take, 9), enough });
  if (zero === undefined) expect(result.zero).toBeNull();
  else expect(result.zero).toBe(zero);
});

test.each(UNDERBEDS_BY_HAND)('under the bed: $why', ({ why: _, input, pile, travelLeft, ...expected }) => {
  const { interference, compressed, backedOff, verdict, ...result } = underbedClearance(input);
  expect({ interference, compressed, backedOff, verdict }).toEqual(expected);
  if (pile !== undefined) expect(result.pile && [result.pile.thickness, result.pile.pieces.length]).toEqual(pile);
  if (travelLeft !== undefined) expect(result.travelLeft).toBe(travelLeft);
});
