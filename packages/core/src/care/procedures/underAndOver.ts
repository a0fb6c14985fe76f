import { DONE, STOPPED, type Procedure, type StackLayerAsk } from '../procedure';
import { homeAndListen, stopAtOnce } from './commonSteps';

/** Proud screws sunk into the plate, their insulating washers kept. */
export const countersinkScrews: Procedure = {
  id: 'countersink-screws',
  title: 'Countersink proud screws',
  family: 'filament',
  about: 'Screw heads that stand proud of the plate are sunk flush; insulating washers go back.',
  minutes: 45,
  tools: ['90° countersink', 'calipers', 'ruler', 'vacuum cleaner', 'deburring tool'],
  materials: ['countersunk screws, 90°', 'insulating washers', 'lock nuts'],
  parts: [],
  choices: [],
  phases: [
    { id: 'plan', title: 'Depth, unplug' },
    { id: 'drill', title: 'Cut a little' },
    { id: 'back', title: 'Back together' },
    { id: 'home', title: 'Home, level' },
  ],
  steps: [
    {
      id: 'plan',
      title: 'Work out the depth',
      doing:
        'Choose the countersunk screw, not the adjuster screw. Measure hole and plate: how wide and deep the cone is, and how much plate is left under it.',
      phase: 'plan',
      sum: 'top',
      takes: { thread: 'plan.thread', hole: 'plan.hole', plate: 'plan.plate' },
      readings: [
        {
          id: 'thread',
          label: 'Countersunk screw',
          unit: '',
          min: 3,
          max: 8,
          options: [3, 4, 5, 6, 8].map((value) => ({ value, label: `M${value}` })),
        },
        { id: 'hole', label: 'Hole', unit: 'mm', min: 1, max: 12 },
        { id: 'plate', label: 'Plate', unit: 'mm', min: 0.5, max: 20, known: { of: 'lowest-layer' } },
      ],
      cant: [{ label: 'The plate is too thin', to: 'lower-head' }],
      next: 'isolate',
    },
    {
      id: 'lower-head',
      title: 'A lower head instead',
      doing: 'Use a screw with a lower head, or notch the base round it.',
      phase: 'plan',
      cant: [{ label: 'Neither does', to: STOPPED }],
      next: DONE,
    },
    {
      id: 'isolate',
      title: 'Unplug and let it cool',
      doing:
        'Unplug the machine. Wait until the bed is cold. Note how each screw’s washers sit; photograph them. Screw out.',
      phase: 'plan',
      cautions: ['mains', 'hot', 'insulate', 'once'],
      photo: true,
      ask: {
        question: 'Is all of it so?',
        answers: [
          {
            id: 'so',
            label: 'Plug out, washers’ places known, no wire or heater under the hole',
            to: 'drill',
            proves: true,
          },
          { id: 'not', label: 'not yet', to: 'isolate' },
        ],
      },
      cant: [{ label: 'A heater or wire lies under it', to: STOPPED }],
      next: 'drill',
    },
    {
      id: 'drill',
      title: 'Cut a little',
      doing:
        'A little at a time, straight, chips vacuumed off. Try the screw after each bit; measure what is left of the plate.',
      phase: 'drill',
      bound: true,
      picture: 'countersink',
      cautions: ['blade', 'dust'],
      onceOnly: true,
      behind: ['isolate', 'again'],
      ask: {
        question: 'How does the head lie?',
        answers: [
          { id: 'flush', label: 'Flush or a hair below', to: 'assemble' },
          { id: 'proud', label: 'still proud', to: 'again' },
          { id: 'deep', label: 'too deep', to: 'too-deep' },
        ],
      },
      cant: [{ label: 'It runs off', to: 'too-deep' }],
      next: 'assemble',
    },
    {
      id: 'again',
      title: 'Not flush yet',
      doing: 'Measure what is left of the plate under the cone before you cut on.',
      phase: 'drill',
      gate: { checks: ['Is there plate left under the cone?'] },
      cant: [{ label: 'It is nearly through', to: 'too-deep' }],
      next: 'drill',
    },
    {
      id: 'too-deep',
      title: 'Too deep',
      doing: 'Fill it up with a thin washer under the head, flush, or leave this hole and move the screw.',
      phase: 'drill',
      photo: true,
      cant: [{ label: 'It broke through', to: STOPPED }],
      next: 'assemble',
      effects: [{ kind: 'book', text: 'A countersink went too deep; look at it before trusting it.' }],
    },
    {
      id: 'assemble',
      title: 'Chips out, burr off, washers back',
      doing:
        'Vacuum every chip; take the burr off both sides. In this order: screw, insulating washer, plate, spring, nut; new lock nuts. Lay a ruler across.',
      why: 'A chip between plate and wiring is a short. Insulating washers left out have started fires.',
      phase: 'back',
      picture: 'washers',
      cautions: ['insulate', 'mains'],
      ask: {
        question: 'Is all of it so?',
        answers: [
          { id: 'so', label: 'Every washer is back, the ruler touches no screw', to: 'home', proves: true },
          { id: 'not', label: 'a screw still stands proud', to: 'again' },
        ],
      },
      cant: [
        { label: 'A washer is missing or cracked', to: STOPPED },
        { label: 'Chips fell into the wiring', to: STOPPED },
      ],
      next: 'home',
      effects: [{ kind: 'book', text: 'Screws sunk flush, insulating washers back.', answers: ['so'] }],
    },
    homeAndListen(
      'home',
      DONE,
      'Plug in. Home slowly, a hand at the power switch. Then a level check: the bed was loose.',
    ),
    ...stopAtOnce({
      phase: 'home',
      doing: 'Power off. Raise the head by hand, slowly. The springs may stand higher than before.',
      trip: 'lower-bed',
      clear: 'home',
    }),
    {
      id: 'lower-bed',
      title: 'Let the bed down',
      doing: 'Turn every adjuster the same, until the bed lies lower than before; then home again.',
      phase: 'home',
      cautions: ['moving'],
      cant: [{ label: 'They are at their end', to: STOPPED }],
      next: 'home',
    },
  ],
};

/** Washers under the springs raise the whole bed. */
const RAISED: StackLayerAsk[] = [{ slot: 'platform', reading: 'washers.pile', name: 'washers', beside: true }];

/** What presses from below, and the washers that free it. */
export const underBedCheck: Procedure = {
  id: 'under-bed-check',
  title: 'Under-bed check and washers',
  family: 'filament',
  about: 'Nothing under the bed may touch it when the springs are compressed.',
  minutes: 30,
  tools: ['calipers', 'lamp', 'screwdriver', 'paper'],
  materials: ['washers'],
  parts: [],
  choices: [],
  phases: [
    { id: 'measure', title: 'Unplug, measure' },
    { id: 'washers', title: 'Washers' },
    { id: 'home', title: 'Home' },
  ],
  steps: [
    {
      id: 'off',
      title: 'Off, unplugged, cool',
      doing: 'Unplug it, bed cool. Move it by hand, slowly, and look under it all the way.',
      phase: 'measure',
      cautions: ['mains', 'moving', 'hot'],
      gate: { checks: ['Is it unplugged, and the bed cool?'] },
      cant: [{ label: 'It can’t be seen', to: 'feel' }],
      next: 'measure',
    },
    {
      id: 'feel',
      title: 'Paper under it',
      doing:
        'Slide paper under the bed at each place while the springs are compressed: where it jams something presses.',
      phase: 'measure',
      cant: [{ label: 'Nothing is found', to: DONE }],
      next: 'measure',
    },
    {
      id: 'measure',
      title: 'Measure',
      doing: 'Measure each part by itself: the app adds them up. Measure the springs fully compressed.',
      phase: 'measure',
      readings: [
        { id: 'stands', label: 'Clamp, tail or tie', unit: 'mm', min: 0, max: 60 },
        { id: 'foam', label: 'Foam or insulation', unit: 'mm', min: 0, max: 60, optional: true },
        { id: 'spring', label: 'Spring, fully compressed', unit: 'mm', min: 1, max: 60, known: { of: 'spring' } },
      ],
      cant: [{ label: 'I can’t reach it', to: STOPPED }],
      next: 'add-up',
    },
    {
      id: 'add-up',
      title: 'Add it up',
      doing: 'What is too tall, and which washers free it.',
      phase: 'measure',
      sum: 'underbed',
      takes: { stands: 'measure.stands', foam: 'measure.foam', spring: 'measure.spring' },
      ask: {
        question: 'What does the sum say?',
        answers: [
          { id: 'washers', label: 'Washers free it', to: 'washers', when: 'washers' },
          { id: 'clear', label: 'nothing touches', to: DONE, when: 'clear' },
          { id: 'move', label: 'something has to go elsewhere', to: 'elsewhere' },
        ],
      },
      cant: [{ label: 'It does not add up', to: 'measure' }],
      next: 'washers',
    },
    {
      id: 'elsewhere',
      title: 'Move what presses',
      doing:
        'Route the cable elsewhere, press the insulation thinner, turn the clamp. A belt tail stays as long as its clamp needs.',
      phase: 'measure',
      cautions: ['belt', 'mains'],
      cant: [{ label: 'It has to stay', to: STOPPED }],
      next: 'measure',
    },
    {
      id: 'washers',
      title: 'Washers under the springs',
      doing:
        'The same pile under every spring, one screw after the other; insulating washers back under the heads. Tighten fully, then one turn back from fully compressed.',
      phase: 'washers',
      picture: 'washers',
      cautions: ['insulate', 'mains'],
      readings: [{ id: 'pile', label: 'Pile under each spring', unit: 'mm', min: 0, max: 12, known: { of: 'pile' } }],
      cant: [{ label: 'A screw is too short', to: 'short' }],
      next: 'backed',
    },
    {
      id: 'short',
      title: 'A screw is too short',
      doing: 'Longer screws of the same thread for all of them; the nut needs its full thread.',
      phase: 'washers',
      cant: [{ label: 'There are none', to: STOPPED }],
      next: 'washers',
    },
    {
      id: 'backed',
      title: 'Look again, compressed',
      doing: 'Press the bed down on its springs and slide paper under every part.',
      phase: 'washers',
      ask: {
        question: 'Does paper pass everywhere?',
        answers: [
          { id: 'passes', label: 'Paper passes everywhere', to: 'move', proves: true },
          { id: 'jams', label: 'it still jams', to: 'measure' },
        ],
      },
      cant: [{ label: 'It still jams', to: 'measure' }],
      next: 'move',
      effects: [{ kind: 'lay-layers', answers: ['passes'] }],
    },
    {
      id: 'move',
      title: 'Move the trip point',
      doing: 'Washers raise the bed. Do what the sum says, in its order, while it is unplugged.',
      why: 'Home is too low by the pile until the trip point has moved.',
      phase: 'home',
      sum: 'stack',
      layers: RAISED,
      cautions: ['knock', 'mains'],
      gate: { checks: ['Is done what the sum says, or does it say that nothing has to move?'] },
      cant: [{ label: 'It does not move so far', to: STOPPED }],
      next: 'plug-in',
      effects: [{ kind: 'home-moved' }],
    },
    {
      id: 'plug-in',
      title: 'Plug in',
      doing:
        'Nothing lies on or under the bed that was not there before. Plug in; press the switch by hand: is it seen?',
      phase: 'home',
      cautions: ['mains'],
      cant: [{ label: 'The switch is not seen', to: 'plug' }],
      next: 'home',
    },
    {
      ...homeAndListen(
        'home',
        DONE,
        'Home slowly, a hand at the power switch. Then a level check: the bed stands differently now.',
      ),
      effects: [{ kind: 'book', text: 'Under the bed looked at and freed; home set to it.', answers: ['quiet'] }],
    },
    ...stopAtOnce({
      phase: 'home',
      doing: 'Power off. Raise the head by hand. The trip point goes up by as much as the washers.',
      trip: 'move',
      clear: 'home',
    }),
  ],
};
