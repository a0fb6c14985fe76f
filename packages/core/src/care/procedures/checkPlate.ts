import { DONE, STOPPED, type Procedure, type ProcedureStep } from '../procedure';

const DIRECTIONS = [
  ['along-left', 'Along, on the left', 'Lay the straightedge on edge along the left third, a light behind it.'],
  ['along-right', 'Along, on the right', 'Along the right third.'],
  ['across-front', 'Across, in front', 'Across the front third.'],
  ['across-rear', 'Across, at the rear', 'Across the rear third.'],
  ['diagonal-1', 'First diagonal', 'From front left to rear right.'],
  ['diagonal-2', 'Second diagonal', 'From front right to rear left.'],
] as const;

const light = ([id, title, doing]: (typeof DIRECTIONS)[number], mark: number, next: string): ProcedureStep => ({
  id,
  title,
  doing: `${doing} Slide the thickest feeler that passes under it; 0 when no light shows.`,
  picture: 'six-lines',
  mark,
  readings: [{ id: 'feeler', label: 'Thickest feeler', unit: 'mm', min: 0, max: 5 }],
  ask: {
    question: 'What light shows?',
    answers: [
      { id: 'none', label: 'none', to: next },
      { id: 'faint', label: 'faint', to: next },
      { id: 'clear', label: 'clear', to: next },
    ],
  },
  cant: [{ label: 'The straightedge does not lie', to: 'bump' }],
  next,
  effects: [
    {
      on: 'always',
      kind: 'inspect',
      part: 'plate',
      card: 'light-line',
      codes: { none: 'none', faint: 'faint', clear: 'clear' },
      numbers: { feeler: 'feeler' },
    },
  ],
});

/** Light test in six directions, recorded, and what follows from it. */
export const checkPlate: Procedure = {
  id: 'check-plate',
  title: 'Prepare and check a plate',
  family: 'any',
  about: 'Clean, flat or not, and how: light under a straightedge in six directions, each written down.',
  minutes: 25,
  tools: ['straightedge longer than the plate', 'a light', 'feeler gauges', 'clean towels'],
  materials: ['alcohol, 90 % or more'],
  parts: [{ id: 'plate', label: 'The plate', groups: ['platform', 'glass', 'laminate', 'base'], from: 'machine' }],
  choices: [],
  steps: [
    {
      id: 'clean',
      title: 'Clean it',
      doing: 'Bed off and cool. Wipe the plate until the towel stays white.',
      why: 'A crumb under the straightedge reads as a bump.',
      cautions: ['solvent'],
      cant: [{ label: 'Something old sticks to it', to: STOPPED }],
      next: 'measure',
    },
    {
      id: 'measure',
      title: 'Measure the real plate',
      doing: 'Measure width and depth of the plate itself, not of the print area.',
      why: 'They differ by 5 to 30 mm.',
      readings: [
        { id: 'width', label: 'Width', unit: 'mm', min: 20, max: 2000 },
        { id: 'depth', label: 'Depth', unit: 'mm', min: 20, max: 2000 },
      ],
      sum: 'size',
      cant: [{ label: 'It can’t be reached', to: 'along-left' }],
      next: 'along-left',
      effects: [{ kind: 'book', text: 'The plate was measured.' }],
    },
    ...DIRECTIONS.map((direction, i) => light(direction, i + 1, DIRECTIONS[i + 1]?.[0] ?? 'verdict')),
    {
      id: 'bump',
      title: 'One bump',
      doing: 'Look for debris, a bubble, a proud screw or clip under the straightedge. Take it away.',
      cautions: ['blade'],
      ask: {
        question: 'Is it gone?',
        answers: [
          { id: 'yes', label: 'It is gone', to: 'along-left' },
          { id: 'no', label: 'It belongs to the plate', to: 'verdict' },
        ],
      },
      cant: [{ label: 'It is a screw head', to: STOPPED }],
      next: 'along-left',
    },
    {
      id: 'verdict',
      title: 'What shape is it',
      doing: 'Look at what the six lines said together.',
      why: 'Screws cure tilt; they never cure shape. One high region: look under the bed first.',
      ask: {
        question: 'Which is it?',
        answers: [
          { id: 'flat', label: 'flat', to: 'mark' },
          { id: 'dome', label: 'higher in the middle', to: 'cure-shape' },
          { id: 'dish', label: 'lower in the middle', to: 'cure-shape' },
          { id: 'region', label: 'one high region', to: 'under' },
          { id: 'twist', label: 'twisted', to: 'cure-shape' },
        ],
      },
      cant: [{ label: 'The lines contradict each other', to: 'along-left' }],
      next: 'mark',
    },
    {
      id: 'under',
      title: 'Look under the bed',
      doing:
        'A belt clamp, insulation or a tie pressing from below bows it upward. Add it up before anything is shimmed.',
      sum: 'underbed',
      cautions: ['mains', 'belt'],
      cant: [{ label: 'Nothing is there', to: 'cure-shape' }],
      next: 'along-left',
    },
    {
      id: 'cure-shape',
      title: 'Choose the cure',
      doing:
        'Shim with aluminium tape, ease it straight, lap it, mount on glass instead, or accept a small bow if the machine maps it.',
      cautions: ['bend'],
      ask: {
        question: 'What is to be done?',
        answers: [
          { id: 'accept', label: 'Accept it, the machine maps it', to: 'mark' },
          { id: 'shim', label: 'Shim it', to: 'shim' },
          { id: 'other', label: 'Lap, ease or replace it', to: STOPPED },
        ],
      },
      cant: [{ label: 'Somebody else decides', to: STOPPED }],
      next: 'mark',
    },
    {
      id: 'shim',
      title: 'Shim the dip',
      doing:
        'Aluminium tape in strips side by side over the dip, squeegee from the centre, trim. A second layer where needed.',
      why: 'A dip near 0.15 mm takes one or two layers, depending on the tape: measure it.',
      cautions: ['blade'],
      picture: 'centre-out',
      cant: [{ label: 'A strip went on crooked', to: 'shim' }],
      next: 'along-left',
      effects: [{ kind: 'materials', used: ['aluminium tape'] }],
    },
    {
      id: 'mark',
      title: 'Mark the front',
      doing: 'Mark the front edge of the plate, so that it goes back the same way round.',
      picture: 'front-mark',
      cant: [{ label: 'It can’t be marked', to: DONE }],
      next: DONE,
      effects: [{ kind: 'book', text: 'The plate was checked by light in six directions.' }],
    },
  ],
};
