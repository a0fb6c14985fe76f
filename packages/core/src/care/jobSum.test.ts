import { soak } from '../fit/soak';
import { soakOf, topOf, underbedOf, type ToolInputs } from '../fit/toolInputs';
import { toolAnswer } from '../fit/toolAnswer';
import { stackChange } from '../fit/stackChange';
import { topClearance } from '../fit/topClearance';
import { underbedClearance } from '../fit/underbedClearance';
import { metalOf } from '../fit/findingZ';
import { answerBySum, jobSum, knownReading, stackAsk, sumVerdict, type JobFacts, type PartFacts } from './jobSum';
import { PROCEDURES } from './procedures';
import { beginRun, type RunSetup, type RunState } from './runProcedure';
import type { FoundLayer } from './stackAfter';
import { usualChoices } from './workWell.fixture';

const procedure = (id: string) => PROCEDURES.find((known) => known.id === id)!;
const layer = (name: string, thickness: number, slot: FoundLayer['slot'], material: string | null): FoundLayer => ({
  name,
  thickness,
  slot,
  material,
  measured: true,
  limit: null,
});
const part = (facts: Partial<PartFacts>): PartFacts => ({
  tag: 'S-001',
  name: 'sheet',
  group: 'sheet',
  measured: null,
  material: 'steel',
  limit: 110,
  width: 240,
  depth: 236,
  face: 'textured',
  care: {},
  ...facts,
});
const FACTS: JobFacts = {
  family: 'filament',
  finding: 'contact-probe',
  plate: { width: 242, depth: 238 },
  print: { x: 6, y: 7, width: 228, depth: 224 },
  thread: 'M3',
  pitch: 0.5,
  z: null,
  underbed: null,
  heater: null,
  stack: [layer('plate', 3, 'platform', 'aluminium')],
  current: [layer('plate', 3, 'platform', 'aluminium')],
  parts: {},
  level: null,
  proven: true,
  platformKey: 4,
};
const run = (id: string, readings: Record<string, number>, choices: Record<string, string> = {}) => {
  const doc = procedure(id);
  const setup: RunSetup = { procedure: doc, choices: { ...usualChoices(doc), ...choices }, startedAt: 0 };
  const state: RunState = { ...beginRun(setup), readings };
  return { setup, state, step: (name: string) => doc.steps.find((step) => step.id === name)! };
};

/** Numbers that are the same each time. */
function seeded(seed: number): () => number {
  let state = seed;
  return () => ((state = (state * 48271) % 2147483647) - 1) / 2147483646;
}

describe('the stack from a job is the stack from the tool', () => {
  const random = seeded(20);
  const between = (low: number, high: number) => Math.round((low + (high - low) * random()) * 100) / 100;
  const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const WAYS = [
    { by: 'spacer', now: null },
    { by: 'spacer', now: 1.2 },
    { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' },
    { by: 'flag', part: 'flag', rides: 'moving' },
    { by: 'fixed' },
  ] as const;

  test.each(Array.from({ length: 40 }, (_, i) => i))('stack %i, pads and adhesives among them', (i) => {
    const plate = layer('plate', between(2, 6), 'platform', 'aluminium');
    const adhesive = layer('adhesive', between(0.1, 0.4), null, 'adhesive');
    const pad = layer('conductive pad', between(0.5, 1.5), null, 'pad');
    const mat = layer('mat', between(0.8, 2), 'base', 'base');
    const glass = layer('glass', between(2.8, 5), 'top', 'glass');
    // What lay there, and what of it stays, written out by hand for each case.
    const [before, stays] = one([
      [[plate], [plate]],
      [[plate, adhesive, mat], [plate]],
      [
        [plate, pad, glass],
        [plate, pad],
      ],
      [[plate, adhesive, mat, glass], [plate]],
    ] as const);
    const [base, sheet, pane, under] = [between(0.8, 2), between(0.3, 0.8), between(2.8, 5), between(0.5, 1.5)];
    const known = {
      finding: one(WAYS),
      moves: one(['head', 'bed'] as const),
      home: one(['surface', 'away'] as const),
      adjusters: one([null, { up: 2, down: 3, pitch: 0.5, clockwise: 'lowers' as const }]),
      spacerLayer: one([0.12, 0.2]),
      slack: one([null, 0.4]),
    };
    const probes = i % 4 === 0;
    const facts: JobFacts = {
      ...FACTS,
      finding: probes ? 'contact-probe' : 'endstop',
      z: probes ? null : known,
      stack: before,
      parts: {
        base: part({ name: 'base', group: 'base', material: 'base' }),
        sheet: part({}),
        glass: part({ name: 'pane', group: 'glass', material: 'glass' }),
      },
    };
    const [id, stepId, readings, choices, come] = one([
      [
        'fit-base-and-sheet',
        'add-up',
        { 'measure.base': base, 'measure.sheet': sheet },
        {},
        [layer('base', base, 'base', 'base'), layer('sheet', sheet, 'top', 'steel')],
      ],
      [
        'mount-glass',
        'move',
        { 'measure.thickness': pane, 'measure-pad.pad': under },
        { way: 'pad' },
        [layer('conductive pad', under, null, 'pad'), layer('pane', pane, 'top', 'glass')],
      ],
      [
        'base-on-glass',
        'add-up',
        { 'measure.pane': pane, 'measure.base': base, 'measure.sheet': sheet, 'measure-pad.pad': under },
        { pane: 'pad' },
        [
          layer('conductive pad', under, null, 'pad'),
          layer('glass pane', pane, null, 'glass'),
          layer('base', base, 'base', 'base'),
          layer('sheet', sheet, 'top', 'steel'),
        ],
      ],
    ] as const);
    const { setup, state, step } = run(id, readings, choices);
    const sum = jobSum(setup, state, step(stepId), facts);
    const typedIn = (layers: readonly FoundLayer[]) =>
      layers.map(({ name, thickness, material }) => ({
        name,
        thickness,
        measured: true,
        limit: null,
        metal: metalOf(material),
      }));
    const tool: ToolInputs['stack'] = {
      before: typedIn(before),
      after: typedIn([...stays, ...come]),
      family: 'filament',
      buildHeight: null,
      ...(probes
        ? { finding: { by: 'contact-probe' }, moves: null, home: null, adjusters: null, spacerLayer: 0.2, slack: null }
        : known),
    };
    expect(sum).toMatchObject({ tool: 'stack', answer: toolAnswer('stack', tool) });
    const { change } = stackChange(tool);
    const told = [...stays, ...come].reduce((all, { thickness }) => all + thickness, 0);
    expect(change).toBeCloseTo(told - before.reduce((all, { thickness }) => all + thickness, 0), 9);
  });
});

describe('every other sum from a job is the tool’s own', () => {
  test('under the bed: 7.2 + 5.5 over 11.6 is 1.1 too tall, M3 washers free it (common practice, worked)', () => {
    const { setup, state, step } = run('under-bed-check', { 'measure.stands': 12.7, 'measure.spring': 11.6 });
    const sum = jobSum(setup, state, step('add-up'), FACTS);
    const own = underbedClearance(
      underbedOf({
        parts: [{ name: 'what stands there', height: 12.7 }],
        springCompressed: 11.6,
        washers: 0,
        screw: 'M3',
        pitch: 0.5,
        backOff: 1,
        travel: null,
      }),
    );
    expect(sum).toMatchObject({ answer: { clear: false, compressed: own.compressed, backedOff: own.backedOff } });
    expect(own.interference).toBe(1.1);
    expect(sumVerdict(sum)).toBe('washers');
    expect(knownReading({ of: 'pile' }, setup, state, FACTS)).toBe(own.pile!.thickness);
    expect(own.pile!.thickness).toBeGreaterThanOrEqual(1.1);
    expect(answerBySum(setup, state, step('add-up'), FACTS)).toBe('washers');
    // Clamp and foam are added up by the sum, not by the head.
    const apart = run('under-bed-check', { 'measure.stands': 7.2, 'measure.foam': 5.5, 'measure.spring': 11.6 });
    expect(jobSum(apart.setup, apart.state, apart.step('add-up'), FACTS)).toEqual(sum);
    // The washers are a layer of the stack that homes next.
    const raised = { ...state, readings: { ...state.readings, 'washers.pile': own.pile!.thickness } };
    expect(jobSum(setup, raised, step('move'), FACTS)).toMatchObject({
      answer: { result: { change: own.pile!.thickness } },
    });
  });

  test('on top: a clip of 3 over a base of 1.3 stands 1.7 proud; a hole gives its cone', () => {
    const { setup, state, step } = run('fit-base-and-sheet', {
      'proud.height': 3,
      'measure.base': 1.3,
      'measure.sheet': 0.5,
    });
    expect(jobSum(setup, state, step('proud'), FACTS)).toMatchObject({
      answer: { items: [{ overBase: 1.7, hit: true }] },
    });
    const sunk = run('countersink-screws', { 'plan.hole': 3.3, 'plan.plate': 3 });
    const sum = jobSum(sunk.setup, sunk.state, sunk.step('plan'), FACTS);
    expect(sum!.input).not.toBeNull();
    const [item] = topClearance(topOf(sum!.input as ToolInputs['top'])).items;
    // ISO 10642, from memory: the head of M3 is 6.72 wide, that of M4 8.96. Whatever thread the adjusters have.
    expect(item!.countersink!.diameter).toBeCloseTo(6.72, 1);
    const m4 = run('countersink-screws', { 'plan.thread': 4, 'plan.hole': 4.3, 'plan.plate': 4 });
    const other = topClearance(topOf(jobSum(m4.setup, m4.state, m4.step('plan'), FACTS)!.input as ToolInputs['top']));
    expect(other.items[0]!.countersink!.diameter).toBeCloseTo(8.96, 1);
  });

  test('size, soak, spacer and what may touch it', () => {
    const base = run('fit-base-and-sheet', {});
    const parts = { base: part({ group: 'base', width: 250, depth: 236 }) };
    expect(jobSum(base.setup, base.state, base.step('size'), { ...FACTS, parts })).toMatchObject({
      answer: { verdict: 'over', by: 4 },
    });
    expect(jobSum(base.setup, base.state, base.step('size'), FACTS)).toEqual({
      tool: 'size',
      input: null,
      missing: 'size',
    });
    const remove = run('remove-old-surface', {});
    const warm = jobSum(remove.setup, remove.state, remove.step('warm'), FACTS)!;
    expect(warm.input).toMatchObject({ setpoint: 65 });
    // A hot material's bed is soaked at its own heat.
    const holds = (readings: Record<string, number>) => {
      const one = run('fit-base-and-sheet', readings);
      return jobSum(one.setup, one.state, one.step('not-holding'), FACTS)!.input;
    };
    // And by the heater of this machine, where somebody has measured how fast it warms.
    const own = { flux: 2500, ambient: 18, loss: 15, within: 2 };
    expect(jobSum(remove.setup, remove.state, remove.step('warm'), { ...FACTS, heater: own })!.input).toMatchObject(
      own,
    );
    expect([holds({}), holds({ 'not-holding.bed': 100 })]).toMatchObject([{ setpoint: 60 }, { setpoint: 100 }]);
    expect(warm).toMatchObject({
      answer: { seconds: soak(soakOf(warm.input as ToolInputs['soak'])).seconds, setpoint: 65 },
    });
    const stays = { stays: part({ face: null }) };
    expect(jobSum(remove.setup, remove.state, remove.step('residue'), { ...FACTS, parts: stays })).toMatchObject({
      missing: 'face',
    });
    // A rehearsal's stand-in is as thick as both parts together, in whole layers, never thinner.
    const flex = run('fit-flex-on-resin', { 'measure.magnet': 1.53, 'measure.flex': 0.5 }, { rehearsal: 'spacer' });
    const dummy = jobSum(flex.setup, flex.state, flex.step('print-dummy'), { ...FACTS, family: 'resin' });
    expect(dummy).toMatchObject({ tool: 'spacer', answer: { layers: 11, printed: 2.2 } });
  });

  // Common practice: acetone takes the bonding coat off a film; steel wool is for rough metal.
  test('what touches a part is asked of its face: by the step, or by what was chosen', () => {
    const parts = (face: PartFacts['face']) => ({ ...FACTS, parts: { stays: part({ face }), sheet: part({ face }) } });
    const off = (residue: string) => run('remove-old-surface', {}, { residue });
    const acetone = off('acetone');
    const ask = (one: ReturnType<typeof run>, step: string, face: PartFacts['face']) =>
      jobSum(one.setup, one.state, one.step(step), parts(face));
    expect(ask(acetone, 'residue', 'polymer-film')).toMatchObject({ tool: 'together', answer: { answer: 'no' } });
    expect(ask(acetone, 'residue', 'bare-steel')).not.toMatchObject({ answer: { answer: 'no' } });
    expect(ask(off('alcohol'), 'residue', 'polymer-film')).not.toMatchObject({ answer: { answer: 'no' } });
    for (const { steps, id } of PROCEDURES)
      for (const { id: step, sum } of steps) {
        if (sum !== 'together') continue;
        const one = run(id, {});
        const facts = { ...FACTS, parts: Object.fromEntries(one.setup.procedure.parts.map((p) => [p.id, part({})])) };
        const found = jobSum(one.setup, one.state, one.step(step), facts);
        expect(found).toMatchObject({ tool: 'together', answer: { because: expect.any(String) } });
        if (id !== 'fit-flex-on-resin') expect(found).not.toMatchObject({ answer: { answer: 'unknown' } });
      }
  });

  test('blanks: 127 twice out of 254 is one with a kerf, two snapped (common practice: a saw eats its kerf)', () => {
    const sizes = { 'plan.sheetWidth': 254, 'plan.sheetDepth': 100, 'plan.width': 127, 'plan.depth': 100 };
    const saw = run('cut-laminate', { ...sizes, 'plan.kerf': 1 });
    expect(jobSum(saw.setup, saw.state, saw.step('plan'), FACTS)).toMatchObject({ answer: { pieces: 1 } });
    // What is left for truing goes round each piece: 100 and 2 × 1 twice out of 206 is one with a kerf of 1.5, two out of 206 with 1.
    const truing = {
      'plan.sheetWidth': 206,
      'plan.sheetDepth': 60,
      'plan.width': 100,
      'plan.depth': 50,
      'plan.allowance': 1,
    };
    const pieces = (kerf: number, more: object = {}) => {
      const one = run('cut-laminate', { ...truing, 'plan.kerf': kerf, ...more });
      return jobSum(one.setup, one.state, one.step('plan'), FACTS);
    };
    expect(pieces(2)).toMatchObject({ answer: { pieces: 2 } });
    expect(pieces(2.1)).toMatchObject({ answer: { pieces: 1 } });
    // An allowance below the kerf is one like another.
    expect(pieces(6, { 'plan.allowance': 0.1, 'plan.sheetWidth': 300 })).toMatchObject({ answer: { pieces: 2 } });
    const glass = run('cut-glass', sizes);
    expect(jobSum(glass.setup, glass.state, glass.step('plan'), FACTS)).toMatchObject({ answer: { pieces: 2 } });
  });
});

describe('what is not known is said, and nobody is told that nothing has to move', () => {
  const { setup, state, step } = run('fit-base-and-sheet', { 'measure.base': 1.4, 'measure.sheet': 0.5 });

  test('the answer goes by the sum only where it is sure', () => {
    expect(answerBySum(setup, state, step('add-up'), FACTS)).toBe('nothing');
    // An endstop of which nothing more is known: it asks.
    expect(answerBySum(setup, state, step('add-up'), { ...FACTS, finding: 'endstop' })).toBeNull();
    expect(answerBySum(setup, { ...state, readings: {} }, step('add-up'), FACTS)).toBeNull();
    expect(answerBySum(setup, state, step('home'), FACTS)).toBeNull();
  });

  test('a page and a plan that contradict each other are not chosen between', () => {
    const z = {
      finding: { by: 'spacer' },
      moves: 'head',
      home: 'surface',
      adjusters: null,
      spacerLayer: 0.2,
      slack: null,
    } as const;
    expect(stackAsk(setup, state, step('add-up'), { ...FACTS, z })).toBe('finding-differs');
    expect(stackAsk(setup, state, step('add-up'), { ...FACTS, finding: 'endstop', z })).toMatchObject({
      finding: { by: 'spacer' },
    });
  });

  test('a probe that senses metal has to know what the top is made of', () => {
    const facts: JobFacts = { ...FACTS, finding: 'inductive-probe', parts: {} };
    expect(stackAsk(setup, state, step('add-up'), facts)).toBe('top-material');
    expect(stackAsk(setup, state, step('add-up'), { ...facts, parts: { sheet: part({}) } })).toMatchObject({
      after: expect.arrayContaining([expect.objectContaining({ metal: 'steel' })]),
    });
  });

  test('what calipers said is not asked again, what a label says is', () => {
    const known = (measured: number | null) =>
      knownReading({ of: 'thickness', part: 'base' }, setup, state, { ...FACTS, parts: { base: part({ measured }) } });
    expect(known(1.42)).toBe(1.42);
    expect(known(null)).toBeNull();
    expect(knownReading({ of: 'lowest-layer' }, setup, state, FACTS)).toBe(3);
    expect(knownReading({ of: 'plate', side: 'width' }, setup, state, FACTS)).toBe(242);
    expect(knownReading({ of: 'spring' }, setup, state, FACTS)).toBeNull();
  });

  test('a level check that ended within the aim answers for itself; none, and it is asked', () => {
    expect(answerBySum(setup, state, step('level'), FACTS)).toBeNull();
    const level = (within: boolean) =>
      answerBySum(setup, state, step('level'), { ...FACTS, level: { range: 0.1, within } });
    expect([level(true), level(false)]).toEqual(['within', 'over']);
  });
});

test('thin pieces are read by place, and by whether the level was proven', () => {
  const doc = PROCEDURES.find(({ id }) => id === 'first-print-resin')!;
  const setup = { procedure: doc, choices: {}, startedAt: 0 };
  const read = doc.steps.find(({ id }) => id === 'read')!;
  const ids = Object.values(read.takes!);
  const answer = (bad: number[], proven: boolean) => {
    const readings = Object.fromEntries(ids.map((id, i) => [id, bad.includes(i) ? 2 : 0]));
    return answerBySum(setup, { ...beginRun(setup), at: 'read', readings }, read, {
      ...FACTS,
      family: 'resin',
      proven,
    });
  };
  expect(answer([], true)).toBe('all');
  expect(answer([6, 7, 8], true)).toBe('side');
  expect(answer([4], true)).toBe('centre');
  expect(answer([4], false)).toBe('unsure');
  expect(answer([0, 1, 2, 3, 4, 5, 6, 7, 8], true)).toBe('none');
  expect(answer([0, 1, 2, 3, 4, 5, 6, 7, 8], false)).toBe('unproven');
  // One not looked at: nobody is told anything.
  expect(answerBySum(setup, { ...beginRun(setup), at: 'read', readings: { [ids[0]!]: 0 } }, read, FACTS)).toBeNull();
});
