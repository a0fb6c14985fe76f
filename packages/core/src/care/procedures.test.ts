import { checkProcedure, combinations } from './checkProcedure';
import { DONE, type Procedure, type ProcedureStep } from './procedure';
import { PROCEDURES } from './procedures';
import {
  applyRunEvent,
  beginRun,
  effectsOf,
  readyAt,
  replayRun,
  RunRefusal,
  stepOf,
  straightWay,
  timerOf,
  type RunEvent,
  type RunSetup,
  type RunState,
} from './runProcedure';
import { doneWell, goodReadings, inTime } from './workWell.fixture';

const HOUR = 3_600_000;
const usual = ({ choices }: Procedure) => Object.fromEntries(choices.map(({ id, usual: option }) => [id, option]));
const procedure = (id: string) => PROCEDURES.find((known) => known.id === id)!;

/** Every way of leaving the step in hand. */
function waysOut(setup: RunSetup, state: RunState): RunEvent[] {
  const step = stepOf(setup, state);
  const at = inTime(setup, state);
  const good = goodReadings(step);
  const all = { kind: 'done' as const, stepId: step.id, checks: step.gate?.checks.map((_, i) => i) ?? [] };
  return [
    ...(step.ask ? step.ask.answers.map(({ id }) => doneWell(setup, state, id)) : [doneWell(setup, state)]),
    ...step.cant.map((_, way): RunEvent => ({ kind: 'cant', stepId: step.id, at, way, note: '' })),
    ...(step.branches ?? []).map(({ reading, over, under }): RunEvent => {
      const { min, max } = step.readings!.find(({ id }) => id === reading)!;
      return {
        ...all,
        at,
        readings: { ...good, [reading]: over === undefined ? (min + under!) / 2 : (max + over) / 2 },
        answer: null,
      };
    }),
    ...(step.timer?.late === undefined
      ? []
      : [{ ...all, at: timerOf(setup, state)!.late! + 1000, readings: good, answer: null } as RunEvent]),
  ];
}

describe.each(PROCEDURES.map((known) => [known.id, known] as const))('%s', (_, doc) => {
  test('is whole: names, ends, gates', () => expect(checkProcedure(doc)).toEqual([]));

  test('can be written as JSON and read again', () => expect(JSON.parse(JSON.stringify(doc))).toEqual(doc));

  test('each way out of each step is walked, and each walk goes on to an end, under every combination of schools', () => {
    const walked = new Set<string>();
    for (const choices of combinations(doc)) {
      const setup: RunSetup = { procedure: doc, choices, startedAt: 0 };
      // Every state by its step: all ways out of it, once.
      const open: RunState[] = [beginRun(setup)];
      const seen = new Set<string>();
      while (open.length > 0) {
        const state = open.pop()!;
        if (state.at === null || seen.has(state.at)) continue;
        seen.add(state.at);
        walked.add(state.at);
        for (const event of waysOut(setup, state)) {
          const after = applyRunEvent(setup, state, event);
          expect(effectsOf(setup, event, after)).toBeDefined();
          open.push(after);
          expect(endOf(setup, after)).toBe('ended');
        }
      }
    }
    // No step is dead.
    expect(doc.steps.map(({ id }) => id).filter((id) => !walked.has(id))).toEqual([]);
  });

  test('each gate refuses what is not ticked and each reading that is out', () => {
    for (const step of doc.steps.filter(({ gate }) => gate)) {
      const only = step.only ? { [step.only.choice]: step.only.is[0]! } : {};
      const setup: RunSetup = { procedure: doc, choices: { ...usual(doc), ...only }, startedAt: 0 };
      const state: RunState = { ...beginRun(setup), at: step.id };
      const good = doneWell(setup, state);
      expect(applyRunEvent(setup, state, good).at).not.toBe(step.id);
      for (const i of step.gate!.checks.keys())
        expect(() => applyRunEvent(setup, state, { ...good, checks: good.checks.filter((c) => c !== i) })).toThrow(
          'Not yet',
        );
      for (const { id, min, max, least, most } of step.readings ?? []) {
        const caught = step.branches?.some(({ reading }) => reading === id);
        if (caught) continue;
        if (least !== undefined && least > min)
          expect(() => applyRunEvent(setup, state, { ...good, readings: { ...good.readings, [id]: min } })).toThrow(
            'Not yet',
          );
        if (most !== undefined && most < max)
          expect(() => applyRunEvent(setup, state, { ...good, readings: { ...good.readings, [id]: max } })).toThrow(
            'Not yet',
          );
      }
    }
  });

  test('a run killed after each event stands where it stood when it is replayed', () => {
    const setup: RunSetup = { procedure: doc, choices: usual(doc), startedAt: 0 };
    const events: RunEvent[] = [];
    let state = beginRun(setup);
    while (state.at !== null) {
      const event = doneWell(setup, state);
      state = applyRunEvent(setup, state, event);
      events.push(event);
      const again = replayRun(setup, JSON.parse(JSON.stringify(events)) as RunEvent[]);
      expect({ ...again, before: null }).toEqual({ ...state, before: null });
    }
    expect(state.ended).toBe('done');
    expect(events).toHaveLength(straightWay(setup).length);
  });
});

/** Goes on from a state, each time by the way out that leads nearest to an end. */
function endOf(setup: RunSetup, from: RunState): string {
  let open = [from];
  const seen = new Set<string>();
  while (open.length > 0) {
    const next: RunState[] = [];
    for (const state of open) {
      if (state.at === null) return 'ended';
      if (seen.has(state.at)) continue;
      seen.add(state.at);
      for (const event of waysOut(setup, state)) next.push(applyRunEvent(setup, state, event));
    }
    open = next;
  }
  return `no end from ${from.at}`;
}

test('they are twelve, for both families', () => {
  expect(PROCEDURES).toHaveLength(12);
  expect(new Set(PROCEDURES.map(({ family }) => family))).toEqual(new Set(['any', 'filament', 'resin']));
  const irreversible = PROCEDURES.flatMap(({ steps }) => steps.filter(({ onceOnly }) => onceOnly));
  expect(irreversible.length).toBeGreaterThan(8);
});

describe('what a faulty document is told', () => {
  const good = procedure('fit-base-and-sheet');
  const changed = (id: string, part: Partial<ProcedureStep>): Procedure => ({
    ...good,
    steps: good.steps.map((step) => (step.id === id ? { ...step, ...part } : step)),
  });
  const said = (doc: Procedure) =>
    checkProcedure(doc)
      .map(({ stepId, message }) => `${stepId}: ${message}`)
      .join('\n');

  test.each([
    [
      'a gate taken away',
      changed('roll-gate', { gate: undefined as never }),
      /roll: It can’t be undone, and a way leads here past every gate/,
    ],
    ['a way round a gate', changed('strip', { next: 'press' }), /press: It can’t be undone/],
    [
      'a gate passed over by a school',
      changed('align', { only: { choice: 'from', is: ['back'] } }),
      /press: It can’t be undone/,
    ],
    ['a step that leads nowhere', changed('zero', { next: 'nowhere' }), /“nowhere”, which is no step/],
    [
      'a circle without an end',
      changed('not-holding', { cant: [{ label: 'no', to: 'not-holding' }], next: 'not-holding' }),
      /not-holding: From here no end/,
    ],
    ['no way out', changed('zero', { cant: [] }), /what to do when it can’t be done/],
    ['an empty gate', changed('move', { gate: { checks: [] } }), /checks nothing/],
    ['a branch on nothing', changed('level', { readings: [] }), /branches on “range”/],
    [
      'limits that contradict',
      changed('measure', { readings: [{ id: 'base', label: 'Base', unit: 'mm', min: 5, max: 1 }] }),
      /contradict/,
    ],
    [
      'a sum of what nobody reads',
      changed('add-up', { layers: [{ slot: 'top', reading: 'measure.weight' }] }),
      /“measure.weight”, which nobody reads/,
    ],
    ['an unknown part', changed('roll', { effects: [{ kind: 'mount', part: 'lid' }] }), /“lid”, which is not there/],
    [
      'hours that are not said',
      changed('weight', { timer: { name: 'x', least: { hoursOf: 'from' } } }),
      /how many hours/,
    ],
    ['an unknown school', changed('weight', { only: { choice: 'wait', is: ['48'] } }), /“48” is no option/],
    [
      'late to nowhere',
      changed('weight', { timer: { name: 'x', most: { seconds: 5 } } }),
      /does not say where that leads/,
    ],
    ['a step twice', { ...good, steps: [...good.steps, good.steps[0]!] }, /stands there twice/],
    ['a place that its picture lacks', changed('align', { picture: 'six-lines', mark: 7 }), /does not have/],
    ['a place of no picture', changed('align', { picture: undefined as never, mark: 1 }), /does not have/],
    ['no step', { ...good, steps: [] }, /no step/],
  ] as const)('%s', (_, doc, words) => expect(said(doc as Procedure)).toMatch(words));
});

describe('running one', () => {
  const doc = procedure('fit-base-and-sheet');
  const setup: RunSetup = { procedure: doc, choices: { ...usual(doc), wait: '72' }, startedAt: 0 };
  const at = (stepId: string, enteredAt = 0): RunState => ({ ...beginRun(setup), at: stepId, enteredAt });

  test('the cure lasts as long as the school says, and not a moment less', () => {
    const state = at('untouched', 1000);
    const early = { ...doneWell(setup, state), at: 1000 + 72 * HOUR - 1 } as RunEvent;
    expect(() => applyRunEvent(setup, state, early)).toThrow('not before its time is up');
    expect(applyRunEvent(setup, state, { ...early, at: 1000 + 72 * HOUR }).at).toBe('move');
  });

  test('ready times are known while still choosing (common practice: 72 h untouched, 24 h under a weight)', () => {
    const ready = (wait: string) => readyAt({ procedure: doc, choices: { ...usual(doc), wait } }, 0);
    expect(ready('72') - ready('24')).toBeGreaterThan(47 * HOUR);
    expect(ready('24') - ready('none')).toBeGreaterThan(23.8 * HOUR);
    expect(ready('none')).toBeCloseTo(doc.minutes * 60_000, -3);
  });

  test('a warm sheet that cooled down is warmed again', () => {
    const remove = procedure('remove-old-surface');
    const own: RunSetup = { procedure: remove, choices: usual(remove), startedAt: 0 };
    const state: RunState = { ...beginRun(own), at: 'peel', enteredAt: 0 };
    const event = { ...doneWell(own, state), at: 901_000 } as RunEvent;
    const after = applyRunEvent(own, state, event);
    expect(after.at).toBe('warm');
    expect(effectsOf(own, event, after)).toEqual([]);
  });

  test('a crooked strip and a knock lead to where they are put right', () => {
    expect(applyRunEvent(setup, at('press'), doneWell(setup, at('press'), 'crooked')).at).toBe('crooked');
    const knock = applyRunEvent(setup, at('home'), doneWell(setup, at('home'), 'knock'));
    expect(knock.at).toBe('knock');
    expect(applyRunEvent(setup, knock, doneWell(setup, knock, 'trip')).at).toBe('move');
  });

  test('the bond starts the hold and puts the base on; a branch does neither', () => {
    const event = doneWell(setup, at('roll'), 'flat');
    expect(effectsOf(setup, event, applyRunEvent(setup, at('roll'), event)).map(({ kind }) => kind)).toEqual([
      'mount',
      'hold',
      'materials',
    ]);
    const bubble: RunEvent = { kind: 'cant', stepId: 'roll', at: 1000, way: 0, note: '' };
    // The base is down all the same.
    expect(effectsOf(setup, bubble, applyRunEvent(setup, at('roll'), bubble)).map(({ kind }) => kind)).toEqual([
      'mount',
      'hold',
    ]);
    const gate = at('roll-gate');
    const skewed = { ...doneWell(setup, gate), readings: { skew: 10 } } as RunEvent;
    const after = applyRunEvent(setup, gate, skewed);
    expect(after.at).toBe('crooked');
    expect(effectsOf(setup, skewed, after)).toEqual([]);
  });

  test('the light test writes down code and feeler', () => {
    const plate = procedure('check-plate');
    const own: RunSetup = { procedure: plate, choices: {}, startedAt: 0 };
    const state: RunState = { ...beginRun(own), at: 'along-left' };
    const event = { ...doneWell(own, state, 'clear'), readings: { feeler: 0.15 } } as RunEvent;
    expect(effectsOf(own, event, applyRunEvent(own, state, event))).toEqual([
      { kind: 'inspect', part: 'plate', card: 'light-line', code: 'clear', numbers: { feeler: 0.15 } },
    ]);
  });

  test('a slip of the finger is refused at its field', () => {
    const state = at('measure');
    const event = { ...doneWell(setup, state), readings: { base: 120, sheet: 0.5 } } as RunEvent;
    const refusal = (() => {
      try {
        applyRunEvent(setup, state, event);
      } catch (error) {
        return error as RunRefusal;
      }
      return null;
    })();
    expect(refusal).toBeInstanceOf(RunRefusal);
    expect(refusal!.fields).toEqual({ 'readings.base': 'Base must lie between 0.2 and 8 mm.' });
  });

  test('undo goes back one step and keeps notes; twice goes back two', () => {
    const one = applyRunEvent(setup, at('measure'), doneWell(setup, at('measure')));
    const two = applyRunEvent(setup, one, doneWell(setup, one, 'nothing'));
    const noted = applyRunEvent(setup, two, { kind: 'noted', at: 9, stepId: two.at!, note: 'cold room' });
    const back = applyRunEvent(setup, noted, { kind: 'undone', at: 10, stepId: noted.at! });
    expect(back.at).toBe('add-up');
    expect(back.notes.map(({ note }) => note)).toEqual(['cold room']);
    expect(applyRunEvent(setup, back, { kind: 'undone', at: 11, stepId: 'add-up' }).at).toBe('measure');
    expect(() => applyRunEvent(setup, beginRun(setup), { kind: 'undone', at: 1, stepId: 'off-old' })).toThrow(
      'no step before',
    );
  });

  test('it is handed over with a note, and stopped only with a reason', () => {
    const state = at('measure');
    const handed = applyRunEvent(setup, state, {
      kind: 'handed-over',
      at: 5,
      stepId: 'measure',
      toId: 'otto',
      toName: 'Otto',
      note: 'calipers are in the drawer',
    });
    expect(handed).toMatchObject({ at: 'measure', holderId: 'otto' });
    expect(handed.notes[0]!.note).toBe('Handed over to Otto: calipers are in the drawer');
    expect(() => applyRunEvent(setup, state, { kind: 'stopped', at: 5, stepId: 'measure', why: ' ' })).toThrow(
      'Say why',
    );
    const stopped = applyRunEvent(setup, state, { kind: 'stopped', at: 5, stepId: 'measure', why: 'power cut' });
    expect(stopped).toMatchObject({ at: null, ended: 'stopped' });
    expect(() => applyRunEvent(setup, stopped, doneWell(setup, state))).toThrow('has ended');
  });

  test('what another device did meanwhile is not done twice', () => {
    const state = at('measure');
    const event = doneWell(setup, state);
    expect(() => applyRunEvent(setup, applyRunEvent(setup, state, event), event)).toThrow('another step');
  });
});

test('the end has its name', () => expect(DONE).toBe('end:done'));

test('each line of the light test means its own place in the picture', () => {
  const lines = procedure('check-plate').steps.filter(({ picture }) => picture === 'six-lines');
  expect(lines.map(({ mark }) => mark)).toEqual([1, 2, 3, 4, 5, 6]);
});
