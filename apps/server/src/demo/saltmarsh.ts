import type { Family, MachineAdjuster, MachineFacts } from '@even-bed/contract';
import { pitchOf } from '@even-bed/core';
import type { BedNature } from '../machines/simulated/hiddenBed';
import type { MapLayout } from '../machines/simulated/printMap';

/** The Saltmarsh Print Hall: an invented community print shop in an old seed warehouse. Nothing here is real. */
export const AREAS = ['Long Room', 'Loft', 'Wet Room'] as const;

/** The people of the hall, made up. Their secrets are shown on the demo's sign-in page and are good for nothing else. */
export const PEOPLE = [
  { name: 'Wren Sallow', role: 'lead', secret: 'tide over the marsh' },
  { name: 'Otto Reedmace', role: 'technician', secret: '271828' },
  { name: 'Posy Glasswort', role: 'looker', secret: '314159' },
] as const;

export const DAY_MS = 86_400_000;

export interface DemoMachine {
  name: string;
  area: (typeof AREAS)[number];
  shelf: string;
  model: keyof typeof MODELS;
  seenFrom?: MachineFacts['seenFrom'];
  everyDays?: number;
  /** How its console prints; left out where it has no console. */
  layout?: MapLayout;
  /** Takes the connection and says nothing. */
  mute?: boolean;
  /** What + means in what it really prints, where the shop's record has it wrong. */
  printsPlus?: 'lower';
  /** Days since the last level check at the demo's "now". */
  lastCheckDaysAgo: number;
  bed: Omit<BedNature, 'seed'>;
  story?: 'bowed-from-below' | 'springs-settle';
  note?: string;
}

interface Model {
  label: string;
  family: Family;
  plate: [number, number];
  print: [number, number];
  adjusters: MachineAdjuster[];
  compensation: boolean;
  firstLayer: number;
  finding: MachineFacts['finding'];
  hottest: number | null;
  columns: number;
  rows: number;
}

const knob = (
  id: string,
  name: string,
  x: number,
  y: number,
  thread: string,
  clockwise: 'raises' | 'lowers',
): MachineAdjuster => ({
  id,
  name,
  x,
  y,
  thread,
  pitch: pitchOf(thread)!,
  clockwise,
});

const corners = (size: number, inset: number, thread: string, clockwise: 'raises' | 'lowers'): MachineAdjuster[] => [
  knob('front-left', 'front-left', inset, inset, thread, clockwise),
  knob('front-right', 'front-right', size - inset, inset, thread, clockwise),
  knob('rear-left', 'rear-left', inset, size - inset, thread, clockwise),
  knob('rear-right', 'rear-right', size - inset, size - inset, thread, clockwise),
];

export const MODELS = {
  slinger: {
    label: '225 bed-slinger',
    family: 'filament',
    plate: [235, 235],
    print: [225, 225],
    adjusters: corners(225, 25, 'M4', 'lowers'),
    compensation: true,
    firstLayer: 0.2,
    finding: 'contact-probe',
    hottest: 100,
    columns: 5,
    rows: 5,
  },
  cube: {
    label: '300 cube',
    family: 'filament',
    plate: [310, 310],
    print: [300, 300],
    adjusters: [
      knob('front-left', 'front-left', 20, 20, 'M4', 'lowers'),
      knob('front-right', 'front-right', 280, 20, 'M4', 'lowers'),
      knob('rear', 'rear', 150, 285, 'M4', 'lowers'),
    ],
    compensation: true,
    firstLayer: 0.24,
    finding: 'inductive-probe',
    hottest: 110,
    columns: 7,
    rows: 7,
  },
  small: {
    label: '180 small',
    family: 'filament',
    plate: [190, 190],
    print: [180, 180],
    adjusters: corners(180, 15, 'M3', 'lowers'),
    compensation: false,
    firstLayer: 0.24,
    finding: 'endstop',
    hottest: 70,
    columns: 3,
    rows: 3,
  },
  gantry: {
    label: '350 gantry',
    family: 'filament',
    plate: [365, 360],
    print: [350, 350],
    adjusters: corners(350, 20, 'M5', 'raises'),
    compensation: true,
    firstLayer: 0.25,
    finding: 'contact-probe',
    hottest: 110,
    columns: 9,
    rows: 9,
  },
  mono: {
    label: 'Mono 9 resin',
    family: 'resin',
    plate: [202, 130],
    print: [192, 120],
    adjusters: [],
    compensation: false,
    firstLayer: 0.05,
    finding: 'endstop',
    hottest: null,
    columns: 0,
    rows: 0,
  },
} satisfies Record<string, Model>;

const bed = (right: number, rear: number, dome: number, twist = 0.01, warmUp = 0.02): DemoMachine['bed'] => ({
  tilt: { right, rear },
  dome,
  twist,
  bump: null,
  noise: 0.004,
  warmUp,
});
const FLAT = bed(0, 0, 0);

export const MACHINES: DemoMachine[] = [
  {
    name: 'Dunlin',
    area: 'Long Room',
    shelf: 'A1',
    model: 'slinger',
    layout: 'labelled',
    lastCheckDaysAgo: 16,
    bed: bed(0.16, -0.12, 0.03),
  },
  {
    name: 'Avocet',
    area: 'Long Room',
    shelf: 'A2',
    model: 'slinger',
    layout: 'positions',
    lastCheckDaysAgo: 9,
    bed: bed(-0.1, 0.14, -0.03),
  },
  {
    name: 'Knot',
    area: 'Long Room',
    shelf: 'A3',
    model: 'slinger',
    layout: 'indexed',
    lastCheckDaysAgo: 15,
    bed: bed(0.12, 0.09, 0.02),
  },
  {
    name: 'Plover',
    area: 'Long Room',
    shelf: 'A4',
    model: 'slinger',
    layout: 'labelled',
    mute: true,
    lastCheckDaysAgo: 20,
    bed: FLAT,
    note: 'Its console cable is loose at the back.',
  },
  {
    name: 'Turnstone',
    area: 'Long Room',
    shelf: 'B1',
    model: 'slinger',
    layout: 'positions',
    printsPlus: 'lower',
    lastCheckDaysAgo: 18,
    bed: bed(0.14, 0.1, 0.02),
  },
  { name: 'Sanderling', area: 'Long Room', shelf: 'B2', model: 'small', lastCheckDaysAgo: 13, bed: FLAT },
  { name: 'Stint', area: 'Long Room', shelf: 'B3', model: 'small', lastCheckDaysAgo: 3, bed: FLAT },
  { name: 'Ruff', area: 'Long Room', shelf: 'B4', model: 'small', seenFrom: 'below', lastCheckDaysAgo: 14, bed: FLAT },
  { name: 'Snipe', area: 'Long Room', shelf: 'B5', model: 'small', lastCheckDaysAgo: 6, bed: FLAT },
  {
    name: 'Whimbrel',
    area: 'Loft',
    shelf: 'C1',
    model: 'cube',
    layout: 'labelled',
    lastCheckDaysAgo: 11,
    bed: bed(0.05, -0.04, 0.03),
    story: 'bowed-from-below',
  },
  {
    name: 'Redshank',
    area: 'Loft',
    shelf: 'C2',
    model: 'cube',
    layout: 'indexed',
    lastCheckDaysAgo: 4,
    bed: bed(-0.06, 0.05, 0.02),
  },
  {
    name: 'Greenshank',
    area: 'Loft',
    shelf: 'C3',
    model: 'cube',
    layout: 'positions',
    seenFrom: 'below',
    lastCheckDaysAgo: 19,
    bed: bed(0.2, 0.08, -0.02),
  },
  {
    name: 'Godwit',
    area: 'Loft',
    shelf: 'D1',
    model: 'gantry',
    layout: 'positions',
    everyDays: 7,
    lastCheckDaysAgo: 5,
    bed: bed(0.18, -0.14, 0.03),
    story: 'springs-settle',
  },
  {
    name: 'Lapwing',
    area: 'Loft',
    shelf: 'D2',
    model: 'gantry',
    layout: 'labelled',
    everyDays: 21,
    lastCheckDaysAgo: 8,
    bed: { ...bed(0.1, 0.1, 0.02), bump: { u: 0.5, v: 0.5, height: 0.15, radius: 0.2 } },
  },
  {
    name: 'Oystercatcher',
    area: 'Loft',
    shelf: 'D3',
    model: 'gantry',
    layout: 'bare',
    everyDays: 21,
    lastCheckDaysAgo: 2,
    bed: bed(-0.08, 0.12, 0.04),
  },
  { name: 'Curlew', area: 'Loft', shelf: 'D4', model: 'slinger', lastCheckDaysAgo: 10, bed: FLAT },
  { name: 'Sandpiper', area: 'Wet Room', shelf: 'E1', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
  { name: 'Phalarope', area: 'Wet Room', shelf: 'E2', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
  { name: 'Stilt', area: 'Wet Room', shelf: 'E3', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
  { name: 'Dotterel', area: 'Wet Room', shelf: 'F1', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
  { name: 'Pratincole', area: 'Wet Room', shelf: 'F2', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
  { name: 'Woodcock', area: 'Wet Room', shelf: 'F3', model: 'mono', lastCheckDaysAgo: 0, bed: FLAT },
];

/** The port of a demo machine's console: consoles lie side by side from a base. */
export function consolePort(name: string, base: number): number {
  return base + MACHINES.filter(({ layout }) => layout).findIndex((machine) => machine.name === name);
}
