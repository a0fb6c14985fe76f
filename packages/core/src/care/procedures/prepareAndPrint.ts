import { PIECE_LOOKS } from '../../level/testPlate';
import { DONE, STOPPED, type Procedure } from '../procedure';
import { OFFSET_READING } from './commonSteps';

/** A new sheet before its first print. */
export const prepareSheet: Procedure = {
  id: 'prepare-sheet',
  title: 'Prepare a new sheet',
  family: 'filament',
  about: 'Cover film off, wiped, scuffed where its kind asks for it: the difference between holding and not.',
  minutes: 8,
  tools: ['clean towels', 'gloves'],
  materials: ['alcohol, 90 % or more', '000 or 0000 steel wool where it is scuffed'],
  parts: [{ id: 'sheet', label: 'The sheet', groups: ['sheet', 'laminate', 'cover', 'glass'], from: 'rack' }],
  choices: [
    {
      id: 'prepare',
      question: 'The new face',
      options: [
        { id: 'wipe', label: 'wiped', because: 'Enough for most coats and films.' },
        {
          id: 'scuff',
          label: 'scuffed and wiped',
          because: 'Some polymer sheets hold only then; others keep their mirror.',
        },
      ],
      usual: 'wipe',
    },
  ],
  phases: [{ id: 'prepare', title: 'Prepare' }],
  then: ['first-print'],
  steps: [
    {
      id: 'cover',
      title: 'Cover film off',
      doing:
        'Peel the cover film off, both sides if both have one. From now on only the edges are touched. Off the machine, cold.',
      phase: 'prepare',
      cant: [{ label: 'It does not come off', to: STOPPED }],
      next: 'scuff',
    },
    {
      id: 'scuff',
      title: 'Scuff it',
      doing:
        '000 or 0000 steel wool with alcohol, even all over. Brush every crumb off, away from magnets and electronics.',
      phase: 'prepare',
      only: { choice: 'prepare', is: ['scuff'] },
      cautions: ['solvent', 'dust'],
      sum: 'together',
      about: 'sheet',
      uses: { abrasive: 'steel-wool', solvent: 'alcohol' },
      cant: [{ label: 'It scratches', to: 'wipe' }],
      next: 'wipe',
      effects: [{ kind: 'work', part: 'sheet', work: 'scrubbed', note: 'scuffed before its first print' }],
    },
    {
      id: 'wipe',
      title: 'Wipe it',
      doing:
        'Alcohol and a fresh towel, a clean face each time, until it stays white. Mark its front, write its tag on it.',
      why: 'Oil of hands is the first cause of lost adhesion.',
      phase: 'prepare',
      cautions: ['solvent'],
      picture: 'front-mark',
      cant: [
        { label: 'It smears', to: 'wipe' },
        { label: 'It feels waxy', to: 'waxy' },
      ],
      next: DONE,
      effects: [
        { kind: 'work', part: 'sheet', work: 'wiped', note: 'prepared before its first print' },
        { kind: 'materials', used: ['alcohol', 'towels'] },
      ],
    },
    {
      id: 'waxy',
      title: 'It feels waxy',
      doing: 'Adhesive of the cover film, or a release agent: rub it off with soap and hot water, rinse, let it dry.',
      why: 'Alcohol only spreads wax about.',
      phase: 'prepare',
      cant: [{ label: 'It stays waxy', to: STOPPED }],
      next: 'wipe',
      effects: [{ kind: 'work', part: 'sheet', work: 'washed', note: 'wax rubbed off before its first print' }],
    },
  ],
};

/** The first print on a filament machine after anything was fitted. */
export const firstPrint: Procedure = {
  id: 'first-print',
  title: 'First print after fitting',
  family: 'filament',
  about: 'A skirt or pads, watched from the first line on: what the eye sees says which adjuster, or how much offset.',
  minutes: 15,
  tools: ['a lamp', 'calipers'],
  materials: ['filament'],
  parts: [],
  choices: [
    {
      id: 'test',
      question: 'What is printed',
      options: [
        { id: 'skirt', label: 'a skirt, watched', because: 'Four sides, seen while there is time to trim.' },
        {
          id: 'pads',
          label: 'pads at the corners and the middle',
          because: 'Can be measured with calipers afterwards.',
        },
      ],
      usual: 'skirt',
    },
  ],
  phases: [
    { id: 'start', title: 'Start, watch' },
    { id: 'read', title: 'Read it' },
  ],
  steps: [
    {
      id: 'start',
      title: 'Start it and stay',
      doing: 'Bed and nozzle at the material’s heat. Start at a low speed, a hand at the switch for the first line.',
      phase: 'start',
      byChoice: {
        choice: 'test',
        says: {
          skirt: 'A skirt of two or three lines round the whole print area.',
          pads: 'One-layer pads at the four corners and the middle, nominal height as usual.',
        },
      },
      cautions: ['hot', 'moving', 'knock'],
      ask: {
        question: 'How do the lines look?',
        answers: [
          { id: 'good', label: 'Touching, without ridges, all round', to: 'measure' },
          { id: 'one-side', label: 'gaps or ridges on one side', to: 'trim-side' },
          { id: 'gaps', label: 'gaps all round', to: 'nearer' },
          { id: 'ridges', label: 'ridged or dragged all round', to: 'further' },
        ],
      },
      cant: [{ label: 'The nozzle scrapes: power off', to: 'scraped' }],
      next: 'measure',
    },
    {
      id: 'trim-side',
      title: 'One side',
      doing:
        'Gaps: that side is low; raise its adjuster by a sixteenth. Ridges: lower it by a sixteenth. Hands clear of belts. Watch the next side.',
      phase: 'start',
      sum: 'skirt',
      cautions: ['moving', 'hot'],
      cant: [{ label: 'It changes nothing', to: 'level' }],
      next: 'start',
    },
    {
      id: 'nearer',
      title: 'Gaps all round',
      doing: 'Offset nearer by 0.02 mm. Watch the next line.',
      phase: 'start',
      cautions: ['hot', 'moving'],
      cant: [{ label: 'It takes more than 0.1 mm altogether', to: 'level' }],
      next: 'start',
    },
    {
      id: 'further',
      title: 'Ridged all round',
      doing: 'Offset further by 0.02 mm. Watch the next line.',
      phase: 'start',
      cautions: ['hot', 'moving'],
      cant: [{ label: 'It takes more than 0.1 mm altogether', to: 'level' }],
      next: 'start',
    },
    {
      id: 'level',
      title: 'Level it again',
      doing: 'That is no trim any more. A level check first, then this print again.',
      phase: 'start',
      sum: 'level',
      cautions: ['hot'],
      cant: [{ label: 'It waits for another day', to: STOPPED }],
      next: 'start',
    },
    {
      id: 'scraped',
      title: 'It scraped',
      doing:
        'Power off, raise the head by hand. Look at the face of the sheet; set the offset 0.2 mm further before anything is tried again.',
      phase: 'start',
      cautions: ['knock', 'hot', 'moving'],
      photo: true,
      cant: [{ label: 'The face is gouged', to: STOPPED }],
      next: 'start',
      effects: [{ kind: 'book', text: 'The nozzle scraped on the first print: stopped at once.' }],
    },
    {
      id: 'measure',
      title: 'Measure it',
      doing: 'Cold, off the sheet: calipers on the first layer, in three places.',
      phase: 'read',
      only: { choice: 'test', is: ['pads'] },
      // Thicker by a quarter the nozzle stands too far, thinner by a quarter it scrapes it out.
      readings: [
        { id: 'nominal', label: 'Nominal first layer', unit: 'mm', min: 0.05, max: 2 },
        { id: 'measured', label: 'First layer, mean', unit: 'mm', min: 0.02, max: 2 },
      ],
      branches: [
        { reading: 'measured', of: 'nominal', over: 1.25, to: 'nearer' },
        { reading: 'measured', of: 'nominal', under: 0.75, to: 'further' },
      ],
      cant: [{ label: 'It tears', to: 'hold' }],
      next: 'hold',
    },
    {
      id: 'hold',
      title: 'Did it hold',
      doing: 'Keep the offset that worked.',
      phase: 'read',
      readings: [OFFSET_READING],
      ask: {
        question: 'Did it hold, and come off?',
        answers: [
          { id: 'held', label: 'It held and came off cold', to: DONE },
          { id: 'loose', label: 'it did not hold', to: 'not-holding' },
        ],
      },
      cant: [{ label: 'It won’t come off: free it first', to: DONE }],
      next: DONE,
      effects: [
        { kind: 'offset', reading: 'offset', answers: ['held'] },
        { kind: 'book', text: 'The first print after fitting was watched.' },
      ],
    },
    {
      id: 'not-holding',
      title: 'It did not hold',
      doing:
        'One change at a time: clean it cold, slower (about 30 mm/s), soak, nozzle nearer, a slightly thicker first layer.',
      phase: 'read',
      cautions: ['solvent', 'hot'],
      cant: [{ label: 'Nothing helps', to: STOPPED }],
      next: 'start',
    },
  ],
};

/** Nine places, row by row from the rear, each from the left. */
const PIECES = ['rear', 'middle', 'front'].flatMap((row) =>
  ['left', 'middle', 'right'].map((column) => ({
    id: `${row}-${column}`,
    label: `${row}, ${column}`,
    unit: '' as const,
    min: 0,
    max: PIECE_LOOKS.length - 1,
    options: PIECE_LOOKS.map((label, value) => ({ value, label })),
  })),
);

/** The first print on a resin machine: thin pieces over the whole plate, read by place. */
export const firstPrintResin: Procedure = {
  id: 'first-print-resin',
  title: 'First resin print after fitting',
  family: 'resin',
  about: 'Thin pieces over the whole plate: where they fail says whether it is tilt, shape or exposure.',
  minutes: 20,
  tools: ['gloves', 'calipers', 'plastic scraper'],
  materials: ['resin', 'alcohol'],
  parts: [],
  choices: [],
  phases: [
    { id: 'start', title: 'Start' },
    { id: 'read', title: 'Read by place' },
  ],
  steps: [
    {
      id: 'start',
      title: 'Nine thin pieces',
      doing:
        'Gloves on. Film clean and without crumbs, resin in. Nine pieces of about 1 mm, three by three over the whole plate.',
      phase: 'start',
      cautions: ['resin'],
      gate: { checks: ['Is zero set after the last levelling, and the film without crumbs?'] },
      cant: [{ label: 'Zero is from before', to: STOPPED }],
      next: 'read',
    },
    {
      id: 'read',
      title: 'Where did they fail',
      doing: 'Platform off over a tray. Look at the nine by place; nothing cured stays in the vat.',
      phase: 'read',
      cautions: ['resin', 'blade'],
      readings: PIECES,
      sum: 'pieces',
      takes: Object.fromEntries(PIECES.map(({ id }) => [id, `read.${id}`])),
      ask: {
        question: 'Which is it?',
        answers: [
          { id: 'all', label: 'All nine hold', to: 'foot', when: 'held' },
          { id: 'side', label: 'one side is loose or missing', to: 'tilt', when: 'tilt' },
          { id: 'centre', label: 'the centre, or here and there', to: 'shape', when: 'flatness' },
          { id: 'none', label: 'all of them fail, and its level is proven', to: 'exposure', when: 'exposure' },
          { id: 'unproven', label: 'its level is not proven', to: 'prove', when: 'zero' },
          { id: 'unsure', label: 'here and there, its level not proven', to: 'prove', when: 'level-first' },
        ],
      },
      cant: [{ label: 'They won’t come off', to: STOPPED }],
      next: 'foot',
    },
    {
      id: 'prove',
      title: 'Prove its level first',
      doing:
        'All or some fail and nobody has proven the level: that may be zero, a tilt or the shape. Level it by quarter sheets, set zero, then this test again.',
      phase: 'read',
      cautions: ['resin', 'moving'],
      cant: [{ label: 'It is proven', to: 'exposure' }],
      next: 'start',
      effects: [{ kind: 'book', text: 'The test failed, and the level was not proven.' }],
    },
    {
      id: 'tilt',
      title: 'One side: a tilt',
      doing:
        'Vat out. Level again with quarter sheets and look at that side first; then zero. Vat cleaned of crumbs, and this test again.',
      phase: 'read',
      cautions: ['resin', 'moving'],
      cant: [{ label: 'It was level and proven', to: 'exposure' }],
      next: 'start',
      effects: [{ kind: 'book', text: 'The test failed on one side: a tilt.' }],
    },
    {
      id: 'shape',
      title: 'Centre or at random: not flat',
      doing: 'After a good level that is shape: straightedge and light over the platform, then lap or shim it.',
      phase: 'read',
      cautions: ['resin'],
      cant: [{ label: 'It is flat', to: 'exposure' }],
      next: STOPPED,
      effects: [{ kind: 'book', text: 'The test failed in the centre or at random: the platform is not flat.' }],
    },
    {
      id: 'exposure',
      title: 'A proven level: exposure',
      doing: 'Longer first layers, one change at a time. Start conservatively.',
      phase: 'read',
      cant: [{ label: 'Nothing helps', to: STOPPED }],
      next: 'start',
    },
    {
      id: 'foot',
      title: 'Measure the foot',
      doing:
        'Wash and dry; caliper heights and foot. Squeezed too far it bulges. The tool for the first gap says by how much zero moves. Without it: zero further by 0.01 mm at a time.',
      phase: 'read',
      cautions: ['resin', 'solvent'],
      cant: [{ label: 'It can’t be measured', to: DONE }],
      next: DONE,
      effects: [{ kind: 'book', text: 'All nine test pieces hold.' }],
    },
  ],
};
