import { PROCEDURES } from './procedures';
import { cardEvents, cardOf, exitEvents, exitsOf, needsEyes, undoEvents } from './runCard';
import {
  applyRunEvent,
  beginRun,
  phasesOf,
  progressOf,
  replayRun,
  RunRefusal,
  type RunSetup,
  type RunState,
} from './runProcedure';
import { cardsStraight, doneWell, filledWell, inTime, straightAnswers, usualChoices } from './workWell.fixture';

const procedure = (id: string) => PROCEDURES.find((known) => known.id === id)!;
const doc = procedure('fit-base-and-sheet');
const setup: RunSetup = { procedure: doc, choices: usualChoices(doc), startedAt: 0 };
const at = (stepId: string): RunState => ({ ...beginRun(setup), at: stepId });
const known = { 'add-up': 'nothing' };
const ids = (state: RunState, manner: 'practised' | 'step-by-step', answers = {}) =>
  cardOf(setup, state, manner, answers).steps.map(({ id }) => id);

test('practised, a card is a phase of the hands; step by step, a doing; hands that are full are never interrupted', () => {
  expect(ids(beginRun(setup), 'practised')).toEqual(['room', 'off-old', 'measure', 'add-up']);
  expect(ids(beginRun(setup), 'practised', known)).toEqual(['room', 'off-old', 'measure', 'add-up', 'size']);
  expect(ids(beginRun(setup), 'step-by-step', known)).toEqual(['room']);
  for (const manner of ['practised', 'step-by-step'] as const)
    expect(ids(at('strip'), manner)).toEqual(['strip', 'align', 'press', 'roll']);
});

test('a wait is a card of its own: its time counts from when it begins', () => {
  const own = { ...setup, choices: { ...setup.choices, wait: '24' } };
  const state = { ...beginRun(own), at: 'trim-early' };
  expect(cardOf(own, state, 'practised').steps.map(({ id }) => id)).toEqual(['trim-early']);
  const after = applyRunEvent(own, state, doneWell(own, state));
  expect(cardOf(own, after, 'practised').steps.map(({ id }) => id)).toEqual(['weight']);
});

test('no knock takes on what has to be seen, typed or said', () => {
  const needs = (stepId: string, manner: 'practised' | 'step-by-step' = 'practised') =>
    needsEyes(cardOf(setup, at(stepId), manner, known), known);
  expect(needs('room')).toBe(true);
  expect(needs('room', 'step-by-step')).toBe(false);
  expect(needs('size', 'step-by-step')).toBe(true);
  expect(needs('ready', 'step-by-step')).toBe(true);
  expect(needs('home', 'step-by-step')).toBe(true);
  expect(needs('crooked', 'step-by-step')).toBe(true);
  // Hands are full: that it lies may be knocked.
  expect(needs('strip')).toBe(false);
  // An answer that proves is never knocked, hands full or not.
  const glass = procedure('cut-glass');
  const own = { procedure: glass, choices: usualChoices(glass), startedAt: 0 };
  expect(needsEyes(cardOf(own, { ...beginRun(own), at: 'score' }, 'practised'))).toBe(true);
});

test('all that is wrong on a card is said at once, each at its step’s own field, and nothing is taken', () => {
  const state = beginRun(setup);
  const card = cardOf(setup, state, 'practised', known);
  const refusal = (() => {
    try {
      cardEvents(setup, state, card, { readings: { measure: { base: 99 } }, checks: {}, answer: null, known }, 5);
    } catch (error) {
      return error as RunRefusal;
    }
    return null;
  })();
  expect(refusal).toBeInstanceOf(RunRefusal);
  expect(Object.keys(refusal!.fields)).toEqual(['measure.readings.base', 'measure.readings.sheet', 'size.checks.0']);
});

test('a batch is one moment; it proves each gate on its own, and is undone as one', () => {
  const state = beginRun(setup);
  const card = cardOf(setup, state, 'practised', known);
  const events = cardEvents(setup, state, card, filledWell(card, null, known), 5000);
  expect(events.map(({ stepId, at: when }) => [stepId, when])).toEqual(card.steps.map(({ id }) => [id, 5000]));
  const after = events.reduce((now, event) => applyRunEvent(setup, now, event), state);
  expect(after.at).toBe('degrease');
  const without = { ...filledWell(card, null, known), checks: {} };
  expect(() => cardEvents(setup, state, card, without, 5000)).toThrow('Not yet');
  const back = undoEvents(after, 6000);
  expect(back).toHaveLength(5);
  const undone = replayRun(setup, [...events, ...back]);
  expect(undone.at).toBe('room');
  expect(undoEvents(undone, 7000)).toEqual([]);
  // Only the last card: what was done before it stays.
  const next = cardOf(setup, after, 'practised', known);
  const later = cardEvents(setup, after, next, filledWell(next), 9000).reduce(
    (now, event) => applyRunEvent(setup, now, event),
    after,
  );
  expect(undoEvents(later, 9500)).toHaveLength(next.steps.length);
});

test('a reading that leads elsewhere ends the batch: what follows it was not done', () => {
  const remove = procedure('remove-old-surface');
  const own: RunSetup = { procedure: remove, choices: usualChoices(remove), startedAt: 0 };
  const state = beginRun(own);
  const card = cardOf(own, state, 'practised');
  const events = cardEvents(
    own,
    state,
    card,
    { readings: { warm: { top: 30 } }, checks: {}, answer: null },
    inTime(own, state),
  );
  expect(events.map(({ stepId }) => stepId)).toEqual(['room', 'warm']);
  expect(replayRun(own, events).at).toBe('not-warm');
});

test('a way off a card does what comes before it first, and refuses where that is not done', () => {
  const state = beginRun(setup);
  const card = cardOf(setup, state, 'practised', known);
  const exits = exitsOf(card, known);
  expect(exits.map(({ label }) => label)).toEqual(
    expect.arrayContaining(['Something is stuck to the plate', 'A screw or clip stands proud']),
  );
  const proud = exits.find(({ label }) => label.startsWith('A screw'))!;
  expect(() =>
    exitEvents(
      setup,
      state,
      card,
      { ...filledWell(card, null, known), readings: {} },
      { exit: proud, note: '', at: 9 },
    ),
  ).toThrow('Base is missing');
  const events = exitEvents(setup, state, card, filledWell(card, null, known), {
    exit: proud,
    note: 'rear clip',
    at: 9,
  });
  expect(events.at(-1)).toMatchObject({ kind: 'cant', stepId: 'size', note: 'rear clip' });
  expect(replayRun(setup, events).at).toBe('proud');
  const stuck = exits.find(({ label }) => label.startsWith('Something'))!;
  expect(
    exitEvents(setup, state, card, { readings: {}, checks: {}, answer: null }, { exit: stuck, note: '', at: 9 }),
  ).toHaveLength(2);
  // While hands are full the ways off of all that they do are one list, each said once.
  expect(exitsOf(cardOf(setup, at('strip'), 'practised')).map(({ label }) => label)).toEqual([
    'The liner tore',
    'It touches, crooked',
    'The strip lies crooked',
    'a bubble',
    'crooked, all of it down',
    'A scrap of liner under it',
  ]);
});

test('progress is told in phases: those that its schools pass over are not counted', () => {
  const titles = (wait: string) =>
    phasesOf({ ...setup, choices: { ...setup.choices, wait } }, { at: 'room', answers: {} }).map(({ id }) => id);
  expect(titles('none')).not.toContain('cure');
  expect(titles('24')).toContain('cure');
  expect(progressOf(setup, beginRun(setup))).toEqual({ at: 1, of: 5 });
  expect(progressOf(setup, { ...beginRun(setup), at: 'home' })).toEqual({ at: 4, of: 5 });
  const older = { ...setup, procedure: { ...doc, phases: undefined as never } };
  expect(progressOf(older, beginRun(older)).of).toBeGreaterThan(9);
});

test('a document without phases is worked a step at a time in either manner', () => {
  const older = { ...doc, steps: doc.steps.map(({ phase: _, bound: __, ...step }) => step) };
  const own: RunSetup = { procedure: older, choices: setup.choices, startedAt: 0 };
  for (const { card } of cardsStraight(own, beginRun(own), 'practised', straightAnswers(doc)))
    expect(card.steps).toHaveLength(1);
});
