/** What a one-tap code of an inspection means for what follows. */
export type CodeWeight = 'ready' | 'due' | 'stop';

export interface InspectionCode {
  code: string;
  label: string;
  weight: CodeWeight;
}

export interface InspectionNumber {
  name: string;
  label: string;
  unit: 'mm' | '%' | 'h' | 'turns' | '';
  min: number;
  max: number;
}

/** One thing that is looked at, with its one-tap codes and the numbers that go with it. */
export interface InspectionCard {
  id: string;
  title: string;
  /** How it is looked at. */
  how: string;
  /** What it is about: any surface, only films, or a machine. */
  about: 'surface' | 'film' | 'machine';
  codes: readonly InspectionCode[];
  numbers: readonly InspectionNumber[];
}

const code = (id: string, label: string, weight: CodeWeight): InspectionCode => ({ code: id, label, weight });
const number = (
  name: string,
  label: string,
  unit: InspectionNumber['unit'],
  [min, max]: [number, number],
): InspectionNumber => ({ name, label, unit, min, max });

/** The inspections that the shop's work knows. Source: common practice. */
export const INSPECTION_CARDS: readonly InspectionCard[] = [
  {
    id: 'light-line',
    title: 'Light under a straightedge',
    how: 'Straightedge on edge, light behind; along, across and both diagonals.',
    about: 'surface',
    codes: [code('none', 'none', 'ready'), code('faint', 'faint', 'due'), code('clear', 'clear', 'stop')],
    numbers: [
      number('feeler', 'Thickest feeler that passes', 'mm', [0, 5]),
      // 1–2 along, 3–4 across, 5–6 diagonal; where along it: none, middle, both ends, first end, last end.
      number('line', 'Line, 1 to 6', '', [1, 6]),
      number('where', 'Where along it, 0 to 4', '', [0, 4]),
    ],
  },
  {
    id: 'scratches',
    title: 'Scratches',
    how: 'Slanting light; feel with a nail.',
    about: 'surface',
    codes: [code('none', 'none', 'ready'), code('fine', 'fine lines', 'due'), code('gouged', 'gouged', 'stop')],
    numbers: [
      number('frontLeft', 'Touched, front left', '%', [0, 100]),
      number('frontRight', 'Touched, front right', '%', [0, 100]),
      number('rearLeft', 'Touched, rear left', '%', [0, 100]),
      number('rearRight', 'Touched, rear right', '%', [0, 100]),
    ],
  },
  {
    id: 'towel',
    title: 'Towel after a wipe',
    how: 'A clean face of the towel for each wipe.',
    about: 'surface',
    codes: [code('white', 'stays white', 'ready'), code('grey', 'grey', 'due'), code('dark', 'dark', 'stop')],
    numbers: [],
  },
  {
    id: 'coat',
    title: 'Coat',
    how: 'Even sheen all over?',
    about: 'surface',
    codes: [
      code('even', 'even', 'ready'),
      code('faded', 'faded', 'due'),
      code('bubble', 'bubble', 'stop'),
      code('torn', 'torn or chipped', 'stop'),
    ],
    numbers: [],
  },
  {
    id: 'edges',
    title: 'Edges',
    how: 'Run a gloved finger round; from below too.',
    about: 'surface',
    codes: [
      code('down', 'lie down', 'ready'),
      code('lifting', 'lifting', 'due'),
      code('bent', 'bent', 'stop'),
      code('chipped', 'chipped', 'stop'),
    ],
    numbers: [
      number('left', 'Stands over, left', 'mm', [-50, 50]),
      number('right', 'Stands over, right', 'mm', [-50, 50]),
      number('front', 'Stands over, front', 'mm', [-50, 50]),
      number('rear', 'Stands over, rear', 'mm', [-50, 50]),
    ],
  },
  {
    id: 'pull',
    title: 'Pull of the magnet',
    how: 'Lift one corner of the sheet.',
    about: 'surface',
    codes: [code('strong', 'strong', 'ready'), code('weak', 'weak', 'due'), code('loose', 'lets go', 'stop')],
    numbers: [],
  },
  {
    id: 'release',
    title: 'How prints come off',
    how: 'The last few prints.',
    about: 'surface',
    codes: [
      code('by-itself', 'by itself', 'ready'),
      code('flex', 'by flexing', 'ready'),
      code('nudge', 'by a nudge', 'due'),
      code('force', 'by force', 'stop'),
      code('residue', 'leaves residue', 'due'),
    ],
    numbers: [],
  },
  {
    id: 'film',
    title: 'Film',
    how: 'Empty vat against the light; tap it.',
    about: 'film',
    codes: [
      code('clear', 'clear and tight', 'ready'),
      code('hazy', 'hazy', 'due'),
      code('slack', 'slack', 'due'),
      code('dented', 'dented', 'stop'),
      code('pierced', 'pierced', 'stop'),
    ],
    numbers: [],
  },
  {
    id: 'cure',
    title: 'Cure',
    how: 'Since the bond was made.',
    about: 'surface',
    codes: [
      code('untouched', 'untouched', 'ready'),
      code('weighted', 'under weight', 'ready'),
      code('cut', 'cut short', 'due'),
    ],
    numbers: [number('hours', 'Cured for', 'h', [0, 500])],
  },
  {
    id: 'paper',
    title: 'Paper under the nozzle',
    how: 'Same paper at each adjuster; warm bed, clean nozzle.',
    about: 'machine',
    codes: [
      code('jammed', 'jammed', 'stop'),
      code('tight', 'tight', 'due'),
      code('drags', 'drags', 'ready'),
      code('light', 'light', 'due'),
      code('free', 'free', 'stop'),
    ],
    numbers: [number('gauge', 'Thickness of the paper or gauge', 'mm', [0.01, 2])],
  },
  {
    id: 'sound',
    title: 'Sound while homing',
    how: 'A knock or a grind: stop at once.',
    about: 'machine',
    codes: [code('quiet', 'quiet', 'ready'), code('knock', 'knock', 'stop'), code('grind', 'grind', 'stop')],
    numbers: [number('height', 'At what height', 'mm', [-5, 600])],
  },
  {
    id: 'lines',
    title: 'Lines of the first layer',
    how: 'Neighbouring lines touch without ridges.',
    about: 'machine',
    codes: [code('gaps', 'gaps', 'due'), code('touching', 'touching', 'ready'), code('ridged', 'ridged', 'due')],
    numbers: [
      number('measured', 'Measured first layer', 'mm', [0, 3]),
      number('nominal', 'Nominal first layer', 'mm', [0.01, 3]),
      number('foot', 'Foot over nominal', 'mm', [-1, 5]),
    ],
  },
  {
    id: 'adjusters',
    title: 'Turns left on the adjusters',
    how: 'From where it stands to the end of its spring.',
    about: 'machine',
    codes: [code('enough', 'enough', 'ready'), code('few', 'few left', 'due'), code('end', 'at its end', 'stop')],
    numbers: [number('turns', 'Turns left on the shortest', 'turns', [0, 50])],
  },
];

/** What a reading of a card has wrong, by field; empty when it is right. */
export function checkInspection(
  cardId: string,
  codeId: string,
  numbers: Readonly<Record<string, number>>,
): Record<string, string> {
  const card = INSPECTION_CARDS.find(({ id }) => id === cardId);
  if (!card) return { card: 'This inspection is not known here.' };
  const faults: Record<string, string> = {};
  if (!card.codes.some((known) => known.code === codeId)) faults['code'] = `${card.title}: choose what you see.`;
  for (const [name, value] of Object.entries(numbers)) {
    const known = card.numbers.find((field) => field.name === name);
    if (!known) faults[`numbers.${name}`] = 'This number is not asked for here.';
    else if (!(value >= known.min && value <= known.max))
      faults[`numbers.${name}`] = `${known.label} must lie between ${known.min} and ${known.max} ${known.unit}.`;
  }
  return faults;
}
