import { checkProcedure, combinations } from './checkProcedure';
import { DONE, type Procedure, type ProcedureStep } from './procedure';
import { PROCEDURES } from './procedures';
import {
  askOf,
  cardEvents,
  cardOf,
  exitEvents,
  exitsOf,
  RUN_MANNERS,
  type KnownAnswers,
  type RunManner,
} from './runCard';
import {
  applyRunEvent,
  beginRun,
  branchOf,
  effectsOf,
  readyAt,
  replayRun,
  RunRefusal,
  timerOf,
  type RunEvent,
  type RunSetup,
  type RunState,
} from './runProcedure';
import {
  cardsStraight,
  doneWell,
  filledWell,
  goodReadings,
  inTime,
  straightAnswers,
  usualChoices,
} from './workWell.fixture';

const HOUR = 3_600_000;
const procedure = (id: string) => PROCEDURES.find((known) => known.id === id)!;
const follow = (setup: RunSetup, state: RunState, events: readonly RunEvent[]) =>
  events.reduce((now, event) => applyRunEvent(setup, now, event), state);

/** Every way off the card in hand: done with each answer, every exit, every branch of a reading, too late. */
function waysOff(setup: RunSetup, state: RunState, manner: RunManner, known: KnownAnswers = {}): RunEvent[][] {
  const card = cardOf(setup, state, manner, known);
  const at = inTime(setup, state);
  const fill = filledWell(card, null, known);
  const ask = askOf(card, known);
  const ways = [
    ...(ask ? ask.answers.map(({ id }) => ({ ...fill, answer: id })) : [fill]).map((filled) =>
      cardEvents(setup, state, card, filled, at),
    ),
    ...exitsOf(card, known).map((exit) => exitEvents(setup, state, card, fill, { exit, note: '', at })),
  ];
  for (const step of card.steps)
    for (const { reading, of, over, under } of step.branches ?? []) {
      const { min, max } = step.readings!.find(({ id }) => id === reading)!;
      const out = of !== undefined ? max : over === undefined ? (min + under!) / 2 : (max + over) / 2;
      const readings = { ...fill.readings, [step.id]: { ...goodReadings(step), [reading]: out } };
      expect(branchOf(step, readings[step.id]!)).toBeDefined();
      ways.push(cardEvents(setup, state, card, { ...fill, readings }, at));
    }
  const late = timerOf(setup, state)?.late;
  if (late != null) ways.push(cardEvents(setup, state, card, fill, late + 1000));
  return ways;
}

describe.each(PROCEDURES.map((known) => [known.id, known] as const))('%s', (_, doc) => {
  test('is whole: names, ends, gates', () => expect(checkProcedure(doc)).toEqual([]));

  test('can be written as JSON and read again', () => expect(JSON.parse(JSON.stringify(doc))).toEqual(doc));

  // Known: what a sum answers for a machine that the shop knows, so that cards run on past it.
  test.each(RUN_MANNERS.flatMap((manner) => [false, true].map((knows) => [manner, knows] as const)))(
    'every way off every card is walked %s (sums known: %s) under every combination of schools, and each leads on to an end',
    (manner, knows) => {
      const known = knows ? straightAnswers(doc) : {};
      const walked = new Set<string>();
      for (const choices of knows ? [usualChoices(doc)] : combinations(doc)) {
        const setup: RunSetup = { procedure: doc, choices, startedAt: 0 };
        const after = new Map<string, string[]>();
        const open: RunState[] = [beginRun(setup)];
        const ending = new Set<string>();
        const seen = new Set<string>();
        while (open.length > 0) {
          const state = open.pop()!;
          // Answers that nothing hangs on don't make another state.
          const key = keyOf(doc, state);
          if (state.at === null) {
            ending.add(key);
            continue;
          }
          if (seen.has(key)) continue;
          seen.add(key);
          for (const events of waysOff(setup, state, manner, known)) {
            let now = state;
            for (const event of events) {
              walked.add(event.stepId);
              now = applyRunEvent(setup, now, event);
              expect(effectsOf(setup, event, now)).toBeDefined();
            }
            after.set(key, [...(after.get(key) ?? []), keyOf(doc, now)]);
            open.push({ ...now, before: null });
          }
        }
        // From every state an end is reached.
        for (let grew = true; grew;) {
          grew = false;
          for (const [from, tos] of after)
            if (!ending.has(from) && tos.some((to) => ending.has(to))) grew = Boolean(ending.add(from));
        }
        expect([...seen].filter((key) => !ending.has(key))).toEqual([]);
      }
      // No step is dead.
      if (!knows) expect(doc.steps.map(({ id }) => id).filter((id) => !walked.has(id))).toEqual([]);
    },
  );

  test('each gate refuses what is not ticked and each reading that is out', () => {
    for (const step of doc.steps.filter(({ gate }) => gate)) {
      const only = step.only && 'choice' in step.only ? { [step.only.choice]: step.only.is[0]! } : {};
      const setup: RunSetup = { procedure: doc, choices: { ...usualChoices(doc), ...only }, startedAt: 0 };
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

  test.each(RUN_MANNERS)('%s: killed after each event of each batch, it stands where it stood', (manner) => {
    const setup: RunSetup = { procedure: doc, choices: usualChoices(doc), startedAt: 0 };
    const sent: RunEvent[] = [];
    let state = beginRun(setup);
    for (const { events, before } of cardsStraight(setup, state, manner, straightAnswers(doc))) {
      expect({ ...state, before: null }).toEqual({ ...before, before: null });
      for (const event of events) {
        sent.push(event);
        state = applyRunEvent(setup, state, event);
        const again = replayRun(setup, JSON.parse(JSON.stringify(sent)) as RunEvent[]);
        expect({ ...again, before: null }).toEqual({ ...state, before: null });
      }
    }
    expect(state.ended).toBe('done');
  });

  test('what cannot be undone stands behind a gate of the same card or an earlier one, each time anew', () => {
    for (const manner of RUN_MANNERS)
      for (const choices of combinations(doc)) {
        const setup: RunSetup = { procedure: doc, choices, startedAt: 0 };
        // With the gate's own events left out of a run, the step is never come to.
        for (const step of doc.steps.filter(({ onceOnly }) => onceOnly)) {
          const gates = step.behind!;
          const seen = new Set<string>();
          const open: RunState[] = [beginRun(setup)];
          while (open.length > 0) {
            const state = open.pop()!;
            const key = keyOf(doc, state);
            if (state.at === null || seen.has(key)) continue;
            seen.add(key);
            expect(state.at).not.toBe(step.id);
            for (const events of waysOff(setup, state, manner)) {
              const upTo = events.findIndex((event) => event.kind === 'done' && passes(doc, gates, event));
              let now = state;
              for (const event of upTo < 0 ? events : events.slice(0, upTo)) {
                now = applyRunEvent(setup, now, event);
                expect(now.at).not.toBe(step.id);
              }
              if (upTo < 0) open.push({ ...now, before: null });
            }
          }
        }
      }
  });

  test('each choice changes what is done, or how long it waits', () => {
    for (const { id, options } of doc.choices) {
      const hours = doc.steps.some(({ timer }) => timer?.least?.hoursOf === id);
      const told = options.map(
        (option) =>
          doc.steps
            .map((step) => {
              const own = step.only && 'choice' in step.only && step.only.choice === id;
              const says = step.byChoice?.choice === id ? step.byChoice.says[option.id] : '';
              const layers = step.layers?.filter(
                ({ only }) => only?.choice !== id || only.is.includes(option.id),
              ).length;
              return `${own ? step.only!.is.includes(option.id) : ''} ${says} ${layers}`;
            })
            .join('; ') + (hours ? option.hours : ''),
      );
      expect(new Set(told).size).toBe(options.length);
    }
  });
});

/** A gate among these is passed by this event. */
function passes(doc: Procedure, gates: readonly string[], event: Extract<RunEvent, { kind: 'done' }>): boolean {
  if (!gates.includes(event.stepId)) return false;
  const { ask } = doc.steps.find(({ id }) => id === event.stepId)!;
  const proving = ask?.answers.filter(({ proves }) => proves) ?? [];
  return proving.length === 0 || proving.some(({ id }) => id === event.answer);
}

/** A state by what decides how it goes on: its step, and the answers that steps hang on. */
function keyOf({ steps }: Procedure, { at, answers }: RunState): string {
  const hung = steps.flatMap(({ only }) => (only && 'answered' in only ? [only.answered] : []));
  return `${at} ${hung.map((id) => answers[id] ?? '').join(',')}`;
}

test('they are twenty-three, for both families, and each names what it can go on with', () => {
  expect(PROCEDURES).toHaveLength(23);
  expect(new Set(PROCEDURES.map(({ family }) => family))).toEqual(new Set(['any', 'filament', 'resin']));
  const ids = PROCEDURES.map(({ id }) => id);
  for (const { then = [] } of PROCEDURES) for (const next of then) expect(ids).toContain(next);
  const irreversible = PROCEDURES.flatMap(({ steps }) => steps.filter(({ onceOnly }) => onceOnly));
  expect(irreversible.length).toBeGreaterThan(14);
});

describe('several machines at once, one document', () => {
  test.each(RUN_MANNERS)('%s: runs taken in turn, card by card, end as each would alone', (manner) => {
    for (const doc of PROCEDURES) {
      const setups = [0, 1, 2].map((i): RunSetup => ({ procedure: doc, choices: usualChoices(doc), startedAt: i }));
      const known = straightAnswers(doc);
      const alone = setups.map((setup) => cardsStraight(setup, beginRun(setup), manner, known));
      let states = setups.map((setup) => beginRun(setup));
      for (let round = 0; states.some(({ at }) => at !== null); round++)
        states = states.map((state, i) => {
          if (state.at === null) return state;
          const card = cardOf(setups[i]!, state, manner, known);
          expect(card.steps).toEqual(alone[i]![round]!.card.steps);
          // One of them is stopped by what it reads; the others go on.
          const events = cardEvents(setups[i]!, state, card, filledWell(card, null, known), inTime(setups[i]!, state));
          return follow(setups[i]!, state, events);
        });
      expect(states.map(({ ended }) => ended)).toEqual(['done', 'done', 'done']);
    }
  });
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
      changed('ready', { ask: undefined as never }),
      /press: It can’t be undone, and a way leads here past every gate: from the beginning/,
    ],
    ['a way round a gate', changed('degrease', { next: 'press' }), /press: It can’t be undone/],
    [
      'an answer that proves nothing passes no gate',
      changed('ready', {
        ask: {
          question: 'So?',
          answers: [
            { id: 'so', label: 'so', to: 'strip', proves: true },
            { id: 'not', label: 'not', to: 'strip' },
          ],
        },
      }),
      /press: It can’t be undone/,
    ],
    [
      'a gate passed over by a school',
      changed('ready', { only: { choice: 'from', is: ['back'] } }),
      /press: It can’t be undone/,
    ],
    [
      'a gate passed over after an answer',
      changed('ready', { only: { answered: 'add-up', is: ['ready'] } }),
      /press: It can’t be undone/,
    ],
    [
      'back to what cannot be undone, round its gate',
      changed('bubble', { next: 'roll', ask: undefined as never }),
      /roll: It can’t be undone, and a way leads here past every gate: from itself/,
    ],
    [
      'the older rule: without a name, the gate stands right before',
      changed('press', { behind: undefined as never }),
      /press: It can’t be undone, and a way leads here past every gate: from “Align without touching”/,
    ],
    ['a gate that is not there', changed('press', { behind: ['lid'] }), /behind “lid”, which is no step/],
    ['typing with hands full', changed('align', { readings: [] }), /Hands are full here/],
    ['a phase that is not there', changed('align', { phase: 'lunch' }), /phase “lunch”, which is not there/],
    [
      'an answer that waits for no sum',
      changed('home', { ask: { question: '?', answers: [{ id: 'a', label: 'a', to: DONE, when: 'none' }] } }),
      /waits for a sum/,
    ],
    ['hangs on an answer of nobody', changed('move', { only: { answered: 'size', is: ['x'] } }), /asks nothing/],
    [
      'a change on an answer that is unknown',
      changed('roll', { effects: [{ kind: 'mount', part: 'base', answers: ['maybe'] }] }),
      /“maybe”, which it does not know/,
    ],
    [
      'a reading that hangs on none',
      changed('measure', {
        readings: [{ id: 'base', label: 'Base', unit: 'mm', min: 0, max: 1, where: { reading: 'lid', over: 0 } }],
      }),
      /hangs on “lid”/,
    ],
    ['a step that leads nowhere', changed('zero', { next: 'nowhere' }), /“nowhere”, which is no step/],
    [
      'a circle without an end',
      changed('not-holding', { cant: [{ label: 'no', to: 'not-holding' }], next: 'not-holding' }),
      /not-holding: From here no end/,
    ],
    ['no way out', changed('zero', { cant: [] }), /what to do when it can’t be done/],
    ['an empty gate', changed('move', { gate: { checks: [] } }), /checks nothing/],
    [
      'a branch on nothing',
      changed('level', { branches: [{ reading: 'range', over: 1, to: 'zero' }] }),
      /branches on “range”/,
    ],
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
  const setup: RunSetup = { procedure: doc, choices: { ...usualChoices(doc), wait: '72' }, startedAt: 0 };
  const at = (stepId: string, enteredAt = 0): RunState => ({ ...beginRun(setup), at: stepId, enteredAt });

  test('the cure lasts as long as the school says, and not a moment less', () => {
    const state = at('untouched', 1000);
    const early = { ...doneWell(setup, state), at: 1000 + 72 * HOUR - 1 } as RunEvent;
    expect(() => applyRunEvent(setup, state, early)).toThrow('not before its time is up');
    expect(applyRunEvent(setup, state, { ...early, at: 1000 + 72 * HOUR }).at).toBe('sheet-on');
  });

  test('ready times are known while still choosing (common practice: 72 h untouched, 24 h under a weight)', () => {
    const ready = (wait: string) => readyAt({ procedure: doc, choices: { ...usualChoices(doc), wait } }, 0);
    expect(ready('72') - ready('24')).toBeGreaterThan(47 * HOUR);
    expect(ready('24') - ready('none')).toBeGreaterThan(23.8 * HOUR);
    expect(ready('none')).toBeCloseTo(doc.minutes * 60_000, -3);
  });

  test('a score that is no longer fresh is not snapped', () => {
    const glass = procedure('cut-glass');
    const own: RunSetup = { procedure: glass, choices: usualChoices(glass), startedAt: 0 };
    const state: RunState = { ...beginRun(own), at: 'snap', enteredAt: 0 };
    const event = { ...doneWell(own, state), at: 601_000 } as RunEvent;
    const after = applyRunEvent(own, state, event);
    expect(after.at).toBe('skipped');
    expect(effectsOf(own, event, after)).toEqual([]);
  });

  test('a crooked strip and a knock lead to where they are put right', () => {
    const crooked: RunEvent = { kind: 'cant', stepId: 'press', at: 5, way: 0, note: '' };
    expect(applyRunEvent(setup, at('press'), crooked).at).toBe('crooked');
    // Lifted again, the gate is passed anew; accepted, that is said.
    expect(applyRunEvent(setup, at('crooked'), doneWell(setup, at('crooked'), 'good')).at).toBe('ready');
    expect(applyRunEvent(setup, at('crooked'), doneWell(setup, at('crooked'), 'small')).at).toBe('roll');
    const knock = applyRunEvent(setup, at('home'), doneWell(setup, at('home'), 'knock'));
    expect(knock.at).toBe('knock');
    expect(applyRunEvent(setup, knock, doneWell(setup, knock, 'trip')).at).toBe('sum-again');
    expect(applyRunEvent(setup, knock, doneWell(setup, knock, 'plug')).at).toBe('plug');
  });

  test('where nothing has to move the trip point is passed over; where it has, it is a gate', () => {
    const on = (answer: string) =>
      applyRunEvent(
        setup,
        { ...at('untouched'), answers: { 'add-up': answer } },
        { ...doneWell(setup, at('untouched')), at: 72 * HOUR },
      ).at;
    expect(on('nothing')).toBe('sheet-on');
    expect(on('ready')).toBe('move');
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
  });

  test('the light test writes down code and feeler', () => {
    const plate = procedure('check-plate');
    const own: RunSetup = { procedure: plate, choices: {}, startedAt: 0 };
    const state: RunState = { ...beginRun(own), at: 'along-left' };
    const event = { ...doneWell(own, state), readings: { where: 1, light: 2, feeler: 0.15 } } as RunEvent;
    expect(effectsOf(own, event, applyRunEvent(own, state, event))).toEqual([
      {
        kind: 'inspect',
        part: 'plate',
        card: 'light-line',
        code: 'clear',
        numbers: { feeler: 0.15, line: 1, where: 1 },
      },
    ]);
    // Without light neither how much nor a feeler is asked, nor kept.
    const dark = { ...event, readings: { where: 0, light: 2, feeler: 0.15 } };
    expect(effectsOf(own, dark, applyRunEvent(own, state, dark))).toMatchObject([
      { code: 'none', numbers: { line: 1, where: 0 } },
    ]);
    expect(() => applyRunEvent(own, state, { ...event, readings: { where: 1 } } as RunEvent)).toThrow(
      'How much is missing',
    );
    expect(() => applyRunEvent(own, state, { ...event, readings: { where: 1.5, light: 1 } } as RunEvent)).toThrow(
      'choose one of those shown',
    );
  });

  test('what a pane did not do is not written down: it takes off only what came off', () => {
    const remove = procedure('remove-old-surface');
    const own: RunSetup = { procedure: remove, choices: usualChoices(remove), startedAt: 0 };
    const kinds = (stepId: string, answer: string) => {
      const state: RunState = { ...beginRun(own), at: stepId };
      const event = doneWell(own, state, answer);
      return effectsOf(own, event, applyRunEvent(own, state, event)).map(({ kind }) => kind);
    };
    expect(kinds('peel', 'glass')).toEqual([]);
    expect(kinds('glass-welded', 'no')).toEqual([]);
    // The mat that lay under it goes with the pane; so does what was still under it when all is off.
    expect(kinds('glass-welded', 'yes')).toEqual(['take-off', 'take-off', 'book']);
    expect(kinds('peel', 'whole')).toEqual(['take-off', 'take-off', 'book']);
    expect(kinds('peel', 'mat')).toEqual(['take-off', 'book']);
  });

  test('sag is judged by the span of the vat: 4 mm is enough over 200, too much over 120', () => {
    const film = procedure('fit-film');
    const own: RunSetup = { procedure: film, choices: { taut: 'sag' }, startedAt: 0 };
    const read = (sag: number, span: number) => {
      const state: RunState = { ...beginRun(own), at: 'sag' };
      return applyRunEvent(own, state, { ...doneWell(own, state), readings: { sag, span } }).at;
    };
    expect([read(4, 200), read(4, 120)]).toEqual(['trim', 'tighten']);
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
    expect(() => applyRunEvent(setup, beginRun(setup), { kind: 'undone', at: 1, stepId: 'room' })).toThrow(
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

test('why a surface goes is what was answered when it was looked at', () => {
  const doc = PROCEDURES.find(({ id }) => id === 'replace-and-retire')!;
  const setup = { procedure: doc, choices: {}, startedAt: 0 };
  const state = { ...beginRun(setup), at: 'retire', answers: { look: 'broken' } };
  const done = { kind: 'done' as const, stepId: 'retire', at: 1, readings: {}, checks: [], answer: null };
  const effects = (before: typeof state) =>
    effectsOf(setup, done, { ...before, trail: [{ stepId: 'retire', enteredAt: 0, leftAt: 1, how: 'done' }] });
  expect(effects(state)).toContainEqual({ kind: 'retire', part: 'old', why: 'chipped, cracked or gouged' });
  expect(effects({ ...state, answers: {} as never })).toContainEqual({
    kind: 'retire',
    part: 'old',
    why: 'at its end',
  });
});
