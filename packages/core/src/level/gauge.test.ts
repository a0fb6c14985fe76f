import { gaugeEffect, gaugeOf } from './gauge';

test('ten between the calipers, divided; folded is two', () => {
  const ten = gaugeOf({ kind: 'paper', caliper: { pieces: 10, reading: 1.04 }, layers: 1 });
  expect(ten.thickness).toBeCloseTo(0.104, 9);
  expect(ten.uncertainty).toBeLessThan(0.003);
  const one = gaugeOf({ kind: 'paper', caliper: { pieces: 1, reading: 0.1 }, layers: 1 });
  expect(one.uncertainty).toBeGreaterThan(3 * ten.uncertainty);
  const folded = gaugeOf({ kind: 'paper', caliper: { pieces: 10, reading: 1.04 }, layers: 2 });
  expect(folded.thickness).toBeCloseTo(0.208, 9);
  expect(folded.uncertainty).toBeGreaterThan(ten.uncertainty);
});

test('by its name alone it is known to a fifth', () => {
  const named = gaugeOf({ kind: 'card', caliper: null, layers: 1 });
  expect(named.uncertainty / named.thickness).toBeCloseTo(0.2, 9);
});

test('levelled with 0.21, the nozzle stands 0.11 higher than a 0.10 sheet leaves it (common practice, worked)', () => {
  const { higher, offset, turns } = gaugeEffect({ thickness: 0.21, pitch: 0.5 });
  expect(higher).toBeCloseTo(0.11, 9);
  expect(offset).toBeCloseTo(-0.11, 9);
  // 0.22 of a turn; three sixteenths leave the nozzle a hair high, a quarter would scrape.
  expect(turns).toBe(3 / 16);
  expect(gaugeEffect({ thickness: 0.21, pitch: null }).turns).toBeNull();
});

test('turns never lower the nozzle by more than it stands too high', () => {
  for (let thickness = 0.02; thickness < 0.6; thickness += 0.007)
    for (const pitch of [0.35, 0.5, 0.7, 1]) {
      const { higher, turns } = gaugeEffect({ thickness, pitch });
      expect(turns! * pitch).toBeLessThanOrEqual(higher + 1e-12);
      expect(higher - turns! * pitch).toBeLessThanOrEqual(pitch / 16 + 1e-12);
    }
});

test.each([
  [{ kind: 'paper', caliper: { pieces: 0, reading: 1 }, layers: 1 }],
  [{ kind: 'paper', caliper: { pieces: 10, reading: 0 }, layers: 1 }],
  [{ kind: 'paper', caliper: { pieces: 10, reading: NaN }, layers: 1 }],
  [{ kind: 'paper', caliper: null, layers: 0 }],
  [{ kind: 'paper', caliper: null, layers: 1.5 }],
] as const)('%j is refused', (ask) => expect(() => gaugeOf(ask)).toThrow());
