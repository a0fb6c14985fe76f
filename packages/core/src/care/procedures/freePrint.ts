import { DONE, STOPPED, type Procedure, type ProcedureStep } from '../procedure';

/** "It is off" and what it took, as the inspection of the release knows it. */
const off = (id: string, step: Omit<ProcedureStep, 'id' | 'ask' | 'cant' | 'next'>, next: string): ProcedureStep => ({
  id,
  ...step,
  ask: {
    question: 'Is it off?',
    answers: [
      { id: 'off', label: 'It is off', to: 'look' },
      { id: 'stays', label: 'it stays', to: next },
    ],
  },
  cant: [{ label: 'I won’t go on here', to: STOPPED }],
  next,
});

/** A print that won't come off, the gentlest way first. */
export const freePrint: Procedure = {
  id: 'free-print',
  title: 'Free a print that won’t come off',
  family: 'any',
  about: 'The gentlest way first, by surface: cold, flex, colder, solvent at the edge, and last the scraper.',
  minutes: 15,
  tools: ['gloves', 'eye protection', 'scraper with a plastic edge', 'scraper'],
  materials: ['alcohol'],
  parts: [
    {
      id: 'surface',
      label: 'What it sticks to',
      groups: ['sheet', 'glass', 'laminate', 'cover', 'platform', 'flex-plate'],
      from: 'machine',
    },
  ],
  choices: [
    {
      id: 'on',
      question: 'What it sticks to',
      options: [
        { id: 'flex', label: 'a sheet that flexes', because: 'Flexed cold, first one way, then the other.' },
        { id: 'glass', label: 'glass', because: 'Lets go only cold; never on it while it is warm.' },
        { id: 'board', label: 'a board or a coat that stays on', because: 'Cold, then solvent at the edge.' },
        { id: 'resin', label: 'a resin platform', because: 'Gloves; it is rigid: over a tray, edge by edge.' },
        { id: 'resin-flex', label: 'a resin flex plate', because: 'Gloves; flexed over a tray.' },
      ],
      usual: 'flex',
    },
  ],
  phases: [
    { id: 'cold', title: 'Cold, flex' },
    { id: 'colder', title: 'Colder, solvent' },
    { id: 'scraper', title: 'Scraper' },
    { id: 'look', title: 'Look' },
  ],
  steps: [
    {
      id: 'cool',
      title: 'Let it cool',
      doing: 'Heater off. Wait until surface and print are as cold as the room; big parts pop off by themselves.',
      why: 'What shrinks lets go. Warm, the print tears the coat or the glass along.',
      phase: 'cold',
      byChoice: {
        choice: 'on',
        says: {
          flex: 'Take the sheet off its base by one edge.',
          glass: 'Glass stays untouched until it is cold: a warm pane chips.',
          board: 'Leave it where it is.',
          resin: 'Gloves on, platform off over a tray, resin wiped off.',
          'resin-flex':
            'Gloves on, platform off over a tray, resin wiped off, then the plate off its magnet by one edge.',
        },
      },
      cautions: ['hot', 'magnet', 'glass', 'resin'],
      picture: 'release-cold',
      gate: { checks: ['Is it as cold as the room?'] },
      cant: [{ label: 'It is needed now', to: STOPPED }],
      next: 'flex',
    },
    off(
      'flex',
      {
        title: 'Flex it',
        doing: 'Bend the sheet gently one way, then the other, a corner at a time. Small parts want a nudge by hand.',
        phase: 'cold',
        only: { choice: 'on', is: ['flex', 'resin-flex'] },
        cautions: ['magnet', 'resin'],
      },
      'colder',
    ),
    off(
      'colder',
      {
        title: 'Colder still',
        doing: 'Half an hour of cold, so that print and surface shrink apart. Dry it wholly before it is warmed again.',
        phase: 'colder',
        byChoice: {
          choice: 'on',
          says: {
            flex: 'The sheet off the machine, in a bag in a freezer.',
            glass: 'A pane that comes off: in a bag in a freezer. One that stays on: a cold pack on the print.',
            board: 'It stays on the machine: a cold pack on the print, no water near the wiring.',
          },
        },
        only: { choice: 'on', is: ['flex', 'glass', 'board'] },
        cautions: ['glass'],
      },
      'solvent',
    ),
    off(
      'solvent',
      {
        title: 'Alcohol at the edge',
        doing:
          'Bed off and cold. A few drops of alcohol along the edge of the print; let them creep under for some minutes.',
        phase: 'colder',
        sum: 'together',
        about: 'surface',
        uses: { solvent: 'alcohol' },
        cautions: ['solvent', 'resin'],
      },
      'gate',
    ),
    {
      id: 'gate',
      title: 'Before the scraper',
      doing:
        'Surface clamped or held on the table, not in the hand. Plastic edge first. Flat to the surface, away from you.',
      why: 'Scrapers cut hands and gouge plates.',
      phase: 'scraper',
      byChoice: {
        choice: 'on',
        says: {
          flex: 'A gouge in the coat stays: one corner of the print only.',
          glass: 'Eyes and gloves: never lever against the pane.',
          board: 'Along the weave, never across.',
          resin: 'Over the tray: crumbs pierce the film.',
          'resin-flex': 'Over the tray, flat on its magnet: crumbs pierce the film.',
        },
      },
      cautions: ['blade', 'glass', 'resin'],
      gate: { checks: ['Held still, edge flat, nobody’s hand before the blade, eyes protected?'] },
      cant: [{ label: 'I’d rather lose the print than the plate', to: STOPPED }],
      next: 'scrape',
    },
    {
      id: 'scrape',
      title: 'Scrape it off',
      doing: 'Under one corner, flat, short pushes away from you; then from the other side.',
      phase: 'scraper',
      bound: true,
      onceOnly: true,
      behind: ['gate'],
      cautions: ['blade', 'glass'],
      ask: {
        question: 'Is it off?',
        answers: [
          { id: 'off', label: 'It is off', to: 'look' },
          { id: 'stays', label: 'it stays', to: STOPPED },
        ],
      },
      cant: [{ label: 'Something chipped or cut', to: 'look' }],
      next: 'look',
      effects: [{ kind: 'book', text: 'A print was taken off with a scraper.' }],
    },
    {
      id: 'look',
      title: 'Look at what it left',
      doing:
        'Wipe it cold and look slantwise: residue, a gouge, a chip? A resin machine whose platform was forced is levelled again.',
      phase: 'look',
      cautions: ['solvent'],
      ask: {
        question: 'How did it come off?',
        answers: [
          { id: 'flex', label: 'By flexing or by itself', to: DONE },
          { id: 'nudge', label: 'by a nudge', to: DONE },
          { id: 'force', label: 'by force', to: DONE },
          { id: 'residue', label: 'it left residue', to: DONE },
        ],
      },
      cant: [{ label: 'It is gouged or chipped: look before the next print', to: DONE }],
      next: DONE,
      effects: [
        {
          kind: 'inspect',
          part: 'surface',
          card: 'release',
          codes: { flex: 'flex', nudge: 'nudge', force: 'force', residue: 'residue' },
          numbers: {},
        },
      ],
    },
  ],
};
