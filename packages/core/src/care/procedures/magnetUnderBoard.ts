import { DONE, STOPPED, type Procedure, type StackLayerAsk } from '../procedure';
import {
  addUp,
  exposeStrip,
  homeAndListen,
  moveTripPoint,
  printSpacer,
  stopAtOnce,
  sumAgain,
  tornLiner,
} from './commonSteps';

const LAYERS: StackLayerAsk[] = [
  { slot: 'top', reading: 'measure.magnet', name: 'magnet under the board', joins: 'board' },
  { slot: 'top', reading: 'measure.board', part: 'board' },
];

/** A magnet on the back of a board, so that it holds on steel or on a base without clips. */
export const magnetUnderBoard: Procedure = {
  id: 'magnet-under-board',
  title: 'Stick a magnet under a board',
  family: 'filament',
  about: 'A laminate board gets a magnet on its back and lies without clips: under all of it, or under its edges.',
  minutes: 30,
  tools: ['calipers', 'ruler', 'knife', 'roller', '240 grit', 'fitted respirator'],
  materials: ['laminate board', 'magnet with its liner', 'alcohol', 'clean towels'],
  parts: [
    { id: 'old', label: 'What lies there now', groups: ['sheet', 'glass', 'laminate', 'cover'], from: 'machine' },
    { id: 'board', label: 'The board', groups: ['laminate'], from: 'rack' },
  ],
  choices: [
    {
      id: 'where',
      question: 'Where the magnet goes',
      options: [
        { id: 'all', label: 'under all of it', because: 'Carries and heats the middle as well.' },
        {
          id: 'edges',
          label: 'under its edges',
          because: 'Enough for a stiff, small board used cool: the middle lies hollow by the magnet’s thickness.',
        },
      ],
      usual: 'all',
    },
  ],
  phases: [
    { id: 'measure', title: 'Measure and sum' },
    { id: 'prepare', title: 'Scuff, clean' },
    { id: 'stick', title: 'Stick' },
    { id: 'on', title: 'On, home' },
  ],
  then: ['first-print'],
  steps: [
    {
      id: 'off',
      title: 'Off with what lies there',
      doing: 'Bed off and cool. Take off what lies on it; the base stays.',
      phase: 'measure',
      cautions: ['hot', 'magnet'],
      cant: [{ label: 'It sticks', to: STOPPED }],
      next: 'measure',
      effects: [{ kind: 'take-off', part: 'old', place: 'taken off' }],
    },
    {
      id: 'measure',
      title: 'Measure board and magnet',
      doing:
        'With calipers: the board, and the magnet with its liner. Lift a corner of the liner, measure the liner alone, press it back; type the difference.',
      phase: 'measure',
      byChoice: {
        choice: 'where',
        says: {
          all: 'One piece of magnet, as large as the board.',
          edges: 'Strips of 20 to 30 mm for all four edges, of one roll: equal thickness all round.',
        },
      },
      cautions: ['magnet'],
      readings: [
        { id: 'board', label: 'Board', unit: 'mm', min: 0.3, max: 10, known: { of: 'thickness', part: 'board' } },
        { id: 'magnet', label: 'Magnet', unit: 'mm', min: 0.2, max: 8 },
      ],
      cant: [{ label: 'There are no calipers', to: STOPPED }],
      next: 'stiff',
    },
    {
      id: 'stiff',
      title: 'Stiff enough?',
      doing:
        'Lay the board on two strips of the magnet at its edges and press its middle with a thumb, as hard as a nozzle scrapes.',
      why: 'A middle that gives under the nozzle prints thick there, and stays colder.',
      phase: 'measure',
      only: { choice: 'where', is: ['edges'] },
      gate: { checks: ['Does the middle stay where it is?'] },
      cant: [{ label: 'The middle gives', to: STOPPED }],
      next: 'add-up',
    },
    addUp({
      phase: 'measure',
      doing: 'Add up board and magnet against what lies there, and see what has to move before homing.',
      layers: LAYERS,
      next: 'protect',
    }),
    printSpacer('measure', 'add-up'),
    {
      id: 'protect',
      title: 'Before the dust',
      doing: 'Outdoors or under extraction. Respirator fitted, gloves on, water at hand.',
      why: 'Dust of glass fibre stays in the lungs.',
      phase: 'prepare',
      cautions: ['dust'],
      gate: { checks: ['Does the respirator fit, and is there extraction or open air?'] },
      cant: [{ label: 'There is no respirator', to: STOPPED }],
      next: 'scuff',
    },
    {
      id: 'scuff',
      title: 'Scuff the back, clean it',
      doing:
        '240 grit on the back only, wet and even; wipe with alcohol until the towel stays white. Magnet cut to size, liner on.',
      phase: 'prepare',
      cautions: ['dust', 'solvent', 'blade'],
      ask: {
        question: 'Is all of it so?',
        answers: [
          { id: 'so', label: 'Back up, dry, the magnet lies within the edges', to: 'strip', proves: true },
          { id: 'not', label: 'not yet', to: 'scuff' },
        ],
      },
      cant: [{ label: 'The board is bowed', to: STOPPED }],
      next: 'strip',
    },
    exposeStrip('stick', 'press', false),
    tornLiner('stick'),
    {
      id: 'press',
      title: 'Press it on, centre outward',
      doing: 'Align at one edge, press the strip, pull the liner a little at a time and roll from the centre outwards.',
      phase: 'stick',
      bound: true,
      picture: 'magnet-under-board',
      cautions: ['once', 'magnet'],
      onceOnly: true,
      behind: ['scuff'],
      ask: {
        question: 'How does it lie?',
        answers: [
          { id: 'flat', label: 'It lies', to: 'pull' },
          { id: 'bubble', label: 'a bubble, or over the edge', to: 'put-right' },
        ],
      },
      cant: [{ label: 'It went on crooked', to: 'put-right' }],
      next: 'pull',
      effects: [
        { kind: 'work', part: 'board', work: 'other', note: 'magnet stuck under it' },
        { kind: 'materials', used: ['magnet', '240 grit', 'alcohol', 'towels'] },
      ],
    },
    {
      id: 'put-right',
      title: 'Put it right',
      doing: 'Prick a bubble flat and press it out; trim what stands over the edge, blade away from you.',
      phase: 'stick',
      cautions: ['blade'],
      cant: [{ label: 'It can’t be put right', to: STOPPED }],
      next: 'pull',
    },
    {
      id: 'pull',
      title: 'Lay it on, pull',
      doing: 'Both faces clean and dry. Lay it on rear edge first, then pull at each corner: does it hold?',
      phase: 'on',
      cautions: ['magnet'],
      gate: { checks: ['Does each corner hold against a pull, and does the board lie without rocking?'] },
      cant: [{ label: 'A corner lets go', to: 'put-right' }],
      next: 'move',
      effects: [{ on: 'always', kind: 'mount', part: 'board' }],
    },
    moveTripPoint('on', LAYERS, 'home'),
    homeAndListen('on', 'level'),
    ...stopAtOnce({
      phase: 'on',
      doing: 'Power off. Raise the head by hand, slowly.',
      trip: 'sum-again',
      clear: 'home',
    }),
    sumAgain({
      phase: 'on',
      doing: 'Measure board and magnet as they lie, and do what the sum says before anything homes.',
      layers: LAYERS,
      cautions: ['knock'],
    }),
    {
      id: 'level',
      title: 'Level and zero',
      doing: 'A level check, then the Z offset by a thin test print.',
      phase: 'on',
      sum: 'level',
      cautions: ['hot'],
      cant: [{ label: 'It is levelled another day: no print before', to: STOPPED }],
      next: DONE,
      effects: [{ kind: 'book', text: 'A magnet is stuck under the board, and it lies.' }],
    },
  ],
};
