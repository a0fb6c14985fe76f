import { DONE, STOPPED, type Procedure, type ProcedureStep, type SchoolChoice } from '../procedure';
import { curing, exposeStrip, tornLiner } from './commonSteps';

const CHOICES: SchoolChoice[] = [
  {
    id: 'held',
    question: 'How the steel is held',
    options: [
      { id: 'base', label: 'on its own base', because: 'The magnet holds it flat and still, as it will lie in use.' },
      { id: 'stop', label: 'on the table, against a stop', because: 'Where the machine is needed meanwhile.' },
    ],
    usual: 'base',
  },
  {
    id: 'prepare',
    question: 'The new surface before use',
    options: [
      { id: 'wipe', label: 'wiped with alcohol', because: 'Enough for most films.' },
      {
        id: 'scuff',
        label: 'scuffed with 000 or 0000 steel wool and alcohol',
        because: 'Some polymer sheets hold only then.',
      },
    ],
    usual: 'wipe',
  },
  {
    id: 'wait',
    question: 'Wait before use',
    options: [
      { id: 'none', label: 'none', because: 'Usual: the heated bed cures it.', hours: 0 },
      { id: '24', label: '24 h under a weight', because: 'The adhesive has most of its strength by then.', hours: 24 },
      { id: '72', label: '72 h untouched', because: 'About its full strength.', hours: 72 },
    ],
    usual: 'none',
  },
];

/** From the bare steel on: the same for a first film and for one that is renewed. */
const laminate = (book: string, degrease: string): ProcedureStep[] => [
  {
    id: 'size',
    title: 'Check film and steel',
    doing:
      'Lay the film on the steel, liner on: over on all four sides, it is bought oversize. Look it over for creases.',
    phase: 'prepare',
    sum: 'size',
    about: 'sheet',
    cant: [
      { label: 'It is too small', to: STOPPED },
      { label: 'The steel has a dent', to: STOPPED },
    ],
    next: 'degrease',
  },
  {
    id: 'degrease',
    title: 'Clean and degrease the steel',
    doing: degrease,
    phase: 'prepare',
    cautions: ['solvent'],
    readings: [{ id: 'wipes', label: 'Wipes', unit: 'wipes', min: 1, max: 30, optional: true }],
    branches: [{ reading: 'wipes', over: 10, to: 'old' }],
    cant: [{ label: 'Rust or old adhesive', to: 'old' }],
    next: 'hold',
  },
  {
    id: 'old',
    title: 'Old adhesive or rust',
    doing:
      'Acetone on bare steel for adhesive, fine grit for rust. Steel wool stays away from magnets and electronics.',
    phase: 'prepare',
    cautions: ['solvent', 'dust'],
    cant: [{ label: 'It is pitted', to: STOPPED }],
    next: 'degrease',
  },
  {
    id: 'hold',
    title: 'Hold the steel still',
    doing: 'Look slantwise over the steel: no hair, no crumb. Front marked; squeegee and needle within reach.',
    phase: 'prepare',
    byChoice: {
      choice: 'held',
      says: {
        base: 'Steel on its own base, cold, bed off.',
        stop: 'Steel on the flat table, against a taped ruler.',
      },
    },
    cautions: ['once', 'magnet'],
    ask: {
      question: 'Is all of it so?',
      answers: [
        { id: 'so', label: 'Not a hair on it, held, all within reach', to: 'strip', proves: true },
        { id: 'not', label: 'not yet', to: 'degrease' },
      ],
    },
    cant: [{ label: 'It does not lie flat', to: STOPPED }],
    next: 'strip',
  },
  exposeStrip('stick', 'align', false),
  tornLiner('stick'),
  {
    id: 'align',
    title: 'Align without touching',
    doing: 'Hold the film over the steel, the strip not touching; sight along the edge.',
    phase: 'stick',
    bound: true,
    cautions: ['once'],
    cant: [{ label: 'It touched already, crooked', to: 'crooked' }],
    next: 'press',
  },
  {
    id: 'press',
    title: 'Press, pull, squeegee',
    doing: 'Press the strip, pull the liner a little at a time, squeegee from the centre outwards.',
    phase: 'stick',
    bound: true,
    picture: 'centre-out',
    cautions: ['once'],
    onceOnly: true,
    behind: ['hold'],
    ask: {
      question: 'How does it lie?',
      answers: [
        { id: 'flat', label: 'It lies', to: 'trim' },
        { id: 'bubble', label: 'a bubble', to: 'bubble' },
        { id: 'crooked', label: 'it runs crooked', to: 'crooked' },
      ],
    },
    cant: [{ label: 'It creased', to: 'lost' }],
    next: 'trim',
    effects: [
      {
        on: 'always',
        kind: 'hold',
        part: 'sheet',
        hold: 'cure',
        hours: { hoursOf: 'wait' },
        reason: 'adhesive cures',
      },
      { kind: 'materials', used: ['film', 'alcohol', 'towels'] },
    ],
  },
  {
    id: 'crooked',
    title: 'It runs crooked',
    doing:
      'Stop pulling. A hair in the first centimetres can be lifted; further on it creases. Will the steel still be covered?',
    phase: 'stick',
    photo: true,
    ask: {
      question: 'What now?',
      answers: [
        { id: 'covered', label: 'all of it is down and covers', to: 'trim' },
        { id: 'lifted', label: 'lifted again, adhesive good', to: 'hold' },
        { id: 'lost', label: 'the film is lost', to: 'lost' },
      ],
    },
    cant: [{ label: 'It creased', to: 'lost' }],
    next: 'trim',
    effects: [{ kind: 'book', text: 'The film ran crooked.' }],
  },
  {
    id: 'lost',
    title: 'The film is lost',
    doing: 'Peel it off again now, before it cures; the steel stays. Begin again with another film.',
    phase: 'stick',
    cant: [{ label: 'There is no other', to: STOPPED }],
    next: 'degrease',
    effects: [
      { on: 'always', kind: 'release', part: 'sheet', reason: 'the film is off it again' },
      { on: 'always', kind: 'book', text: 'A film was lost while laminating.' },
    ],
  },
  {
    id: 'bubble',
    title: 'A bubble',
    doing: 'Prick it flat at its edge and press from the far side towards the hole.',
    phase: 'stick',
    cautions: ['blade'],
    cant: [{ label: 'It stays', to: 'mark-bubble' }],
    next: 'trim',
  },
  {
    id: 'mark-bubble',
    title: 'A bubble that stays',
    doing: 'Mark where it is, and keep first prints away from it.',
    phase: 'stick',
    photo: true,
    cant: [{ label: 'It is in the middle', to: 'lost' }],
    next: 'trim',
    effects: [{ kind: 'book', text: 'A bubble stays under the film; its place is marked.' }],
  },
  {
    id: 'trim',
    title: 'Trim the overhang',
    doing: 'Turn it over on a cutting mat and trim along the steel, blade away from you.',
    phase: 'finish',
    cautions: ['blade'],
    picture: 'trim-edge',
    cant: [{ label: 'It was cut into', to: 'mark-bubble' }],
    next: 'weight',
  },
  ...curing({ phase: 'cure', sooner: 'cover', next: 'cover' }),
  {
    id: 'cover',
    title: 'Cover film off',
    doing: 'Peel the protective film off the top, if there is one.',
    phase: 'finish',
    cant: [{ label: 'It does not come off', to: STOPPED }],
    next: 'scuff',
  },
  {
    id: 'scuff',
    title: 'Scuff it',
    doing:
      '000 or 0000 steel wool with alcohol, even all over, off the base. Brush every crumb off, away from magnets.',
    phase: 'finish',
    only: { choice: 'prepare', is: ['scuff'] },
    cautions: ['solvent', 'dust'],
    cant: [{ label: 'It scratches', to: 'wipe' }],
    next: 'wipe',
  },
  {
    id: 'wipe',
    title: 'Wipe it',
    doing:
      'Wipe with alcohol and a fresh towel. Mark the front, write its tag on it. Caliper steel and film together, in three places.',
    why: 'Another thickness of sheet is a change of stack: before it homes, add it up.',
    phase: 'finish',
    cautions: ['solvent', 'knock'],
    picture: 'front-mark',
    readings: [{ id: 'thickness', label: 'Sheet with its film', unit: 'mm', min: 0.1, max: 6 }],
    cant: [{ label: 'It smears', to: 'wipe' }],
    next: DONE,
    effects: [
      { kind: 'thickness', part: 'sheet', reading: 'thickness' },
      { kind: 'work', part: 'sheet', work: 'renewed', note: 'new film laminated' },
      { kind: 'book', text: book },
    ],
  },
];

const PHASES = [
  { id: 'prepare', title: 'Steel and film' },
  { id: 'stick', title: 'Stick' },
  { id: 'cure', title: 'Cure' },
  { id: 'finish', title: 'Trim, wipe' },
];

/** A bare film or polymer sheet laminated on a steel plate. */
export const laminateFilm: Procedure = {
  id: 'laminate-film',
  title: 'Laminate a film on steel',
  family: 'filament',
  about: 'A film or polymer sheet with adhesive goes on a bare spring steel plate, held still, without bubbles.',
  minutes: 35,
  tools: ['calipers', 'squeegee or roller', 'knife', 'cutting mat', 'needle'],
  materials: ['film with its liner', 'alcohol', 'clean towels'],
  parts: [{ id: 'sheet', label: 'The steel plate, as it will be called', groups: ['sheet'], from: 'rack' }],
  choices: CHOICES,
  phases: PHASES,
  then: ['replace-and-retire', 'first-print'],
  steps: laminate(
    'A new film is laminated on the steel.',
    'Wipe until a fresh towel stays white. From now on only the edges are touched.',
  ),
};

/** The worn film peeled off, a new one in its place: the steel lives on. */
export const renewFilm: Procedure = {
  id: 'renew-film',
  title: 'Renew the film on a sheet',
  family: 'filament',
  about:
    'A laminated film dies before its steel: peel it warm, keep the steel, laminate anew. Its life is counted afresh.',
  minutes: 55,
  tools: ['scraper with a plastic edge', ...laminateFilm.tools],
  materials: ['acetone for bare steel', ...laminateFilm.materials],
  parts: [{ id: 'sheet', label: 'The sheet', groups: ['sheet'], from: 'rack' }],
  choices: CHOICES,
  phases: [{ id: 'peel', title: 'Peel' }, ...PHASES],
  then: ['first-print'],
  steps: [
    {
      id: 'warm',
      title: 'Warm it, peel it',
      doing:
        'Sheet on its base at 60 to 70 °C. Lift a corner of the film, and peel slowly and low while it stays warm; the part that is not warmed leaves residue.',
      phase: 'peel',
      cautions: ['hot', 'blade'],
      picture: 'peel-warm',
      ask: {
        question: 'How did it come off?',
        answers: [
          { id: 'whole', label: 'The steel is bare', to: 'residue' },
          { id: 'torn', label: 'it tore', to: 'torn' },
        ],
      },
      cant: [{ label: 'It does not lift', to: 'torn' }],
      next: 'residue',
    },
    {
      id: 'torn',
      title: 'Lift the rest',
      doing:
        'Warm it again and lift the rest from another corner, a strip at a time. Plastic edge only: steel stays flat.',
      phase: 'peel',
      cautions: ['hot', 'blade'],
      cant: [{ label: 'It can’t be lifted: keep the sheet as it is', to: STOPPED }],
      next: 'residue',
    },
    {
      id: 'residue',
      title: 'Off, cool, residue',
      doing:
        'Heater off. Sheet off the base and cold: acetone on bare steel, soaking under a towel for some minutes, then the plastic edge.',
      phase: 'peel',
      cautions: ['solvent', 'blade'],
      gate: { checks: ['Is the heater off and the steel cold, away from the base?'] },
      cant: [{ label: 'The steel is bent or pitted', to: STOPPED }],
      next: 'size',
      effects: [{ kind: 'book', text: 'The worn film was peeled off; the steel stays.' }],
    },
    ...laminate(
      'The film was renewed; its life is counted from here.',
      'Wipe until a fresh towel stays white: no trace of the old adhesive.',
    ),
  ],
};
