import { DONE, STOPPED, type Procedure, type ProcedureReading } from '../procedure';

/** What the plan of the cuts is made from; optional, since it may be planned in the tool. */
const SIZES: ProcedureReading[] = [
  { id: 'sheetWidth', label: 'Sheet, width', unit: 'mm', min: 20, max: 3000, optional: true },
  { id: 'sheetDepth', label: 'Sheet, depth', unit: 'mm', min: 20, max: 3000, optional: true },
  { id: 'width', label: 'Piece, width', unit: 'mm', min: 10, max: 3000, optional: true },
  { id: 'depth', label: 'Piece, depth', unit: 'mm', min: 10, max: 3000, optional: true },
];
const TAKES = Object.fromEntries(SIZES.map(({ id }) => [id, `plan.${id}`]));

/** Glass, scored and snapped. */
export const cutGlass: Procedure = {
  id: 'cut-glass',
  title: 'Cut glass',
  family: 'any',
  about: 'Panes from a sheet of glass, scored and snapped from edge to edge.',
  minutes: 30,
  tools: ['wheel cutter', 'straight edge with a stop', 'running pliers', 'wet stone', 'eye protection', 'gloves'],
  materials: ['glass', 'cutting oil'],
  parts: [],
  choices: [
    {
      id: 'start',
      question: 'A start of the score that was missed',
      options: [
        { id: 'never', label: 'is never touched again', because: 'The same line twice runs off.' },
        {
          id: 'touch-up',
          label: 'is touched up, that end alone',
          because: 'A few millimetres at the edge, before it snaps.',
        },
      ],
      usual: 'never',
    },
    {
      id: 'snap',
      question: 'How it is snapped',
      options: [
        { id: 'edge', label: 'over the edge of the table', because: 'For long, wide pieces.' },
        { id: 'pliers', label: 'with running pliers', because: 'For narrow strips.' },
        { id: 'tap', label: 'tapped along from behind', because: 'For a run that starts unwillingly.' },
      ],
      usual: 'edge',
    },
  ],
  phases: [
    { id: 'plan', title: 'Plan, protect, set' },
    { id: 'score', title: 'Score' },
    { id: 'snap', title: 'Snap' },
    { id: 'edges', title: 'Edges' },
  ],
  steps: [
    {
      id: 'plan',
      title: 'Plan the cuts',
      doing: 'Plan the pieces and the order of the cuts. Only straight cuts from edge to edge, no kerf.',
      phase: 'plan',
      readings: SIZES,
      sum: 'blanks',
      takes: TAKES,
      cant: [{ label: 'It does not give enough', to: STOPPED }],
      next: 'mark',
    },
    {
      id: 'mark',
      title: 'Eyes, hands, measure',
      doing:
        'Eye protection and gloves on. A soft, flat, swept table. Clean the line, oil the wheel, set the stop to the next cut.',
      phase: 'plan',
      cautions: ['glass', 'blade', 'once'],
      gate: {
        checks: ['Eyes and hands protected; measured twice from the edge cut last; the line runs from edge to edge?'],
      },
      cant: [
        { label: 'There is no eye protection', to: STOPPED },
        { label: 'The edge is not straight', to: STOPPED },
      ],
      next: 'score',
    },
    {
      id: 'score',
      title: 'Score once',
      doing: 'One stroke from edge to edge, even pressure. Never the same line twice. Look along it.',
      phase: 'score',
      bound: true,
      picture: 'score-snap',
      cautions: ['glass', 'once'],
      onceOnly: true,
      behind: ['mark'],
      byChoice: {
        choice: 'start',
        says: {
          never: 'A missed start stays missed.',
          'touch-up': 'A missed start may be touched up, at that end alone.',
        },
      },
      ask: {
        question: 'How is the score?',
        answers: [
          { id: 'whole', label: 'One clean line, edge to edge', to: 'snap', proves: true },
          { id: 'skipped', label: 'it skipped', to: 'skipped' },
        ],
      },
      cant: [{ label: 'It cracked', to: 'cracked' }],
      next: 'snap',
    },
    {
      id: 'skipped',
      title: 'A score that skipped',
      doing:
        'Don’t score it again. Turn the sheet over and tap along the line from below, or give up this line and plan anew.',
      phase: 'score',
      cautions: ['glass'],
      ask: {
        question: 'What now?',
        answers: [
          { id: 'ran', label: 'it ran along the line, that was the last', to: 'edges' },
          { id: 'more', label: 'it ran, and there is another cut', to: 'mark' },
          { id: 'anew', label: 'plan anew with what is left', to: 'plan' },
        ],
      },
      cant: [{ label: 'It cracked', to: 'cracked' }],
      next: 'plan',
    },
    {
      id: 'snap',
      title: 'Snap it now',
      doing: 'At once, while the score is fresh. Put the piece aside, sweep the splinters.',
      phase: 'snap',
      byChoice: {
        choice: 'snap',
        says: {
          edge: 'The score over the edge of the table, both hands, one short press down.',
          pliers: 'Pliers in line with the score, at its end, pressed slowly.',
          tap: 'Tap from behind with the ball of the cutter, from one end, until the run goes through; then over the edge.',
        },
      },
      picture: 'score-snap',
      cautions: ['glass'],
      onceOnly: true,
      behind: ['score'],
      timer: { name: 'While the score is fresh', most: { seconds: 600 }, late: 'skipped' },
      ask: {
        question: 'How did it run?',
        answers: [
          { id: 'last', label: 'Straight, and the last', to: 'edges' },
          { id: 'another', label: 'straight, another cut', to: 'mark' },
          { id: 'off', label: 'off the line', to: 'cracked' },
        ],
      },
      cant: [{ label: 'It does not run', to: 'skipped' }],
      next: 'edges',
    },
    {
      id: 'cracked',
      title: 'It ran off',
      doing: 'Put the pieces aside, sweep the table. Plan again with what is left.',
      phase: 'snap',
      cautions: ['glass'],
      cant: [{ label: 'Nothing useful is left', to: STOPPED }],
      next: 'plan',
    },
    {
      id: 'edges',
      title: 'Round every edge',
      doing:
        'Wet stone along every edge and corner, until a towel does not catch. Corners that cover adjusters come off.',
      phase: 'edges',
      cautions: ['glass', 'dust'],
      cant: [{ label: 'An edge is chipped: not for a hot bed', to: DONE }],
      next: DONE,
      effects: [
        { kind: 'book', text: 'Panes cut and edges rounded.' },
        { kind: 'materials', used: ['glass'] },
      ],
    },
  ],
};

/** Fibreglass laminate, sawn. */
export const cutLaminate: Procedure = {
  id: 'cut-laminate',
  title: 'Cut fibreglass laminate',
  family: 'filament',
  about: 'Boards from a sheet of fibreglass laminate, sawn with the kerf reckoned in.',
  minutes: 35,
  tools: ['fine saw', 'clamps', 'straight edge', '240 grit', 'fitted respirator', 'gloves', 'eye protection'],
  materials: ['laminate'],
  parts: [],
  choices: [
    {
      id: 'dust',
      question: 'How the dust is held down',
      options: [
        { id: 'wet', label: 'wet', because: 'Holds most of it; the slurry is waste.' },
        { id: 'extraction', label: 'extraction or outdoors', because: 'Where water must not get.' },
      ],
      usual: 'wet',
    },
    {
      id: 'face',
      question: 'The face that is printed on',
      options: [
        { id: 'mirror', label: 'left as it is', because: 'Some want its mirror, or its weave.' },
        { id: 'scuff', label: 'scuffed', because: 'Some materials hold only on a scuffed face.' },
      ],
      usual: 'mirror',
    },
  ],
  phases: [
    { id: 'plan', title: 'Plan, protect, mark' },
    { id: 'saw', title: 'Saw' },
    { id: 'edges', title: 'Edges' },
  ],
  steps: [
    {
      id: 'plan',
      title: 'Plan the cuts',
      doing:
        'Respirator on. Measure the kerf of your saw on a scrap and plan with it. What is left on each side for truing counts too.',
      cautions: ['dust', 'blade'],
      phase: 'plan',
      readings: [
        { id: 'kerf', label: 'Kerf', unit: 'mm', min: 0.1, max: 6 },
        { id: 'allowance', label: 'Left on each side for truing', unit: 'mm', min: 0, max: 10, optional: true },
        ...SIZES,
      ],
      sum: 'blanks',
      takes: { ...TAKES, kerf: 'plan.kerf', allowance: 'plan.allowance' },
      cant: [{ label: 'It does not give enough', to: STOPPED }],
      next: 'mark',
    },
    {
      id: 'mark',
      title: 'Lungs, eyes, hands; mark',
      doing:
        'Fitted respirator, eye protection, gloves; others away. Clamp a straight edge so that the saw runs on the waste side of the line.',
      phase: 'plan',
      byChoice: {
        choice: 'dust',
        says: {
          wet: 'Water along the line; the slurry is waste by local rules.',
          extraction: 'Extraction at the saw, or outdoors.',
        },
      },
      cautions: ['dust', 'blade', 'once'],
      gate: {
        checks: ['Respirator tight, dust held down, sheet clamped, kerf on the waste side, fingers out of the line?'],
      },
      cant: [
        { label: 'There is no respirator', to: STOPPED },
        { label: 'It can’t be clamped', to: STOPPED },
      ],
      next: 'saw',
    },
    {
      id: 'saw',
      title: 'Saw',
      doing: 'Slow, even strokes, the off-cut held up at the end so that it does not tear.',
      phase: 'saw',
      bound: true,
      onceOnly: true,
      behind: ['mark'],
      cautions: ['blade', 'dust'],
      ask: {
        question: 'How did it run?',
        answers: [
          { id: 'last', label: 'On the line, and the last', to: 'edges' },
          { id: 'another', label: 'on the line, another cut', to: 'mark' },
          { id: 'off', label: 'off the line', to: 'off-line' },
        ],
      },
      cant: [{ label: 'The blade is blunt', to: 'blade' }],
      next: 'edges',
    },
    {
      id: 'blade',
      title: 'A blunt blade',
      doing: 'Laminate blunts tools. Change the blade; a blunt one tears the edge.',
      phase: 'saw',
      cautions: ['blade'],
      cant: [{ label: 'There is no other', to: STOPPED }],
      next: 'mark',
    },
    {
      id: 'off-line',
      title: 'Off the line',
      doing: 'Is the piece still large enough? File it true, or plan again with what is left.',
      phase: 'saw',
      cautions: ['dust'],
      ask: {
        question: 'What now?',
        answers: [
          { id: 'file', label: 'it can be filed true', to: 'edges' },
          { id: 'anew', label: 'plan anew', to: 'plan' },
        ],
      },
      cant: [{ label: 'Nothing useful is left', to: STOPPED }],
      next: 'edges',
    },
    {
      id: 'edges',
      title: 'Round the edges',
      doing: '240 grit, wet, along every edge and corner. Wipe the dust up wet, don’t sweep or blow it.',
      phase: 'edges',
      byChoice: {
        choice: 'face',
        says: {
          mirror: 'The face that is printed on stays untouched.',
          scuff: 'Then scuff the face that is printed on, lightly, even all over.',
        },
      },
      cautions: ['dust'],
      cant: [{ label: 'A corner broke out', to: DONE }],
      next: DONE,
      effects: [
        { kind: 'book', text: 'Laminate boards cut and edges rounded.' },
        { kind: 'materials', used: ['laminate', '240 grit'] },
      ],
    },
  ],
};
