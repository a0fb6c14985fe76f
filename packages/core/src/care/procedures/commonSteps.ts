import { STOPPED, type ProcedureReading, type ProcedureStep, type SchoolChoice, type Target } from '../procedure';

// Steps and schools that several jobs have in common, told once. Each leads to where its job goes on.

/** What comes out of the bottle before adhesive goes down. */
export const ALCOHOL: SchoolChoice = {
  id: 'alcohol',
  question: 'Alcohol before bonding',
  options: [
    { id: '90', label: '90 % or more', because: 'Water left behind weakens the bond.' },
    { id: '70', label: '70 % or more', because: 'What most shops have; it has to dry longer.' },
    { id: 'acetone', label: 'Acetone, on bare metal', because: 'Takes the last grease, from nothing but bare metal.' },
  ],
  usual: '90',
};

/** What the school of alcohol changes at the wipe. */
export const ALCOHOL_SAYS = {
  choice: 'alcohol',
  says: {
    '90': 'With alcohol of 90 % or more; a minute to dry.',
    '70': 'With alcohol of 70 % or more; it dries by the clock after this.',
    acetone: 'With acetone, on bare metal only, bed cold; then one wipe with alcohol.',
  },
};

/** Alcohol with much water in it dries by the clock, not by the look. */
export const dryByClock = (phase: string, next: Target): ProcedureStep => ({
  id: 'dry-by-clock',
  title: 'Let it dry',
  doing: 'Wait ten minutes with nothing lying on it: no film of water is left.',
  why: 'Water left behind weakens the bond.',
  phase,
  only: { choice: 'alcohol', is: ['70'] },
  timer: { name: 'Dry after the wipe', least: { seconds: 600 } },
  cant: [{ label: 'It is still wet', to: 'degrease' }],
  next,
});

/** From which edge it is stuck. */
export const BEGIN_FROM: SchoolChoice = {
  id: 'from',
  question: 'Begin sticking from',
  options: [
    { id: 'back', label: 'the back edge', because: 'Long, straight and easy to sight along.' },
    { id: 'corner', label: 'a corner and two edges', because: 'Two edges fix the direction at once.' },
    { id: 'diagonal', label: 'a rear corner, along the diagonal', because: 'Air leaves on two sides.' },
    { id: 'stop', label: 'against a stop', because: 'A taped ruler takes the aiming away.' },
  ],
  usual: 'back',
};

export const STRIP_SAYS = {
  choice: 'from',
  says: {
    back: 'Along the back edge.',
    corner: 'Along one edge, up to its corner.',
    diagonal: 'At one rear corner, as a triangle.',
    stop: 'Along the edge that goes against the ruler.',
  },
};

export const ALIGN_SAYS = {
  choice: 'from',
  says: {
    back: 'Sight along the back edge.',
    corner: 'Bring the corner over its corner and sight along both edges.',
    diagonal: 'Bring the rear corner over its corner and sight along the diagonal.',
    stop: 'Push it against the ruler.',
  },
};

export const READY_SAYS = {
  choice: 'from',
  says: {
    back: 'Look at the back edge: it is what you sight along.',
    corner: 'Look at the corner and its two edges: they are what you sight along.',
    diagonal: 'Draw the diagonal with a marker: it is what you sight along.',
    stop: 'Tape a ruler down along the back edge as a stop.',
  },
};

/** Before a machine is taken apart: the spacer is printed first. */
export const printSpacer = (phase: string, back: Target): ProcedureStep => ({
  id: 'print-spacer',
  title: 'Print the spacer first',
  doing: 'Print it before the machine is taken apart, here or on another one. Measure it: not thinner than asked for.',
  why: 'On a shop’s only printer it is printed now or never.',
  phase,
  sum: 'spacer',
  cant: [{ label: 'There is no printer for it', to: STOPPED }],
  next: back,
});

interface SumStep {
  id?: string;
  phase: string;
  doing: string;
  layers: NonNullable<ProcedureStep['layers']>;
  next: Target;
}

/** The sum of the stack, and whether what it asks for is ready. */
export const addUp = ({ id = 'add-up', phase, doing, layers, next }: SumStep): ProcedureStep => ({
  id,
  title: 'Add up the stack',
  doing,
  why: 'No software zero rescues a home that is too low.',
  phase,
  sum: 'stack',
  layers,
  ask: {
    question: 'Is what has to move ready?',
    answers: [
      { id: 'nothing', label: 'nothing has to move', to: next, when: 'none', unless: 'stop' },
      { id: 'ready', label: 'it is ready: spacer, screw, flag', to: next, unless: 'stop' },
      { id: 'not-yet', label: 'a spacer, not printed yet', to: 'print-spacer', unless: 'stop' },
      { id: 'no', label: 'it can’t move so far', to: STOPPED },
    ],
  },
  cant: [{ label: 'Somebody has to look at it', to: STOPPED }],
  next,
});

/** What the sum said is done before anything homes; passed over where nothing has to move. */
export const moveTripPoint = (
  phase: string,
  layers: NonNullable<ProcedureStep['layers']>,
  next: Target,
): ProcedureStep => ({
  id: 'move',
  title: 'Move the trip point',
  doing: 'Do what the sum says, in its order: spacer, screw or flag, before anything homes.',
  phase,
  only: { answered: 'add-up', is: ['ready'] },
  sum: 'stack',
  layers,
  cautions: ['moving', 'knock'],
  gate: { checks: ['Is the trip point moved as the sum says?'] },
  cant: [{ label: 'It does not move so far', to: STOPPED }],
  next,
  effects: [{ kind: 'home-moved' }],
});

/** A strip of adhesive is laid bare, the rest of the liner stays on. */
export const exposeStrip = (phase: string, next: Target, from = true): ProcedureStep => ({
  id: 'strip',
  title: 'Fold 40 mm of liner back',
  doing: 'Fold 40 mm of liner back and crease it.',
  why: 'Peeling all of it at once is a known regret.',
  phase,
  bound: true,
  ...(from ? { byChoice: STRIP_SAYS } : {}),
  picture: 'liner-strip',
  cant: [{ label: 'The liner tore', to: 'torn-liner' }],
  next,
});

export const tornLiner = (phase: string): ProcedureStep => ({
  id: 'torn-liner',
  title: 'A torn liner',
  doing: 'Lift the torn part with tape stuck on it. Cover bare adhesive with baking paper until you need it.',
  phase,
  cant: [{ label: 'The adhesive is spoilt', to: STOPPED }],
  next: 'strip',
});

/** The first homing over a new stack, a hand at the switch. */
export const homeAndListen = (phase: string, quiet: Target, doing?: string): ProcedureStep => ({
  id: 'home',
  title: 'Home, with a hand at the switch',
  doing: doing ?? 'Home slowly, a hand at the power switch. Listen.',
  phase,
  cautions: ['knock', 'moving'],
  ask: {
    question: 'What did you hear?',
    answers: [
      { id: 'quiet', label: 'Nothing but the motors', to: quiet, proves: true },
      { id: 'knock', label: 'a knock or a grind', to: 'knock' },
    ],
  },
  cant: [{ label: 'It knocked: power is off', to: 'knock' }],
  next: quiet,
});

/** After a knock: off at once, the cause found, and round again. */
export const stopAtOnce = ({
  phase,
  doing,
  trip,
  clear,
}: {
  phase: string;
  doing: string;
  /** Where a home that is too low is put right. */
  trip: Target;
  /** Where it goes on when the cause was another. */
  clear: Target;
}): ProcedureStep[] => [
  {
    id: 'knock',
    title: 'Stop at once',
    doing,
    why: 'Each further try bends something.',
    phase,
    cautions: ['knock', 'moving'],
    photo: true,
    ask: {
      question: 'What was it?',
      answers: [
        { id: 'trip', label: 'home is too low for the new stack', to: trip },
        { id: 'plug', label: 'the plug of the switch is loose', to: 'plug' },
        { id: 'way', label: 'something stands in the way', to: 'clear-way' },
        { id: 'damage', label: 'something is damaged', to: STOPPED },
      ],
    },
    cant: [{ label: 'I don’t know', to: STOPPED }],
    next: trip,
    effects: [{ kind: 'book', text: 'A knock while homing: stopped at once.' }],
  },
  {
    id: 'plug',
    title: 'Put the plug in',
    doing: 'Power off and unplugged: press the switch’s plug home. Power on, press the switch by hand: is it seen?',
    phase,
    cautions: ['mains'],
    cant: [{ label: 'The switch is not seen', to: STOPPED }],
    next: clear,
    effects: [{ kind: 'book', text: 'The plug of the switch was loose.' }],
  },
  {
    id: 'clear-way',
    title: 'Clear the way',
    doing: 'Take away what was hit, and look for damage where it touched.',
    phase,
    cautions: ['moving', 'mains'],
    cant: [{ label: 'It is damaged', to: STOPPED }],
    next: clear,
  },
];

/** After a home that was too low: the sum with what lies there now, done before it homes again. */
export const sumAgain = ({
  phase,
  doing,
  layers,
  cautions,
  cant = [],
}: {
  phase: string;
  doing: string;
  layers: NonNullable<ProcedureStep['layers']>;
  cautions: NonNullable<ProcedureStep['cautions']>;
  cant?: ProcedureStep['cant'];
}): ProcedureStep => ({
  id: 'sum-again',
  title: 'The sum again',
  doing,
  phase,
  sum: 'stack',
  layers,
  cautions,
  gate: { checks: ['Does home trip sooner now, by as much as the sum says?'] },
  cant: [...cant, { label: 'It does not move so far', to: STOPPED }],
  next: 'home',
});

/** A strip that went down crooked: lifted while it can be, or accepted, which is said. */
export const crookedStrip = (lost: Target): ProcedureStep => ({
  id: 'crooked',
  title: 'The strip lies crooked',
  doing:
    'Stop. Only the strip is down: warm it to 50 °C, lift it slowly and low from one end, and look at the adhesive.',
  why: 'A skew of 0.25° over 235 mm is 1 mm at the far edge. It only grows from here.',
  phase: 'stick',
  cautions: ['hot'],
  photo: true,
  ask: {
    question: 'What is the adhesive like?',
    answers: [
      { id: 'good', label: 'whole and clean: lifted again', to: 'ready' },
      { id: 'small', label: 'less than 1 mm out at the far edge: it stays', to: 'roll', proves: true },
      { id: 'spoilt', label: 'spoilt', to: lost },
    ],
  },
  cant: [{ label: 'It does not lift', to: lost }],
  next: 'ready',
  effects: [{ kind: 'book', text: 'The strip was down crooked.' }],
});

/** A base that stands over is cut before it is stuck. */
export const trimBase = (phase: string, edge: string, back: Target): ProcedureStep => ({
  id: 'trim-base',
  title: 'Trim the base',
  doing: `Trim the base to the ${edge} with liner on, from the back, with a sharp knife along a ruler.`,
  phase,
  cautions: ['blade'],
  cant: [{ label: 'It cut crooked', to: STOPPED }],
  next: back,
});

/** A level check of the machine, whose end is taken from the records. */
export const levelIt = ({ phase, within, over }: { phase: string; within: Target; over: Target }): ProcedureStep => ({
  id: 'level',
  title: 'Level it',
  doing: 'Bed at about 60 °C, nozzle hot and clean. Level check: turn until the range is within the aim.',
  phase,
  sum: 'level',
  cautions: ['hot', 'moving'],
  ask: {
    question: 'How did the level check end?',
    answers: [
      { id: 'within', label: 'Within the aim', to: within, when: 'within' },
      { id: 'over', label: 'not within the aim', to: over, when: 'over' },
    ],
  },
  cant: [{ label: 'It can’t be levelled now', to: STOPPED }],
  next: within,
});

/** Screws cure tilt, not shape: what presses is looked for with the bed off and cool, then it is levelled again. */
export const bowed = (phase: string): ProcedureStep[] => [
  {
    id: 'bowed',
    title: 'It won’t come level',
    doing:
      'Screws cure tilt, not shape. Switch off, unplug, let the bed cool. Then look under the bed first, then for a bubble, debris or a proud clip.',
    phase,
    cautions: ['mains', 'hot'],
    gate: { checks: ['Is it unplugged and cool before a hand goes under it?'] },
    cant: [
      { label: 'Nothing is found', to: STOPPED },
      { label: 'The machine maps it: accept it', to: 'zero' },
    ],
    next: 'level-again',
  },
  levelAgain(phase),
];

const levelAgain = (phase: string): ProcedureStep => ({
  id: 'level-again',
  title: 'Level it again',
  doing: 'Plug in. Bed at about 60 °C, nozzle hot and clean. Level check once more.',
  phase,
  cautions: ['hot', 'moving'],
  sum: 'level',
  ask: {
    question: 'How did the level check end this time?',
    answers: [
      { id: 'within', label: 'within the aim', to: 'zero' },
      { id: 'again', label: 'not yet', to: 'bowed' },
    ],
  },
  cant: [{ label: 'It can’t be levelled now', to: STOPPED }],
  next: 'zero',
});

/** The offset that works, to be kept for this machine with what lies on it; may be left out. */
export const OFFSET_READING: ProcedureReading = {
  id: 'offset',
  label: 'Z offset that works, as the machine shows it',
  unit: 'mm',
  min: -20,
  max: 20,
  optional: true,
};

/** Z by a thin test print, and what to do when it does not hold. */
export const setZero = (phase: string, done: Target, effect: string): ProcedureStep[] => [
  {
    id: 'zero',
    title: 'Set Z again',
    doing:
      'Set the Z offset by a thin test print: neighbouring lines touch, without ridges. Keep the offset that works.',
    phase,
    cautions: ['hot'],
    readings: [OFFSET_READING],
    cant: [{ label: 'It does not hold', to: 'not-holding' }],
    next: done,
    effects: [
      { kind: 'offset', reading: 'offset' },
      { kind: 'book', text: effect },
    ],
  },
  {
    id: 'not-holding',
    title: 'The first layer does not hold',
    doing:
      'One change at a time: clean it cold, slower (about 30 mm/s), soak (hot materials 5 to 10 minutes at 100 °C), nozzle nearer, a slightly thicker first layer.',
    phase,
    cautions: ['hot', 'solvent'],
    readings: [
      { id: 'bed', label: 'Bed temperature for this material', unit: '°C', min: 20, max: 200, optional: true },
    ],
    sum: 'soak',
    takes: { setpoint: 'not-holding.bed' },
    setpoint: 60,
    cant: [{ label: 'Nothing helps', to: STOPPED }],
    next: 'zero',
  },
];

/** Waits that are chosen: under a weight where the plate comes off, or untouched. */
export const curing = ({ phase, sooner, next }: { phase: string; sooner: Target; next: Target }): ProcedureStep[] => [
  {
    id: 'weight',
    title: 'Under a weight',
    doing:
      'On the bench: baking paper, a flat board and a few kilograms on it, level. Never on a sprung bed: a plate that stays there lies without weight.',
    why: 'Acrylic foam bonds gain strength along a curve, most by 24 h.',
    phase,
    only: { choice: 'wait', is: ['24'] },
    timer: { name: 'Cure under weight', least: { hoursOf: 'wait' } },
    cant: [{ label: 'It is needed sooner', to: sooner }],
    next: 'untouched',
  },
  {
    id: 'untouched',
    title: 'Untouched',
    doing: 'Leave it alone until the time is up: no heat, no prints.',
    why: 'Full strength is reached by about 72 h.',
    phase,
    only: { choice: 'wait', is: ['72'] },
    timer: { name: 'Cure untouched', least: { hoursOf: 'wait' } },
    cant: [{ label: 'It is needed sooner', to: sooner }],
    next,
  },
];
