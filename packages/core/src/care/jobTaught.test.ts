import { jobTaught } from './jobTaught';
import type { Procedure, ProcedureStep } from './procedure';
import { beginRun, type RunState } from './runProcedure';

const step = (id: string, more: Partial<ProcedureStep> = {}): ProcedureStep => ({
  ...{ id, title: id, doing: id, cant: [], next: 'end:done' },
  ...more,
});
const doc: Procedure = {
  ...{
    id: 'own',
    title: 'Own',
    family: 'any',
    about: '',
    minutes: 1,
    tools: [],
    materials: [],
    parts: [],
    choices: [],
  },
  steps: [
    step('add-up', {
      sum: 'stack',
      ask: {
        question: '?',
        answers: [
          { id: 'nothing', label: 'nothing', to: 'look', when: 'none' },
          { id: 'ready', label: 'ready', to: 'move' },
        ],
      },
    }),
    step('move', { effects: [{ kind: 'home-moved' }] }),
    step('back', { effects: [{ kind: 'home-moved' }] }),
    step('look', {
      readings: [
        { id: 'clip', label: 'Clip', unit: 'mm', min: 0, max: 9, teaches: true },
        { id: 'screw', label: 'Screw', unit: '', min: 3, max: 8, teaches: true, options: [{ value: 4, label: 'M4' }] },
        { id: 'pane', label: 'Pane', unit: 'mm', min: 0, max: 9 },
      ],
    }),
  ],
};
const ended = (more: Partial<RunState>): RunState => ({
  ...beginRun({ procedure: doc, choices: {}, startedAt: 0 }),
  ...{ at: null, ended: 'done' as const },
  ...more,
});
const left = (stepId: string, how: RunState['trail'][number]['how'] = 'done') => ({
  stepId,
  how,
  enteredAt: 0,
  leftAt: 0,
});

test('readings of the machine itself alone; a choice by its name', () => {
  const state = ended({ readings: { 'look.clip': 4.2, 'look.screw': 4, 'look.pane': 3 } });
  expect(jobTaught(doc, state).readings).toEqual([
    { label: 'Clip', value: 4.2, unit: 'mm', said: null },
    { label: 'Screw', value: 4, unit: '', said: 'M4' },
  ]);
});

test.each([
  ['nobody asked', ended({}), null],
  ['the sum said that nothing moves', ended({ answers: { 'add-up': 'nothing' } }), false],
  ['moved', ended({ answers: { 'add-up': 'ready' }, trail: [left('move')] }), true],
  ['moved and back again', ended({ answers: { 'add-up': 'ready' }, trail: [left('move'), left('back')] }), true],
  ['moved twice, after a knock', ended({ answers: { 'add-up': 'ready' }, trail: [left('move'), left('move')] }), true],
  ['it could not be moved', ended({ answers: { 'add-up': 'ready' }, trail: [left('move', 'cant')] }), null],
])('where home trips: %s', (_, state, moved) => expect(jobTaught(doc, state).homeMoved).toBe(moved));
