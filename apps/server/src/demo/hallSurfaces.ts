import type { SurfaceGroup } from '@even-bed/core';
import { STARTING_KINDS } from '../db/migrations/startingKinds';
import type { MODELS } from './saltmarsh';

const kind = (name: string) => STARTING_KINDS.find((known) => known.name === name)!;
const TEXTURED = kind('Spring sheet, textured powder coat');
const SMOOTH = kind('Spring sheet, smooth PEI');
const PATTERNED = kind('Spring sheet, patterned film');
const GLASS = kind('Glass pane');
const LAMINATE = kind('Fibreglass laminate board');
const COVER = kind('Flexible cover');
const BASE = kind('Magnetic base');
const PLATFORM = kind('Resin platform, aluminium');
const FLEX = kind('Flex plate for resin');
const FILM = kind('Vat film');

/** A surface of the hall: what it is, for which machines, and where it starts. */
export interface HallSurface {
  tag: string;
  kindId: string;
  group: SurfaceGroup;
  sides: number;
  model: keyof typeof MODELS;
  /** The machine it is put on first; left out for one that starts in the rack. */
  on?: string;
  /** mm, as measured; left out: its kind's. */
  thickness?: number;
  /** Days after the hall's beginning that it is bought. */
  day?: number;
  price: number;
  note?: string;
}

const numbered = (letter: string, number: number) => `${letter}-${String(number).padStart(3, '0')}`;

interface Some {
  kind: (typeof STARTING_KINDS)[number];
  model: keyof typeof MODELS;
  /** Machines that get one; null: a spare. */
  on: readonly (string | null)[];
  price: number;
  letter: 'S' | 'B' | 'P' | 'F';
}

const some = (list: readonly Some[]): HallSurface[] => {
  const next = { S: 1, B: 1, P: 1, F: 1 };
  return list.flatMap(({ kind: { id, group, sides }, model, on, price, letter }) =>
    on.map((machine) => ({
      tag: numbered(letter, next[letter]++),
      kindId: id,
      group,
      sides: sides.length,
      model,
      ...(machine === null ? {} : { on: machine }),
      price,
    })),
  );
};

/** What single surfaces have of their own. */
const OWN: Record<string, Partial<HallSurface>> = {
  'S-001': { thickness: 0.62 },
  'S-004': { thickness: 0.58 },
  'S-008': { thickness: 0.66 },
  'S-014': { thickness: 0.64, note: 'The one for brackets and signs. Renewed more than once.' },
  'S-019': { note: 'A thin scratch rear left from a scraper.' },
  'S-022': { thickness: 3.92, note: 'Edges ground by hand.' },
  'B-010': { note: 'Pole mark was covered by the adhesive liner.' },
};

/** The sheets, boards, bases, platforms and films of the Saltmarsh Print Hall; made up. */
export const SURFACES: readonly HallSurface[] = some([
  { letter: 'S', kind: TEXTURED, model: 'slinger', on: ['Dunlin', 'Avocet', 'Knot', 'Plover', null, null], price: 24 },
  { letter: 'S', kind: SMOOTH, model: 'slinger', on: ['Turnstone', 'Curlew', null], price: 29.5 },
  { letter: 'S', kind: TEXTURED, model: 'cube', on: ['Whimbrel', 'Redshank', null], price: 38 },
  { letter: 'S', kind: COVER, model: 'cube', on: ['Greenshank'], price: 16 },
  { letter: 'S', kind: SMOOTH, model: 'gantry', on: ['Godwit', null], price: 58 },
  { letter: 'S', kind: TEXTURED, model: 'gantry', on: ['Lapwing', 'Oystercatcher', null], price: 52 },
  { letter: 'S', kind: PATTERNED, model: 'slinger', on: [null, null, null], price: 21 },
  { letter: 'S', kind: GLASS, model: 'small', on: ['Sanderling', 'Stint'], price: 14 },
  { letter: 'S', kind: COVER, model: 'small', on: ['Ruff', null], price: 9 },
  { letter: 'S', kind: LAMINATE, model: 'small', on: ['Snipe', null], price: 17 },
  {
    letter: 'S',
    kind: FLEX,
    model: 'mono',
    on: ['Sandpiper', 'Phalarope', 'Stilt', 'Dotterel', null, null],
    price: 32,
  },
  {
    letter: 'B',
    kind: BASE,
    model: 'slinger',
    on: ['Dunlin', 'Avocet', 'Knot', 'Plover', 'Turnstone', 'Curlew'],
    price: 12,
  },
  { letter: 'B', kind: BASE, model: 'cube', on: ['Whimbrel', 'Redshank'], price: 19 },
  { letter: 'B', kind: BASE, model: 'gantry', on: ['Godwit'], price: 26 },
  { letter: 'B', kind: BASE, model: 'cube', on: ['Greenshank', null], price: 19 },
  { letter: 'B', kind: BASE, model: 'gantry', on: ['Lapwing', 'Oystercatcher', null], price: 26 },
  { letter: 'B', kind: BASE, model: 'mono', on: ['Sandpiper', 'Phalarope', 'Stilt', 'Dotterel'], price: 11 },
  {
    letter: 'P',
    kind: PLATFORM,
    model: 'mono',
    on: ['Sandpiper', 'Phalarope', 'Stilt', 'Dotterel', 'Pratincole', 'Woodcock', null],
    price: 74,
  },
  {
    letter: 'F',
    kind: FILM,
    model: 'mono',
    on: ['Sandpiper', 'Phalarope', 'Stilt', 'Dotterel', 'Pratincole', 'Woodcock', null, null],
    price: 8,
  },
]).map((surface) => ({ ...surface, ...OWN[surface.tag] }));
