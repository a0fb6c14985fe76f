import { DONE, STOPPED, type Procedure, type ProcedureStep, type SchoolChoice, type StackLayerAsk } from '../procedure';
import {
  addUp,
  ALCOHOL,
  ALCOHOL_SAYS,
  dryByClock,
  exposeStrip,
  moveTripPoint,
  printSpacer,
  sumAgain,
  tornLiner,
} from './commonSteps';

const LAYERS: StackLayerAsk[] = [
  { slot: 'base', reading: 'measure.magnet', part: 'magnet' },
  { slot: 'top', reading: 'measure.flex', part: 'flex' },
];

/** What stands in for the parts while it is rehearsed: a magnet with its liner on does not hang from aluminium. */
const REHEARSAL: SchoolChoice = {
  id: 'rehearsal',
  question: 'What stands in for the new parts in the rehearsal',
  options: [
    { id: 'packing', label: 'packing, taped on', because: 'Card or sheet as thick as both together; at hand.' },
    { id: 'spacer', label: 'a printed spacer', because: 'As thick as both together, in whole layers, never thinner.' },
    { id: 'parts', label: 'the parts themselves, taped round the edge', because: 'The true outline too; liner on.' },
  ],
  usual: 'packing',
};

const TAPED = {
  choice: 'rehearsal',
  says: {
    packing: 'Tape packing under the platform, as thick as both parts together, at all four corners and the middle.',
    spacer: 'Tape the printed spacers under the platform, at all four corners and the middle.',
    parts:
      'Magnet with its liner on and plate together: tape them on all round the edge. By themselves they don’t hang.',
  },
};

const screen = (doing: string) =>
  `${doing} Relieve the platform’s screws first, then raise it by hand, slowly. Look at film and screen.`;

/** The rehearsal of a thicker platform, from the sum on. */
const rehearsal = (first: string, layers: StackLayerAsk[], next: string): ProcedureStep[] => [
  {
    id: 'print-dummy',
    title: 'Print the spacers',
    doing: 'Print five small pads, as thick as both parts together. Measure them: not thinner than asked for.',
    phase: 'rehearse',
    only: { choice: 'rehearsal', is: ['spacer'] },
    sum: 'spacer',
    takes: Object.fromEntries(layers.map(({ reading }) => [reading!, reading!])),
    cant: [{ label: 'There is no printer for it', to: STOPPED }],
    next: 'tape-on',
  },
  {
    id: 'tape-on',
    title: 'Tape it on',
    doing: 'Platform off the machine, clean and dry.',
    phase: 'rehearse',
    byChoice: TAPED,
    cautions: ['magnet'],
    cant: [{ label: 'It does not hold', to: STOPPED }],
    next: 'move',
  },
  moveTripPoint('rehearse', layers, 'lower'),
  {
    id: 'lower',
    title: 'Lower it over the empty vat',
    doing:
      'Platform back on its arm, knob tight. Loosen the platform’s screws, not out. Empty vat in, clean and dry. Lower by jog, a hand at the switch; the last 10 mm a tenth at a time, until home trips.',
    phase: 'rehearse',
    picture: 'empty-vat',
    cautions: ['moving', 'knock', 'resin'],
    gate: { checks: ['Did home trip before anything touched, and did all pass the edges of the vat?'] },
    cant: [
      { label: 'It touches', to: 'knock' },
      { label: 'It is too large for the vat', to: STOPPED },
    ],
    next,
  },
  {
    id: 'knock',
    title: 'Stop at once',
    doing: screen('Power off.'),
    phase: 'rehearse',
    cautions: ['knock', 'moving'],
    photo: true,
    ask: {
      question: 'What was it?',
      answers: [
        { id: 'trip', label: 'home trips too late', to: first },
        { id: 'plug', label: 'the plug of the switch is loose', to: 'plug' },
        { id: 'yes', label: 'screen or film is damaged', to: STOPPED },
      ],
    },
    cant: [{ label: 'I can’t tell', to: STOPPED }],
    next: first,
    effects: [{ kind: 'book', text: 'It touched while homing: stopped at once.' }],
  },
  {
    id: 'plug',
    title: 'Put the plug in',
    doing: 'Unplugged: press the plug of the switch or sensor home. Power on, cover it by hand: is it seen?',
    phase: 'rehearse',
    cautions: ['mains'],
    cant: [{ label: 'It is not seen', to: STOPPED }],
    next: 'lower',
    effects: [{ kind: 'book', text: 'The plug of the switch was loose.' }],
  },
];

/** A magnet and flex plate on a resin printer's platform. */
export const fitFlexOnResin: Procedure = {
  id: 'fit-flex-on-resin',
  title: 'Fit a flexible system on a resin platform',
  family: 'resin',
  about: 'A magnet is stuck on the platform and carries a flex plate: rehearsed, cured, and checked over an empty vat.',
  minutes: 70,
  tools: ['calipers', '120 or 220 grit', 'roller', 'tape', 'gloves'],
  materials: ['magnet with its liner', 'flex plate', 'alcohol', 'clean towels'],
  parts: [
    { id: 'platform', label: 'The platform', groups: ['platform'], from: 'machine' },
    { id: 'magnet', label: 'The magnet', groups: ['base'], from: 'rack' },
    { id: 'flex', label: 'The flex plate', groups: ['flex-plate'], from: 'rack' },
  ],
  choices: [
    REHEARSAL,
    ALCOHOL,
    {
      id: 'abrade',
      question: 'Abrade the platform first',
      options: [
        {
          id: 'yes',
          label: 'yes, 120 to 220 grit, an even scuff',
          because: 'Peel forces pull on the bond: it wants tooth.',
        },
        { id: 'no', label: 'no', because: 'A platform that is already rough holds as it is.' },
      ],
      usual: 'yes',
    },
    {
      id: 'wait',
      question: 'Wait before use',
      options: [
        { id: '24', label: '24 h under a weight', because: 'Most of the strength is there by then.', hours: 24 },
        {
          id: '72',
          label: '72 h untouched',
          because: 'Peel forces pull on the bond; full strength by then.',
          hours: 72,
        },
      ],
      usual: '72',
    },
  ],
  phases: [
    { id: 'measure', title: 'Clear, measure' },
    { id: 'rehearse', title: 'Rehearse' },
    { id: 'prepare', title: 'Scuff, clean' },
    { id: 'stick', title: 'Stick' },
    { id: 'cure', title: 'Cure' },
    { id: 'on', title: 'Plate on, home' },
  ],
  then: ['level-resin', 'first-print-resin'],
  steps: [
    {
      id: 'empty',
      title: 'Vat out, platform clean',
      doing:
        'Gloves on. Vat out and covered, platform off and wiped clean of resin. Protective films off magnet and plate.',
      phase: 'measure',
      cautions: ['resin', 'magnet'],
      cant: [{ label: 'Cured resin sticks to it', to: 'scrape' }],
      next: 'measure',
    },
    {
      id: 'scrape',
      title: 'Scrape it clean',
      doing: 'A plastic edge, away from yourself, then alcohol. Debris on the platform pierces the film.',
      phase: 'measure',
      cautions: ['blade', 'resin', 'solvent'],
      cant: [{ label: 'It is gouged', to: STOPPED }],
      next: 'measure',
    },
    {
      id: 'measure',
      title: 'Measure magnet and flex plate',
      doing:
        'With calipers: the magnet with its liner. Lift a corner of the liner, measure the liner alone, press it back; type the difference. Then the flex plate. Lay both on: do they stay within the platform’s edge?',
      phase: 'measure',
      readings: [
        { id: 'magnet', label: 'Magnet', unit: 'mm', min: 0.2, max: 8, known: { of: 'thickness', part: 'magnet' } },
        { id: 'flex', label: 'Flex plate', unit: 'mm', min: 0.1, max: 5, known: { of: 'thickness', part: 'flex' } },
      ],
      cant: [
        { label: 'There are no calipers', to: STOPPED },
        { label: 'The magnet stands over', to: 'trim' },
      ],
      next: 'add-up',
    },
    {
      id: 'trim',
      title: 'Trim the magnet',
      doing:
        'With the flex plate as template, liner on: that is the job “Trim a magnet to its sheet”. This one waits here.',
      phase: 'measure',
      cautions: ['blade', 'magnet'],
      cant: [{ label: 'It can’t be trimmed', to: STOPPED }],
      next: 'measure',
    },
    addUp({
      phase: 'measure',
      doing:
        'A thicker platform needs home to trip sooner, or it is driven into the screen. Add it up and see by how much.',
      layers: LAYERS,
      next: 'print-dummy',
    }),
    printSpacer('measure', 'add-up'),
    ...rehearsal('add-up', LAYERS, 'wipe'),
    {
      id: 'wipe',
      title: 'Off again, and wiped',
      doing: 'Platform off, tape and packing off. Wipe it with alcohol before it is scuffed, or grease is rubbed in.',
      phase: 'prepare',
      cautions: ['solvent', 'resin'],
      cant: [{ label: 'Tape leaves residue', to: 'scrape' }],
      next: 'scuff',
    },
    {
      id: 'scuff',
      title: 'Scuff the platform',
      doing: '120 or 220 grit, an even scuff all over, wet or under extraction.',
      phase: 'prepare',
      only: { choice: 'abrade', is: ['yes'] },
      cautions: ['dust', 'resin'],
      sum: 'together',
      about: 'platform',
      uses: { abrasive: 'coarse-grit' },
      cant: [{ label: 'It is hollow: paper rocks on it', to: STOPPED }],
      next: 'degrease',
      effects: [{ kind: 'work', part: 'platform', work: 'other', note: 'scuffed before bonding' }],
    },
    {
      id: 'degrease',
      title: 'Degrease',
      doing: 'A fresh towel each time, until it stays white. Let it dry wholly. Mark the front of both.',
      phase: 'prepare',
      byChoice: ALCOHOL_SAYS,
      cautions: ['solvent'],
      readings: [{ id: 'wipes', label: 'Wipes', unit: 'wipes', min: 1, max: 30, optional: true }],
      branches: [{ reading: 'wipes', over: 10, to: 'scrape' }],
      cant: [{ label: 'The towel never stays white', to: 'scrape' }],
      next: 'dry-by-clock',
    },
    dryByClock('prepare', 'ready'),
    {
      id: 'ready',
      title: 'Before the liner comes off',
      doing: 'Platform face up on a flat table. Roller, needle and tape within reach. From now on hands are full.',
      phase: 'prepare',
      cautions: ['once'],
      gate: {
        checks: [
          'Rehearsed with nothing touching, platform dry, fronts marked; seen slantwise to a lamp dull all over, no rim of a dent standing up?',
        ],
      },
      cant: [
        { label: 'It was not rehearsed', to: 'print-dummy' },
        { label: 'It shines in places', to: 'scuff-rest' },
        { label: 'A dent or a gouge', to: 'dent' },
      ],
      next: 'strip',
    },
    {
      id: 'scuff-rest',
      title: 'Scuff what shines',
      doing: '120 or 220 grit over what still shines, and on into the dull, wet or under extraction.',
      why: 'The bond lets go first where it has no tooth.',
      phase: 'prepare',
      cautions: ['dust', 'resin'],
      sum: 'together',
      about: 'platform',
      uses: { abrasive: 'coarse-grit' },
      cant: [{ label: 'The paper does not reach it: it lies low', to: STOPPED }],
      next: 'degrease',
      effects: [{ kind: 'work', part: 'platform', work: 'other', note: 'scuffed once more before bonding' }],
    },
    {
      id: 'dent',
      title: 'A dent in the platform',
      doing:
        'Its rim stands up and holds the magnet off. Take the rim off flush with a flat file, or grit on a block; the hollow may stay. Ruler across it: no light beside it.',
      phase: 'prepare',
      cautions: ['dust', 'resin'],
      photo: true,
      cant: [{ label: 'Light shows beside it', to: STOPPED }],
      next: 'degrease',
      effects: [{ kind: 'work', part: 'platform', work: 'other', note: 'the rim of a dent taken off' }],
    },
    exposeStrip('stick', 'align', false),
    tornLiner('stick'),
    {
      id: 'align',
      title: 'Align without touching',
      doing: 'Hold the magnet over the platform, front mark to the front, edges in line.',
      phase: 'stick',
      bound: true,
      cautions: ['once', 'magnet'],
      cant: [{ label: 'It touched, crooked', to: 'crooked' }],
      next: 'press',
    },
    {
      id: 'press',
      title: 'Stick it on',
      doing:
        'Press the strip, pull the liner a little at a time, roll from the centre outwards with all your weight, for minutes.',
      phase: 'stick',
      bound: true,
      picture: 'centre-out',
      cautions: ['once'],
      onceOnly: true,
      behind: ['ready'],
      ask: {
        question: 'How does it lie?',
        answers: [
          { id: 'flat', label: 'It lies', to: 'cure' },
          { id: 'bubble', label: 'a bubble', to: 'bubble' },
          { id: 'crooked', label: 'crooked', to: 'crooked' },
        ],
      },
      cant: [{ label: 'It touched something', to: 'crooked' }],
      next: 'cure',
      effects: [
        { on: 'always', kind: 'mount', part: 'magnet' },
        {
          on: 'always',
          kind: 'hold',
          part: 'magnet',
          hold: 'cure',
          hours: { hoursOf: 'wait' },
          reason: 'adhesive cures',
        },
        {
          on: 'always',
          kind: 'hold',
          part: 'platform',
          hold: 'cure',
          hours: { hoursOf: 'wait' },
          reason: 'the magnet on it cures',
        },
        { kind: 'materials', used: ['magnet', 'alcohol', 'towels'] },
      ],
    },
    {
      id: 'bubble',
      title: 'A bubble',
      doing: 'A bubble is a high spot: the flex plate bends over it. Prick it flat at its edge and press it out.',
      phase: 'stick',
      cautions: ['blade'],
      cant: [{ label: 'It stays', to: 'crooked' }],
      next: 'cure',
    },
    {
      id: 'crooked',
      title: 'Crooked, or a bubble that stays',
      doing:
        'In the first centimetres: lift it a little and lay it again. All of it down: does the flex plate still lie wholly on it? Otherwise take it off warm, now, before it cures, and begin again with a new one.',
      phase: 'stick',
      photo: true,
      cautions: ['hot'],
      ask: {
        question: 'What now?',
        answers: [
          { id: 'fits', label: 'the flex plate lies well', to: 'cure' },
          { id: 'lost', label: 'the magnet is lost', to: 'lost' },
        ],
      },
      cant: [{ label: 'It does not come off: do the job “Remove an old surface”', to: STOPPED }],
      next: 'cure',
      effects: [{ kind: 'book', text: 'The magnet went on crooked.' }],
    },
    {
      id: 'lost',
      title: 'The magnet is lost',
      doing:
        'Take it off warm, clean the platform. With another magnet: start this job again, home stays as it is. Without one the platform is used bare: home goes back too.',
      phase: 'stick',
      cautions: ['hot'],
      cant: [{ label: 'There is no other: it goes back bare', to: 'home-back' }],
      next: STOPPED,
      effects: [
        { on: 'always', kind: 'release', part: 'magnet', reason: 'taken off again' },
        { on: 'always', kind: 'release', part: 'platform', reason: 'the magnet is off it again' },
        { on: 'always', kind: 'take-off', part: 'flex', place: 'taken off' },
        { on: 'always', kind: 'take-off', part: 'magnet', place: 'to be retired' },
        { on: 'always', kind: 'retire', part: 'magnet', why: 'stuck on crooked' },
      ],
    },
    {
      id: 'home-back',
      title: 'Move home back',
      doing:
        'Home is set for the thicker platform: a bare one would stop in the air. Take the spacer off, or turn the flag or screw back by as much as it was moved. Then level it and set zero again.',
      phase: 'stick',
      only: { answered: 'add-up', is: ['ready'] },
      cautions: ['moving', 'knock'],
      cant: [{ label: 'It was never moved', to: STOPPED }],
      next: STOPPED,
      effects: [{ kind: 'home-moved' }],
    },
    {
      id: 'cure',
      title: 'Cure',
      doing: 'Platform face up on a level place until the time is up.',
      why: 'Acrylic foam gains strength along a curve, most by 24 h and full by about 72 h.',
      phase: 'cure',
      byChoice: {
        choice: 'wait',
        says: { '24': 'A flat board and a few kilograms on it, on the bench.', '72': 'Untouched.' },
      },
      timer: { name: 'Cure', least: { hoursOf: 'wait' } },
      cant: [{ label: 'The machine is needed sooner', to: 'sooner' }],
      next: 'clean-both',
    },
    {
      id: 'sooner',
      title: 'Needed sooner',
      doing:
        'Another platform can take the machine meanwhile. Printing on a green bond lifts its edges. If it must be, cut the hold short with the reason.',
      phase: 'cure',
      cant: [{ label: 'It can wait after all', to: 'cure' }],
      next: 'clean-both',
      effects: [{ kind: 'book', text: 'The cure was ended early.' }],
    },
    {
      id: 'clean-both',
      title: 'Clean and dry both faces',
      doing: 'Wipe magnet and flex plate, let both dry, and let the plate down rear edge first. Light test over it.',
      phase: 'on',
      cautions: ['magnet', 'solvent'],
      gate: { checks: ['Are both faces clean and dry, and does the plate lie without light under a straightedge?'] },
      cant: [{ label: 'An edge of the magnet lifts', to: 'edge' }],
      next: 'home',
      effects: [{ kind: 'mount', part: 'flex' }],
    },
    {
      id: 'edge',
      title: 'An edge lifts',
      doing:
        'Press it under a clamp with a board for another day. A corner that the clamp doesn’t reach: a block across it, under the jaw. If it lifts again the platform was not clean.',
      phase: 'cure',
      timer: { name: 'Clamped', least: { seconds: 86_400 } },
      photo: true,
      cant: [{ label: 'It lifts again', to: 'lost' }],
      next: 'clean-both',
    },
    {
      id: 'home',
      title: 'Home over the empty vat',
      doing:
        'Platform back on its arm, knob tight; its screws loosened, not out. Empty vat in. Home slowly, a hand at the switch. Listen and look.',
      phase: 'on',
      picture: 'empty-vat',
      cautions: ['knock', 'moving', 'resin'],
      gate: { checks: ['Platform back on, vat empty and clean, home set as the sum says, screws loose?'] },
      ask: {
        question: 'What happened?',
        answers: [
          { id: 'quiet', label: 'It tripped before anything touched', to: DONE, proves: true },
          { id: 'touch', label: 'it touched or knocked', to: 'knock-after' },
        ],
      },
      cant: [{ label: 'It knocked: power is off', to: 'knock-after' }],
      next: DONE,
      effects: [
        {
          kind: 'book',
          text: 'Magnet and flex plate fitted, homed over an empty vat. Level it and set zero before it prints.',
          answers: ['quiet'],
        },
      ],
    },
    {
      id: 'knock-after',
      title: 'Stop at once',
      doing: screen('Power off.'),
      phase: 'on',
      cautions: ['knock', 'moving'],
      photo: true,
      cant: [{ label: 'Screen or film is damaged', to: STOPPED }],
      next: 'sum-again',
      effects: [{ kind: 'book', text: 'It touched while homing: stopped at once.' }],
    },
    sumAgain({
      phase: 'on',
      doing: 'Measure the parts as they lie, look at the plug of the switch, and do what the sum says before it homes.',
      layers: LAYERS,
      cautions: ['knock', 'mains'],
    }),
  ],
};

const THICKER: StackLayerAsk[] = [
  { slot: 'top', reading: 'measure.more', name: 'what comes onto the platform', beside: true },
];

/** A rehearsal alone, before anything is bought or stuck. */
export const rehearsePlatform: Procedure = {
  id: 'rehearse-platform',
  title: 'Rehearse a thicker platform',
  family: 'resin',
  about: 'Whether a thicker platform passes the vat and trips in time, tried with packing before anything is stuck.',
  minutes: 20,
  tools: ['calipers', 'tape', 'gloves'],
  materials: ['packing of the same thickness'],
  parts: [],
  choices: [REHEARSAL],
  phases: [
    { id: 'measure', title: 'Measure and sum' },
    { id: 'rehearse', title: 'Rehearse' },
    { id: 'back', title: 'Back' },
  ],
  then: ['fit-flex-on-resin'],
  steps: [
    {
      id: 'measure',
      title: 'How much thicker',
      doing: 'Gloves on, vat out and covered, platform wiped. Add up what is to come onto it, adhesives included.',
      phase: 'measure',
      cautions: ['resin'],
      readings: [{ id: 'more', label: 'Comes onto it', unit: 'mm', min: 0.05, max: 20 }],
      cant: [{ label: 'It isn’t known yet', to: STOPPED }],
      next: 'add-up',
    },
    addUp({
      phase: 'measure',
      doing: 'A thicker platform needs home to trip sooner. Add it up and see by how much.',
      layers: THICKER,
      next: 'print-dummy',
    }),
    printSpacer('measure', 'add-up'),
    ...rehearsal('add-up', THICKER, 'back'),
    {
      id: 'back',
      title: 'Back as it was',
      doing: 'Platform off, packing off, wiped, and back on its arm.',
      phase: 'back',
      cautions: ['moving', 'resin'],
      cant: [{ label: 'It stays so, the parts go on today', to: DONE }],
      next: 'home-back',
      effects: [{ on: 'always', kind: 'book', text: 'A thicker platform was rehearsed: nothing touched.' }],
    },
    {
      id: 'home-back',
      title: 'Move home back',
      doing:
        'Move home back to where it was until the parts are on. Write down by how much it was moved. Then level it and set zero again.',
      why: 'A home that trips too soon only prints on air; a forgotten one puzzles the next person.',
      phase: 'back',
      only: { answered: 'add-up', is: ['ready'] },
      cautions: ['moving'],
      cant: [{ label: 'It stays so, the parts go on today', to: DONE }],
      next: DONE,
      effects: [{ kind: 'home-moved' }],
    },
  ],
};
