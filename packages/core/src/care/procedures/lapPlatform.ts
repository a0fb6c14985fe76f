import { LAP_PLACES } from '../../level/lapProgress';
import { DONE, STOPPED, type Procedure, type ProcedureReading, type SchoolChoice } from '../procedure';

const HOW: SchoolChoice = {
  id: 'how',
  question: 'How it is lapped',
  options: [
    { id: 'dry', label: 'straight strokes, quarter turns', because: 'Lift-back and turns keep it from doming.' },
    { id: 'wet', label: 'wet, figures of eight', because: 'Less dust, and quicker; scratches cross.' },
  ],
  usual: 'dry',
};

const LABELS: Record<(typeof LAP_PLACES)[number], string> = {
  'front-left': 'Front left',
  'front-right': 'Front right',
  'rear-left': 'Rear left',
  'rear-right': 'Rear right',
  middle: 'Middle',
};
const touched = (id: (typeof LAP_PLACES)[number]): ProcedureReading => ({
  id,
  label: LABELS[id],
  unit: '%',
  min: 0,
  max: 100,
  options: [
    { value: 100, label: 'all' },
    { value: 95, label: 'nearly' },
    { value: 75, label: 'most' },
    { value: 50, label: 'half' },
    { value: 25, label: 'quarter' },
    { value: 0, label: 'none' },
  ],
});

/** A resin platform rubbed flat on a proven reference, round by round, until nothing is untouched. */
export const lapPlatform: Procedure = {
  id: 'lap-platform',
  title: 'Lap a resin platform',
  family: 'resin',
  about: 'Reference proven, strokes counted, scratches looked at after each round, tooth and burrs last.',
  minutes: 60,
  tools: ['glass or granite larger than the platform', 'straightedge and lamp', 'a soft pencil', 'fitted respirator'],
  materials: ['full sheets of 120 and 80 grit', 'gloves', 'clean towels', 'alcohol'],
  parts: [{ id: 'platform', label: 'The platform', groups: ['platform'], from: 'machine' }],
  choices: [HOW],
  phases: [
    { id: 'ready', title: 'Prove, prepare' },
    { id: 'lap', title: 'Lap' },
    { id: 'finish', title: 'Tooth, burrs' },
  ],
  then: ['level-resin', 'first-print-resin'],
  steps: [
    {
      id: 'clean',
      title: 'Off, and clean of resin',
      doing: 'Gloves on. Platform off its arm, resin off it with alcohol, dry. Mark its front edge.',
      why: 'Resin clogs the sheet, and its slurry is resin waste.',
      phase: 'ready',
      cautions: ['resin', 'solvent'],
      cant: [{ label: 'Something cured sticks to it', to: STOPPED }],
      next: 'prove',
    },
    {
      id: 'prove',
      title: 'Prove the reference',
      doing: 'Straightedge and lamp over glass or granite, six lines: no light on any.',
      why: 'What the reference is not, the platform won’t become.',
      phase: 'ready',
      picture: 'six-lines',
      cautions: ['glass'],
      ask: {
        question: 'Is it flat?',
        answers: [
          { id: 'flat', label: 'No light on any line', to: 'sheet', proves: true },
          { id: 'not', label: 'light shows', to: STOPPED },
        ],
      },
      cant: [{ label: 'There is no glass or granite', to: STOPPED }],
      next: 'sheet',
    },
    {
      id: 'sheet',
      title: 'Sheet on, pencil lines',
      doing: 'A full sheet of 120 on the reference, held all round. Pencil lines all over the face.',
      phase: 'ready',
      byChoice: { choice: 'how', says: { wet: 'Water or spirit on the sheet; 80 where much has to go.' } },
      cant: [{ label: 'The sheet is smaller than the platform', to: STOPPED }],
      next: 'gate',
    },
    {
      id: 'gate',
      title: 'Before each round',
      doing: 'Respirator fitted, gloves on, sheet wiped and lying flat, pencil lines drawn anew.',
      phase: 'lap',
      cautions: ['dust', 'once'],
      gate: { checks: ['Lungs and hands protected, sheet flat and clean, lines drawn?'] },
      cant: [{ label: 'The sheet is worn or torn', to: 'sheet' }],
      next: 'strokes',
    },
    {
      id: 'strokes',
      title: 'A round of strokes',
      doing: 'Five straight strokes one way, lifted back each time, a quarter turn: four times. Count aloud.',
      why: 'By free hand, or rocking at the ends, it becomes a dome.',
      phase: 'lap',
      byChoice: {
        choice: 'how',
        says: { wet: 'Wet: figures of eight over all of the sheet, a turn after each five.' },
      },
      cautions: ['dust', 'once'],
      onceOnly: true,
      behind: ['gate'],
      cant: [{ label: 'It rocks, or catches', to: 'gate' }],
      next: 'look',
    },
    {
      id: 'look',
      title: 'Look at the scratches',
      doing:
        'A few light strokes without rocking, wipe dry. A photo from the same side each time. How much of each part is scratched?',
      why: 'Scratches show what stands high; what is untouched lies low.',
      phase: 'lap',
      cautions: ['dust'],
      readings: LAP_PLACES.map(touched),
      photo: true,
      sum: 'lap',
      takes: Object.fromEntries(LAP_PLACES.map((id) => [id, `look.${id}`])),
      ask: {
        question: 'What do the scratches say?',
        answers: [
          { id: 'done', label: 'Nothing is untouched', to: 'tooth', when: 'done' },
          { id: 'on', label: 'another round', to: 'gate', when: 'on' },
          { id: 'doming', label: 'it is being domed', to: 'steady', when: 'doming' },
          { id: 'stalled', label: 'the last rounds took nothing off', to: 'sheet', when: 'stalled' },
        ],
      },
      cant: [{ label: 'It is thin, or holes wear out', to: STOPPED }],
      next: 'tooth',
    },
    {
      id: 'steady',
      title: 'Hands low, no rocking',
      doing:
        'Hands low and in the middle, shorter strokes, stop before an edge leaves the sheet. Wipe under the sheet too.',
      why: 'The edges fade while the middle is touched: they were cut away by rocking.',
      phase: 'lap',
      cant: [{ label: 'Another does it', to: STOPPED }],
      next: 'gate',
    },
    {
      id: 'tooth',
      title: '80 for tooth',
      doing: 'Respirator on. A few strokes on 80, diagonally, both ways.',
      why: 'A layer wants something to hold on to.',
      phase: 'finish',
      cautions: ['dust'],
      cant: [{ label: 'There is no 80', to: 'burrs' }],
      next: 'burrs',
    },
    {
      id: 'burrs',
      title: '120 for burrs',
      doing: 'Respirator on. A few light strokes on 120, edges too.',
      phase: 'finish',
      cautions: ['dust'],
      cant: [{ label: 'There is no 120', to: 'wash' }],
      next: 'wash',
    },
    {
      id: 'wash',
      title: 'Wash it; slurry is waste',
      doing:
        'Rinse, wipe with alcohol until a towel stays white, dry. Slurry, sheets and towels go as local rules say for aluminium and resin.',
      phase: 'finish',
      cautions: ['resin', 'solvent'],
      cant: [{ label: 'Holes keep grit', to: STOPPED }],
      next: 'proof',
      effects: [{ kind: 'work', part: 'platform', work: 'other', note: 'lapped' }],
    },
    {
      id: 'proof',
      title: 'By light once more',
      doing: 'Straightedge and lamp over the platform, six lines.',
      phase: 'finish',
      picture: 'six-lines',
      ask: {
        question: 'Does light show?',
        answers: [
          { id: 'flat', label: 'None: it is flat', to: 'restart', proves: true },
          { id: 'light', label: 'light shows', to: 'sheet' },
        ],
      },
      cant: [{ label: 'There is no straightedge', to: 'restart' }],
      next: 'restart',
    },
    {
      id: 'restart',
      title: 'Start as if it were new',
      doing:
        'Refit and level. First prints as at the very beginning: longer first layers, slower lift. Then change one thing at a time.',
      phase: 'finish',
      cautions: ['moving'],
      cant: [{ label: 'It goes on another machine', to: DONE }],
      next: DONE,
      effects: [
        { kind: 'lapped', part: 'platform', step: 'look', how: { choice: 'how' } },
        { kind: 'book', text: 'The platform was lapped, and begins anew.' },
      ],
    },
  ],
};
