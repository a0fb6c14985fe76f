import type { SurfaceGroup } from '../surfaces/surfaceKind';
import type { HoldKind, SurfaceWork } from '../surfaces/surfaceState';
import type { CautionId } from './cautions';

/** A job as a document: steps, what they ask, where they lead. Everything in it can be written as JSON. */
export interface Procedure {
  id: string;
  title: string;
  family: 'filament' | 'resin' | 'any';
  /** What it is for, in a sentence. */
  about: string;
  /** Minutes of hands' work, without the waits. */
  minutes: number;
  tools: string[];
  materials: string[];
  parts: ProcedurePart[];
  choices: SchoolChoice[];
  /** It begins with the first one. */
  steps: ProcedureStep[];
}

/** A surface that the job is about: named when it is begun, so that its record follows. */
export interface ProcedurePart {
  id: string;
  label: string;
  groups: SurfaceGroup[];
  /** What lies on the machine, or what is fetched from the rack. */
  from: 'machine' | 'rack';
}

/** A question on which practitioners differ, answered before the work begins. */
export interface SchoolChoice {
  id: string;
  question: string;
  options: { id: string; label: string; because: string; hours?: number }[];
  /** The option taken when nobody says otherwise. */
  usual: string;
}

/** Where a step leads: another step, or one of the two ends. */
export type Target = string;
export const DONE = 'end:done';
export const STOPPED = 'end:stopped';

export interface ProcedureReading {
  id: string;
  label: string;
  unit: 'mm' | '°C' | 'turns' | 'wipes' | '%' | 'h' | '';
  /** What can be at all: anything else is a slip of the finger. */
  min: number;
  max: number;
  /** What is good enough to go on. */
  least?: number;
  most?: number;
}

export interface Duration {
  seconds?: number;
  /** Hours of the option taken in a choice. */
  hoursOf?: string;
}

export interface ProcedureStep {
  id: string;
  /** A few words, for lists and the bench. */
  title: string;
  /** What the hands do. */
  doing: string;
  why?: string;
  cautions?: CautionId[];
  picture?: PictureId;
  /** Which place of a picture with several is meant, from 1 on in the order in which the hands take them. */
  mark?: number;
  /** Only with one of these options of a choice; otherwise it is passed over to `next`. */
  only?: { choice: string; is: string[] };
  readings?: ProcedureReading[];
  /** Asked when the step is done; each answer leads somewhere. */
  ask?: { question: string; answers: { id: string; label: string; to: Target }[] };
  /** A reading over or under a limit leads elsewhere; the first that holds. */
  branches?: { reading: string; over?: number; under?: number; to: Target }[];
  /** Counts from when the step is entered. Not done before `least`; after `most` it leads to `late`. */
  timer?: { name: string; least?: Duration; most?: Duration; late?: Target };
  /** Must be ticked, and readings be good enough, before it goes on. Stands before what can't be undone. */
  gate?: { checks: string[] };
  /** Can't be undone: one chance. */
  onceOnly?: boolean;
  /** A sum that belongs here, filled in from the machine. */
  sum?: 'stack' | 'underbed' | 'top' | 'size' | 'blanks' | 'soak' | 'spacer' | 'together' | 'level';
  /**
   * For the stack's sum: what comes to lie where, as thick as a reading said; without one, what lay there is gone.
   * `name`: a plain layer under what lies in the slot (a pad) · `only`: with these options of a choice.
   */
  layers?: {
    slot: 'base' | 'top';
    reading?: string;
    name?: string;
    only?: { choice: string; is: string[] };
  }[];
  photo?: boolean;
  /** What to do when it can't be done: each leads somewhere sensible. At least one. */
  cant: { label: string; to: Target }[];
  next: Target;
  effects?: StepEffect[];
}

/** What a step changes in the shop's records. Parts not named at the start are passed over. */
export type StepEffect = {
  /** pass: when it goes on to `next` or by an answer (default) · always: also on a branch, or when it could not be done to its end. */ on?:
    'pass' | 'always';
} & (
  | { kind: 'take-off'; part: string; place: string }
  | { kind: 'mount'; part: string }
  | { kind: 'hold'; part: string; hold: HoldKind; hours: number | { hoursOf: string }; reason: string }
  | { kind: 'retire'; part: string; why: string }
  | { kind: 'work'; part: string; work: SurfaceWork; note: string }
  | { kind: 'inspect'; part: string; card: string; codes: Record<string, string>; numbers: Record<string, string> }
  | { kind: 'book'; text: string }
  | { kind: 'materials'; used: string[] }
);

/** Pictures that the app draws. */
export const PICTURES = [
  'peel-warm',
  'six-lines',
  'liner-strip',
  'centre-out',
  'front-mark',
  'crosswise',
  'empty-vat',
  'score-snap',
  'countersink',
  'washers',
  'film-frame',
  'trim-edge',
] as const;
export type PictureId = (typeof PICTURES)[number];

/** Pictures with several places, of which a step may mean one. */
export const PICTURE_PLACES: Partial<Record<PictureId, readonly string[]>> = {
  'six-lines': [
    'along, on the left',
    'along, on the right',
    'across, in front',
    'across, at the rear',
    'front left to rear right',
    'front right to rear left',
  ],
  crosswise: ['rear left', 'front right', 'rear right', 'front left'],
};
