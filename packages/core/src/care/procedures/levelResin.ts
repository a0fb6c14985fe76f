import { CORNERS, TUGS } from '../../level/tugs';
import {
  DONE,
  STOPPED,
  type Procedure,
  type ProcedureReading,
  type ProcedureStep,
  type SchoolChoice,
} from '../procedure';

const WAY: SchoolChoice = {
  id: 'gauge',
  question: 'Level with',
  options: [
    { id: 'quarters', label: 'four quarter sheets', because: 'The only way that shows which corner is loose.' },
    { id: 'sheet', label: 'one sheet on the screen', because: 'Quick, and enough for a small platform.' },
    { id: 'film', label: 'the film as gauge, vat in', because: 'Works with resin in it.' },
    {
      id: 'lock',
      label: 'first-layer lock, vat in and dry',
      because: 'Less foot on flat prints: it is tightened where the first layer stands.',
    },
  ],
  usual: 'quarters',
};

const DRAG: SchoolChoice = {
  id: 'drag',
  question: 'How the paper should feel',
  options: [
    { id: 'firm', label: 'firm drag', because: 'It comes out with effort and does not tear.' },
    { id: 'still', label: 'does not move', because: 'Held without giving; 0.01 mm lower.' },
  ],
  usual: 'firm',
  only: { choice: 'gauge', is: ['quarters', 'sheet'] },
};

const RAISE: SchoolChoice = {
  id: 'raise',
  question: 'Before zero is set',
  options: [
    { id: 'none', label: 'leave it where it is', because: 'What most machines want.' },
    { id: 'hundredth', label: 'raise it by 0.01 mm', because: 'Some machines hold too firmly otherwise.' },
  ],
  usual: 'none',
  only: { choice: 'gauge', is: ['quarters', 'sheet', 'film'] },
};

const OPTIONS = TUGS.map((label, value) => ({ value, label }));
const tug = (id: string, label: string): ProcedureReading => ({
  id,
  label,
  unit: '',
  min: 0,
  max: TUGS.length - 1,
  // The first is the usual one: with effort.
  options: [OPTIONS[1]!, OPTIONS[0]!, ...OPTIONS.slice(2)],
});
const CORNER_LABELS: Record<(typeof CORNERS)[number], string> = {
  'rear-left': 'Rear left',
  'front-right': 'Front right',
  'rear-right': 'Rear right',
  'front-left': 'Front left',
};
const byCorner = (step: string) => Object.fromEntries(CORNERS.map((corner) => [corner, `${step}.${corner}`]));

const ON_SHEETS = { choice: 'gauge', is: ['quarters', 'sheet'] };
const ON_FILM = { choice: 'gauge', is: ['film', 'lock'] };

/** What a corner that differs leads to, and what all corners have in common. */
const TUG_ANSWERS = [
  { id: 'even', label: 'Alike at all', to: 'zero', when: 'even' },
  { id: 'uneven', label: 'a corner or a side differs', to: 'uneven', when: 'uneven' },
  { id: 'rocks', label: 'two across from each other differ', to: 'hollow', when: 'rocks' },
  { id: 'loose', label: 'all slide out', to: 'not-down', when: 'loose' },
  { id: 'tight', label: 'they tear, or move the machine', to: 'pressed', when: 'tight' },
];

const steps: ProcedureStep[] = [
  {
    id: 'ready',
    title: 'Clean, and the vat as this way needs it',
    doing: 'Gloves on. Platform, screen and film wiped: a crumb is thicker than paper.',
    phase: 'ready',
    byChoice: {
      choice: 'gauge',
      says: {
        quarters:
          'Vat out and covered. One sheet cut in four: a piece at each corner of the screen, clear of any tape at its edge.',
        sheet: 'Vat out and covered. One sheet on the screen, clear of any tape at its edge.',
        film: 'Vat in, without a crumb; resin may stand in it. Nothing else goes under the platform.',
        lock: 'Vat in, empty, clean and dry. Nothing else goes under the platform.',
      },
    },
    cautions: ['resin', 'moving'],
    gate: { checks: ['Not a crumb on platform, screen or film, and the vat as it says?'] },
    cant: [{ label: 'Something cured sticks to it', to: 'scrape' }],
    next: 'caliper',
  },
  {
    id: 'scrape',
    title: 'Scrape it clean',
    doing: 'A plastic edge, away from yourself, then alcohol on platform and screen; none on film or resin.',
    phase: 'ready',
    cautions: ['blade', 'resin', 'solvent'],
    cant: [{ label: 'Screen or film is damaged', to: STOPPED }],
    next: 'ready',
  },
  {
    id: 'caliper',
    title: 'How thick the sheet is',
    doing: 'Ten pieces between the calipers.',
    why: 'Which paper matters less than knowing its thickness: it says where the first layer will stand.',
    phase: 'ready',
    only: ON_SHEETS,
    readings: [{ id: 'ten', label: 'Ten sheets together', unit: 'mm', min: 0.3, max: 10, optional: true }],
    cant: [{ label: 'There are no calipers', to: 'loosen' }],
    next: 'loosen',
  },
  {
    id: 'loosen',
    title: 'Loosen the platform',
    doing: 'Its screws loosened, not out. Lift it by hand: it rises freely by 1.5 mm or more, and drops back.',
    why: 'What it can rise saves screen and film where home trips too late.',
    phase: 'ready',
    cautions: ['moving'],
    readings: [
      { id: 'key', label: 'Key of its screws', unit: 'mm', min: 0.5, max: 30, optional: true, known: { of: 'key' } },
    ],
    gate: { checks: ['Does it rise by hand by 1.5 mm or more?'] },
    cant: [{ label: 'It does not rise so far', to: 'stiff' }],
    next: 'lower',
    effects: [{ kind: 'key', reading: 'key' }],
  },
  {
    id: 'stiff',
    title: 'It does not rise',
    doing: 'Half a turn more at each, not out. Wipe resin from between ball or plates and their seat.',
    phase: 'ready',
    cautions: ['resin'],
    cant: [{ label: 'It still does not', to: STOPPED }],
    next: 'loosen',
  },
  {
    id: 'lower',
    title: 'Lower it by jog',
    doing:
      'A hand at the switch, eyes at the platform. The last 10 mm a tenth at a time. It touches where it begins to rise in its screws, which is seen through resin too: from there ten tenths more at most, by then home trips.',
    why: 'Homing by itself it would be driven on as far as home is too low.',
    phase: 'home',
    cautions: ['knock', 'moving', 'resin'],
    onceOnly: true,
    behind: ['loosen'],
    ask: {
      question: 'Where did home trip?',
      answers: [
        { id: 'touching', label: 'While it lay on, before the tenth step', to: 'dummy', proves: true },
        { id: 'above', label: 'before it touched', to: 'high' },
        { id: 'late', label: 'not by the tenth step: stopped', to: 'late' },
      ],
    },
    cant: [
      { label: 'It knocked: power is off', to: 'late' },
      { label: 'Its jog does not stop at home, or is refused before homing', to: 'by-switch' },
    ],
    next: 'dummy',
  },
  {
    id: 'by-switch',
    title: 'Find home by watching the switch',
    doing:
      'Power stays on. Watch the switch: its lamp, or the machine’s page that shows it. Go down by jog; where jog is refused, motors off, turn the lead screw slowly by hand. The last 10 mm a tenth at a time: after each step look at the switch. Stop when it trips. Stop also ten tenths after the platform begins to rise in its screws.',
    why: 'A jog that ignores the switch drives on: the look after each tenth is what stops it.',
    phase: 'home',
    cautions: ['knock', 'moving', 'resin'],
    onceOnly: true,
    behind: ['loosen'],
    ask: {
      question: 'Where did the switch trip?',
      answers: [
        {
          id: 'touching',
          label: 'It touched, and the switch tripped before the tenth step',
          to: 'dummy',
          proves: true,
        },
        { id: 'above', label: 'the switch tripped before it touched', to: 'high' },
        { id: 'late', label: 'not by the tenth step: stopped', to: 'late' },
      ],
    },
    cant: [
      { label: 'The switch can’t be watched', to: STOPPED },
      { label: 'It knocked: power is off', to: 'late' },
    ],
    next: 'dummy',
  },
  {
    id: 'high',
    title: 'Home trips above',
    doing: 'Press it down by hand where it stands: does it reach what lies under it, and stay free in its screws?',
    phase: 'home',
    cautions: ['moving'],
    ask: {
      question: 'Does it reach?',
      answers: [
        { id: 'reaches', label: 'It reaches and lies on', to: 'dummy', proves: true },
        { id: 'not', label: 'it stays above', to: 'move-lower' },
      ],
    },
    cant: [{ label: 'I can’t tell', to: 'move-lower' }],
    next: 'dummy',
  },
  {
    id: 'move-lower',
    title: 'Home has to trip lower',
    doing:
      'Measure the gap by feelers or a pile of paper, then up by jog. Move flag or sensor so that home trips lower by that gap and 0.3 mm more. Home has moved: zero goes with it.',
    phase: 'home',
    cautions: ['moving', 'knock'],
    cant: [{ label: 'It can’t be moved', to: STOPPED }],
    next: 'loosen',
    effects: [{ kind: 'home-moved' }],
  },
  {
    id: 'late',
    title: 'Home trips too late',
    doing:
      'Look at the plug of the switch first. Up by jog by half a millimetre from where it stopped: move flag or sensor until it trips right there. Then up. Home has moved: zero goes with it.',
    phase: 'home',
    cautions: ['knock', 'moving'],
    cant: [
      { label: 'Screen or film is damaged', to: STOPPED },
      { label: 'It can’t be moved', to: STOPPED },
    ],
    next: 'loosen',
    effects: [{ kind: 'home-moved' }, { kind: 'book', text: 'Home tripped too late: stopped, and moved.' }],
  },
  {
    id: 'dummy',
    title: 'Stop at the first layer',
    doing:
      'Start a dry dummy print whose first layer is 0.05 mm or thinner. When the platform stands at its first layer, power off: not pause.',
    why: 'A pause may lift the platform; only without power it stays where the first layer is.',
    phase: 'home',
    only: { choice: 'gauge', is: ['lock'] },
    cautions: ['moving'],
    gate: { checks: ['Vat empty and dry, platform at its first layer, power off?'] },
    cant: [{ label: 'It has lifted', to: 'dummy' }],
    next: 'press',
  },
  {
    id: 'press',
    title: 'Press, and tighten crosswise',
    doing:
      'A flat hand in the middle, evenly. Tighten crosswise, a little at a time: until each just holds, a quarter turn each, then firm.',
    why: 'One screw made firm at once pulls its corner up.',
    phase: 'tighten',
    bound: true,
    picture: 'crosswise',
    cautions: ['moving'],
    cant: [{ label: 'A screw slips', to: STOPPED }],
    next: 'tug',
  },
  {
    id: 'tug',
    title: 'Tug each sheet',
    doing: 'Pull each a little way, in this order.',
    phase: 'tighten',
    only: { choice: 'gauge', is: ['quarters'] },
    byChoice: {
      choice: 'drag',
      says: { firm: 'It should come with effort, and not tear.', still: 'It should not move.' },
    },
    readings: CORNERS.map((corner) => tug(corner, CORNER_LABELS[corner])),
    sum: 'tugs',
    takes: byCorner('tug'),
    ask: { question: 'How do the four compare?', answers: TUG_ANSWERS },
    cant: [{ label: 'The machine slides along: too tight', to: 'pressed' }],
    next: 'tug-one',
  },
  {
    id: 'tug-one',
    title: 'Tug the sheet',
    doing: 'Pull it a little way, then turn it and pull from the other side. It can’t show which corner is loose.',
    phase: 'tighten',
    only: { choice: 'gauge', is: ['sheet'] },
    readings: [tug('all', 'The sheet')],
    sum: 'tugs',
    takes: { all: 'tug-one.all' },
    ask: {
      question: 'How does it come?',
      answers: TUG_ANSWERS.filter(({ id }) => ['even', 'loose', 'tight'].includes(id)),
    },
    cant: [
      { label: 'One side comes easier', to: 'uneven' },
      { label: 'The machine slides along: too tight', to: 'pressed' },
    ],
    next: 'edges',
  },
  {
    id: 'edges',
    title: 'Look along the edges',
    doing: 'A light behind: along all four edges, does the platform lie on the film without a gap?',
    phase: 'tighten',
    only: ON_FILM,
    cautions: ['resin'],
    ask: {
      question: 'Does it lie on all round?',
      answers: [
        { id: 'even', label: 'It lies on all round', to: 'zero', proves: true },
        { id: 'uneven', label: 'light under an edge or a corner', to: 'uneven' },
        { id: 'above', label: 'light all round: it hangs above', to: 'move-lower' },
      ],
    },
    cant: [{ label: 'It can’t be seen: resin, or a hood', to: 'zero' }],
    next: 'zero',
  },
  {
    id: 'uneven',
    title: 'One corner differs',
    doing:
      'Loosen all, not out. Sheets back in their corners, where there are any. A flat hand in the middle; then crosswise, from the loose corner on.',
    phase: 'tighten',
    cautions: ['moving'],
    cant: [{ label: 'The same corner for the third time', to: 'hollow' }],
    next: 'press',
  },
  {
    id: 'not-down',
    title: 'It was not down',
    doing: 'Loosen all, not out. Sheets back. Press until it lies on them, and keep pressing while it is tightened.',
    phase: 'tighten',
    cautions: ['moving'],
    cant: [{ label: 'It does not reach them', to: 'move-lower' }],
    next: 'press',
  },
  {
    id: 'pressed',
    title: 'Too tight',
    doing: 'Loosen all, not out, and let it rise by itself. Whole sheets in. Less weight of the hand this time.',
    phase: 'tighten',
    cautions: ['moving'],
    cant: [{ label: 'It stays as tight: home is too low', to: 'late' }],
    next: 'press',
  },
  {
    id: 'hollow',
    title: 'It rocks',
    doing:
      'Loosen all and raise it. Look for a crumb, for tape under a sheet, for the edge of a screen’s film. Nothing there: straightedge and light over the platform. A platform that is not flat is lapped; no screw cures it.',
    phase: 'tighten',
    cautions: ['resin'],
    photo: true,
    cant: [{ label: 'It is not flat', to: STOPPED }],
    next: 'ready',
  },
  {
    id: 'zero',
    title: 'Set zero, where it stands',
    doing: 'By the machine’s own menu. Home is where the switch trips; zero is where a print starts: two things.',
    phase: 'zero',
    only: { choice: 'gauge', is: ['quarters', 'sheet', 'film'] },
    byChoice: { choice: 'raise', says: { hundredth: 'Raise it by 0.01 mm first.' } },
    cautions: ['moving'],
    cant: [{ label: 'The machine does not let me', to: STOPPED }],
    next: 'zero-lock',
  },
  {
    id: 'zero-lock',
    title: 'Home, raise by a layer, set zero',
    doing:
      'Power on. Up by jog, 20 mm. Home, a hand at the switch: it may press by the dummy’s first layer, no more. Then up by that first layer, and set zero there.',
    why: 'It was tightened one layer above home. Zero one layer up leaves the first layer its whole height.',
    phase: 'zero',
    only: { choice: 'gauge', is: ['lock'] },
    cautions: ['knock', 'moving'],
    cant: [{ label: 'It pressed hard, or knocked', to: 'late' }],
    next: 'up',
  },
  {
    id: 'up',
    title: 'Up, and the sheets out',
    doing: 'Up by jog, 50 mm.',
    phase: 'zero',
    byChoice: {
      choice: 'gauge',
      says: {
        quarters: 'Take out the four sheets, count them, and put the vat back.',
        sheet: 'Take out the sheet, and put the vat back.',
      },
    },
    cautions: ['moving'],
    gate: { checks: ['Nothing left under the platform: as much out as went in?'] },
    cant: [{ label: 'One is missing: look before anything moves', to: 'up' }],
    next: 'asked',
  },
  {
    id: 'asked',
    title: 'Zero, last of all',
    doing: 'Zero holds until film, screws, platform or stack change.',
    phase: 'zero',
    ask: {
      question: 'Was zero set after the last screw was tightened?',
      answers: [
        { id: 'set', label: 'Level, and zero set after it', to: DONE, proves: true },
        { id: 'not', label: 'not yet', to: 'zero-now' },
      ],
    },
    cant: [{ label: 'I don’t know', to: 'zero-now' }],
    next: DONE,
    effects: [
      {
        kind: 'level',
        answers: ['set'],
        way: { choice: 'gauge' },
        drag: { choice: 'drag' },
        takes: { ...byCorner('tug'), all: 'tug-one.all', ten: 'caliper.ten' },
      },
      { kind: 'zero', answers: ['set'] },
    ],
  },
  {
    id: 'zero-now',
    title: 'Set zero now',
    doing:
      'Vat out. Lower by jog until home trips, the last 10 mm a tenth at a time, a hand at the switch. Set zero there; after a lock one first layer higher. Up by 50 mm, vat back.',
    phase: 'zero',
    cautions: ['knock', 'moving', 'resin'],
    cant: [{ label: 'The machine does not let me', to: STOPPED }],
    next: 'asked',
  },
];

/** A resin platform made parallel to its screen, by one of four ways; zero is asked for last. */
export const levelResin: Procedure = {
  id: 'level-resin',
  title: 'Level a resin platform',
  family: 'resin',
  about: 'The platform is loosened, laid on sheets or film, tightened crosswise, proved corner by corner; then zero.',
  minutes: 12,
  tools: ['the platform’s key', 'paper', 'calipers', 'gloves'],
  materials: ['clean towels'],
  parts: [],
  choices: [WAY, DRAG, RAISE],
  phases: [
    { id: 'ready', title: 'Clean, loosen' },
    { id: 'home', title: 'Lower' },
    { id: 'tighten', title: 'Tighten, tug' },
    { id: 'zero', title: 'Zero' },
  ],
  then: ['first-print-resin'],
  steps,
};
