import { DONE, STOPPED, type Procedure } from '../procedure';

/** A magnet cut to the outline of its sheet. */
export const trimMagnet: Procedure = {
  id: 'trim-magnet',
  title: 'Trim a magnet to its sheet',
  family: 'any',
  about: 'The sheet itself is the template: it holds to the magnet and guides the knife.',
  minutes: 15,
  tools: ['sharp knife', 'cutting mat', 'marker', 'ruler'],
  materials: ['magnet with its liner'],
  parts: [{ id: 'magnet', label: 'The magnet', groups: ['base'], from: 'rack' }],
  choices: [
    {
      id: 'leave',
      question: 'What is left at the edge',
      options: [
        { id: 'flush', label: 'flush', because: 'All of the sheet is held.' },
        {
          id: 'inside',
          label: 'half a millimetre inside',
          because: 'No magnet catches on what passes; on resin nothing drips on it.',
        },
      ],
      usual: 'flush',
    },
  ],
  phases: [
    { id: 'lay', title: 'Lay and mark' },
    { id: 'cut', title: 'Cut' },
    { id: 'check', title: 'Check' },
  ],
  steps: [
    {
      id: 'lay',
      title: 'Lay the sheet on',
      doing:
        'Magnet on the cutting mat, magnet side up, liner below and on. Let the sheet down rear edge first; mark both fronts.',
      phase: 'lay',
      cautions: ['magnet'],
      picture: 'sheet-as-template',
      cant: [{ label: 'The magnet is smaller than the sheet', to: STOPPED }],
      next: 'gate',
    },
    {
      id: 'gate',
      title: 'Before the knife',
      doing: 'Is what has to stay free (tabs, holes, adjusters) drawn on? Other hand behind the blade.',
      phase: 'lay',
      byChoice: {
        choice: 'leave',
        says: {
          flush: 'The knife runs along the sheet’s edge.',
          inside: 'Draw round the sheet, then a line half a millimetre inside: the knife runs there, along a ruler.',
        },
      },
      cautions: ['blade', 'once'],
      gate: { checks: ['Same front on both, the sheet over the magnet all round, the blade new?'] },
      cant: [{ label: 'The sheet does not stay put', to: STOPPED }],
      next: 'cut',
    },
    {
      id: 'cut',
      title: 'Cut, a little at a time',
      doing: 'Several light strokes along each edge, away from you, through to the liner but not through it.',
      phase: 'cut',
      bound: true,
      cautions: ['blade', 'once'],
      picture: 'trim-edge',
      onceOnly: true,
      behind: ['gate'],
      ask: {
        question: 'How did it cut?',
        answers: [
          { id: 'clean', label: 'It is cut', to: 'check' },
          { id: 'slipped', label: 'the knife ran off', to: 'slipped' },
        ],
      },
      cant: [{ label: 'The blade is blunt', to: 'gate' }],
      next: 'check',
    },
    {
      id: 'slipped',
      title: 'The knife ran off',
      doing:
        'Is the cut inside the sheet’s edge? A notch of a few millimetres at the edge does; a cut across does not.',
      phase: 'cut',
      photo: true,
      ask: {
        question: 'What now?',
        answers: [
          { id: 'does', label: 'it does', to: 'check' },
          { id: 'lost', label: 'the magnet is lost', to: STOPPED },
        ],
      },
      cant: [{ label: 'Somebody else decides', to: STOPPED }],
      next: 'check',
      effects: [{ kind: 'book', text: 'The knife ran off while a magnet was trimmed.' }],
    },
    {
      id: 'check',
      title: 'Check it on the plate',
      doing:
        'Burr off the edge with the back of the blade. Lay magnet and sheet on the plate, dry: edges in line, nothing stands proud.',
      phase: 'check',
      cautions: ['magnet', 'blade'],
      cant: [{ label: 'It stands over', to: 'gate' }],
      next: DONE,
      effects: [
        { kind: 'work', part: 'magnet', work: 'other', note: 'trimmed to its sheet' },
        { kind: 'book', text: 'A magnet was trimmed to its sheet.' },
      ],
    },
  ],
};
