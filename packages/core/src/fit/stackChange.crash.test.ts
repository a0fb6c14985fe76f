import { METALS, SENSED } from './inductiveProbe';
import { stackChange, type FitLayer, type StackChangeInput, type ZFinding } from './stackChange';
import { follow, sensesOf, type StackMachine } from './stackMachine.fixture';
import { seededRandom } from '../level/seededMap.fixture';
import { proved, trials } from '../simulated/prove.fixture';
import { spacerSolid } from './spacerSolid';

const pick = <T>(random: () => number, values: readonly T[]): T => values[Math.floor(random() * values.length)]!;
const upTo = (random: () => number, most: number) => Math.round(random() * most * 1000) / 1000;

function situation(seed: number): StackMachine & { real: FitLayer[] } {
  const random = seededRandom(seed);
  const family = pick(random, ['filament', 'resin'] as const);
  const layers = (n: number): FitLayer[] =>
    Array.from({ length: n }, (_, i) => ({
      name: `layer ${i}`,
      thickness: upTo(random, 5),
      metal: random() < 0.4 ? pick(random, METALS) : null,
    }));
  const plate: FitLayer = { name: 'plate', thickness: 3, metal: pick(random, ['steel', 'aluminium'] as const) };
  const finding: ZFinding = pick(random, [
    { by: 'spacer', now: random() < 0.5 ? null : upTo(random, 4) },
    {
      by: 'stop-screw',
      pitch: pick(random, [0.35, 0.5, 0.7, 0.8, 25.4 / 32]),
      clockwise: pick(random, ['sooner', 'later'] as const),
    },
    { by: 'flag', part: pick(random, ['flag', 'sensor'] as const), rides: pick(random, ['moving', 'frame'] as const) },
    { by: 'fixed' },
    { by: 'fixed' },
    { by: 'contact-probe' },
    {
      by: 'inductive-probe',
      range: random() < 0.8 ? 2 + upTo(random, 6) : null,
      above: random() < 0.8 ? 0.5 + upTo(random, 3) : null,
    },
  ] as const satisfies readonly ZFinding[]);
  const real = [plate, ...layers(Math.floor(random() * 3))];
  // Now and then nobody says what lay there, or that it was metal: the machine senses it all the same.
  const unsaid = finding.by === 'inductive-probe' ? random() : 1;
  const before = unsaid < 0.07 ? [] : unsaid < 0.15 ? real.map((layer) => ({ ...layer, metal: null })) : real;
  const after = random() < 0.1 ? layers(1 + Math.floor(random() * 2)) : [plate, ...layers(Math.floor(random() * 3))];
  const senses = sensesOf(random);
  const adjusters = random() < 0.5 ? null : { up: upTo(random, 4), down: upTo(random, 4) };
  const turned =
    random() < 0.5 ? {} : { pitch: pick(random, [0.5, 0.7]), clockwise: pick(random, ['raises', 'lowers'] as const) };
  const slackTrue =
    finding.by === 'inductive-probe' ? clearToday(finding, real, senses) : random() < 0.5 ? 0 : upTo(random, 4);
  const input: StackChangeInput = {
    before,
    after,
    finding,
    family,
    moves: family === 'resin' ? pick(random, ['platform', null] as const) : pick(random, ['head', 'bed'] as const),
    home: pick(random, ['surface', 'away'] as const),
    adjusters: adjusters && { ...adjusters, ...turned },
    spacerLayer: random() < 0.2 ? null : pick(random, [0.1, 0.15, 0.2, 0.28, 0.3]),
    slack: random() < 0.5 ? slackTrue : null,
  };
  return { input, slack: slackTrue, senses, real };
}

/** What the nozzle is clear of the surface by when the probe trips today; a probe that works today stands clear. */
function clearToday(
  finding: Extract<ZFinding, { by: 'inductive-probe' }>,
  before: readonly FitLayer[],
  senses: StackMachine['senses'],
) {
  const at = before.findLastIndex(({ metal }) => metal != null);
  const over = before.slice(at + 1).reduce((sum, { thickness }) => sum + thickness, 0);
  return (finding.range ?? 4) * senses(before[at]!) - over - (finding.above ?? 2);
}

/** Is there an order of steps that a person could do and that ends clear of the surface, by trying the moves there are? */
function couldBeSafe({ input }: StackMachine): boolean {
  const { finding, adjusters, family } = input;
  const change =
    input.after.reduce((sum, { thickness }) => sum + thickness, 0) -
    input.before.reduce((sum, { thickness }) => sum + thickness, 0);
  if (finding.by === 'inductive-probe') {
    const at = input.after.findLastIndex(({ metal }) => metal != null);
    if (at < 0) return false;
    // Label and metal may be such as are sensed from as near as they are known for: safe has to hold for them too. Where
    // today's gap was looked at, or the machine is known to work, the same piece is sensed as it is today.
    const top = input.after[at]!;
    const over = (layers: readonly FitLayer[], i: number) =>
      layers.slice(i + 1).reduce((sum, { thickness }) => sum + thickness, 0);
    const was = input.before.findLastIndex(({ metal }) => metal != null);
    const label = 0.81 * finding.range! * SENSED[top.metal!][0];
    const works =
      was < 0
        ? 0
        : (((input.slack ?? 0) + over(input.before, was) + finding.above!) *
            (input.before[was]!.name === top.name && input.before[was]!.thickness === top.thickness
              ? 1
              : SENSED[top.metal!][0])) /
          (input.before[was]!.name === top.name && input.before[was]!.thickness === top.thickness
            ? 1
            : SENSED[input.before[was]!.metal!][1]);
    const least = Math.max(label, works) - over(input.after, at);
    for (let lower = 0; lower <= finding.above! - 0.5 + 1e-9; lower += 0.005)
      if (least - (finding.above! - lower) >= 0) return true;
    return false;
  }
  const [up, down] = [adjusters?.up ?? 0, adjusters?.down ?? 0];
  const most = family === 'resin' ? up : down;
  // What is told of the gap is what counts: nobody may lean on one that was not looked at.
  return (input.slack ?? 0) - change + most >= 0;
}

const SITUATIONS = trials(40_000, 8_000);
test(`over ${SITUATIONS} situations the steps, followed to the letter, never end in the surface; each refusal is one`, () => {
  const seen = { none: 0, do: 0, ask: 0, stop: 0 };
  for (let seed = 1; seed <= SITUATIONS; seed++) {
    const machine = situation(seed);
    // A probe that stands in the surface today is no machine.
    if (machine.input.finding.by === 'inductive-probe' && machine.slack < 0.05) continue;
    const result = stackChange(machine.input);
    seen[result.verdict]++;
    const about = () => JSON.stringify({ seed, ...machine, result });
    if (result.verdict === 'ask') {
      const { finding } = machine.input;
      if (finding.by !== 'inductive-probe' || (finding.range !== null && finding.above !== null))
        throw new Error(about());
      continue;
    }
    if (result.verdict === 'stop') {
      if (couldBeSafe(machine)) throw new Error(`refused: ${about()}`);
      continue;
    }
    const { worst, atZero, tripped } = follow(
      { ...machine, input: { ...machine.input, before: machine.real } },
      result.steps,
    );
    if (!tripped || !(worst >= -0.01 - 1e-9) || !(Math.abs(atZero - result.gap) <= 0.01 + 1e-9))
      throw new Error(`${worst} at worst, ${atZero} at zero, said ${result.gap}: ${about()}`);
  }
  expect(seen.do).toBeGreaterThan(0.4 * SITUATIONS);
  expect(seen.stop).toBeGreaterThan(0.015 * SITUATIONS);
  expect(seen.none).toBeGreaterThan(0.02 * SITUATIONS);
  expect(seen.ask).toBeGreaterThan(0.005 * SITUATIONS);
  proved('stack', 'in the surface at any step', `0 of ${seen.do + seen.none}`);
});

test('without the steps the same machines do end in the surface: the model can tell', () => {
  let hit = 0;
  for (let seed = 1; seed <= 2_000; seed++) {
    const machine = situation(seed);
    if (follow(machine, [{ do: 'home' }]).worst < -0.01) hit++;
  }
  expect(hit).toBeGreaterThan(500);
});

describe('every pair of family, what moves, where home lies, thicker or thinner, and what can be moved', () => {
  const machines = [
    { family: 'filament', moves: 'head' },
    { family: 'filament', moves: 'bed' },
    { family: 'resin', moves: null },
  ] as const;
  const findings: ZFinding[] = [
    { by: 'spacer' },
    { by: 'spacer', now: 1 },
    { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' },
    { by: 'stop-screw', pitch: 0.5, clockwise: 'later' },
    { by: 'flag', part: 'flag', rides: 'moving' },
    { by: 'flag', part: 'sensor', rides: 'frame' },
    { by: 'fixed' },
    { by: 'contact-probe' },
  ];
  const layer = (thickness: number) => [{ name: 'layer', thickness }];
  for (const machine of machines)
    for (const home of ['surface', 'away'] as const)
      for (const finding of findings)
        for (const [from, to] of [
          [1, 2.7],
          [2.7, 1],
        ] as const)
          test(`${machine.family} ${machine.moves ?? 'platform'}, home ${home}, ${JSON.stringify(finding)}, ${from} to ${to}`, () => {
            const input = {
              ...machine,
              home,
              finding,
              before: layer(from),
              after: layer(to),
              spacerLayer: 0.2,
              adjusters: { up: 5, down: 5 },
            };
            const result = stackChange(input);
            const { worst, atZero } = follow({ input, slack: 0, senses: sensesOf(() => 0.5) }, result.steps);
            expect(result.verdict).not.toBe('stop');
            expect(worst).toBeGreaterThanOrEqual(-0.01);
            expect(atZero).toBeLessThanOrEqual(0.01);
          });
});

test('the spacer tool makes what was advised, over 5,955 pairs of thickness and layer, and never thinner', () => {
  let pairs = 0;
  for (let thickness = 0.02; thickness < 8; thickness += 0.0067)
    for (const layer of [0.1, 0.15, 0.2, 0.25, 0.3]) {
      const wanted = Number(thickness.toFixed(4));
      const { spacer } = stackChange({
        before: [],
        after: [{ name: 'top', thickness: wanted }],
        finding: { by: 'spacer' },
        moves: 'head',
        home: 'surface',
        spacerLayer: layer,
      });
      const made = spacerSolid({ shape: 'pad', thickness: wanted, layer, width: 10, depth: 10, hole: 0 });
      if (made.layers !== spacer!.layers || made.printed < wanted - 1e-9) throw new Error(`${wanted} at ${layer}`);
      pairs++;
    }
  expect(pairs).toBeGreaterThan(5_900);
});

test.each([
  { slack: NaN },
  { slack: Infinity },
  { slack: -1 },
  { buildHeight: NaN },
  { spacerLayer: NaN },
  { spacerLayer: Infinity },
  { adjusters: { up: NaN, down: 1 } },
  { adjusters: { up: 1 } as never },
  { adjusters: { up: 1, down: 1, pitch: NaN } },
  { adjusters: { up: 1, down: 1, pitch: 0.5, clockwise: 'sideways' as never } },
  { moves: 'table' as never },
  { moves: 'platform' as const },
  { home: 'nowhere' as never },
  { family: 'laser' as never },
  { finding: { by: 'magic' } as never },
  { finding: { by: 'spacer', now: NaN } as const },
  { finding: { by: 'stop-screw', pitch: Infinity, clockwise: 'sooner' } as const },
  { finding: { by: 'stop-screw', clockwise: 'sooner' } as never },
  { finding: { by: 'stop-screw', pitch: 0.5, clockwise: 'maybe' } as never },
  { finding: { by: 'flag', part: 'flag', rides: 'air' } as never },
  { finding: { by: 'inductive-probe', range: NaN } as const },
  { after: [{ name: 'top', thickness: Infinity }] },
  { after: [{ name: 'top', thickness: 1, metal: 'tin' as never }] },
])('what is no number or no known word is refused by name: %p', (more) => {
  const ask = {
    before: [],
    after: [{ name: 'top', thickness: 2 }],
    finding: { by: 'fixed' },
    moves: 'head',
    home: 'surface',
  } as const;
  expect(() => stackChange({ ...ask, ...more })).toThrow(RangeError);
  expect(() => stackChange({ ...ask, ...more })).toThrow(/needs|knows/);
});
