import type { Abrasive, HandTool, Solvent } from '../fit/compatibility';
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
  /** The phases of the hands, in order: a card each. A document without them has a card for each step. */
  phases?: ProcedurePhase[];
  /** It begins with the first one. */
  steps: ProcedureStep[];
  /** Jobs that hands take up next, by id. */
  then?: string[];
}

/** What the hands do in one go, named in a word or two. */
export interface ProcedurePhase {
  id: string;
  title: string;
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
  /** Asked only with these options of another choice: elsewhere it changes nothing. */
  only?: { choice: string; is: string[] };
}

/** Where a step leads: another step, or one of the two ends. */
export type Target = string;
export const DONE = 'end:done';
export const STOPPED = 'end:stopped';

export interface ProcedureReading {
  id: string;
  label: string;
  unit: 'mm' | '°C' | 'turns' | 'wipes' | '%' | 'h' | 'g' | '';
  /** What can be at all: anything else is a slip of the finger. */
  min: number;
  max: number;
  /** What is good enough to go on. */
  least?: number;
  most?: number;
  /** Feeds no sum and leads nowhere: it may be left out. */
  optional?: true;
  /** One of these instead of a number typed; the first is the usual one. */
  options?: { value: number; label: string }[];
  /** Asked only where another reading of the same step is above a value. */
  where?: { reading: string; over: number };
  /** Where the shop's records say it already. */
  known?: KnownReading;
  /** Of the machine itself: others of its model are told of it. */
  teaches?: true;
}

/** What a reading is called in the records; it is not asked again where they hold it. */
export type KnownReading =
  /** Thickness of a named part, taken with calipers. */
  | { of: 'thickness'; part: string }
  /** The machine's own plate. */
  | { of: 'plate'; side: 'width' | 'depth' }
  /** The springs of the machine fully compressed, from its last plan of what is under the bed. */
  | { of: 'spring' }
  /** The pile of washers that the sum under the bed asks for. */
  | { of: 'pile' }
  /** The key that the platform's screws take. */
  | { of: 'key' }
  /** Thickness of the lowest layer of the machine's stack: its plate. */
  | { of: 'lowest-layer' };

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
  /** The phase of the hands that it belongs to. */
  phase?: string;
  /** Hands are full: nothing is typed, ticked or waited for until they are free again. */
  bound?: true;
  /** What an option of a choice adds to the doing. */
  byChoice?: { choice: string; says: Record<string, string> };
  /** Only with one of these options of a choice, or after one of these answers; otherwise it is passed over to `next`. */
  only?: OnlyWhen;
  readings?: ProcedureReading[];
  /** Asked when the step is done; each answer leads somewhere. */
  ask?: { question: string; answers: ProcedureAnswer[] };
  /** A reading over or under a limit leads elsewhere; the first that holds. `of`: its share of another reading counts. */
  branches?: { reading: string; of?: string; over?: number; under?: number; to: Target }[];
  /** Counts from when the step is entered. Not done before `least`; after `most` it leads to `late`. */
  timer?: { name: string; least?: Duration; most?: Duration; late?: Target };
  /** Must be ticked, and readings be good enough, before it goes on. Stands before what can't be undone. */
  gate?: { checks: string[] };
  /** Can't be undone: one chance. */
  onceOnly?: boolean;
  /** The steps of whose gates one is passed before this one, each time anew; not said: the one right before. */
  behind?: string[];
  /** A sum that belongs here, filled in from the machine. */
  sum?: StepSumId;
  /** What the sum takes from readings: "step.reading" by the sum's own name for it. */
  takes?: Record<string, string>;
  /** °C meant for a soak. */
  setpoint?: number;
  /** The part that the sum is about; not said: the first. */
  about?: string;
  /** What touches that part in this step, where the sum is whether they go together; a choice: what was chosen there. */
  uses?: { solvent?: Solvent; abrasive?: Abrasive; tool?: HandTool; choice?: string };
  /** For the stack's sum. */
  layers?: StackLayerAsk[];
  photo?: boolean;
  /** What to do when it can't be done: each leads somewhere sensible. At least one. */
  cant: { label: string; to: Target }[];
  next: Target;
  effects?: StepEffect[];
}

export type StepSumId =
  | 'stack'
  | 'underbed'
  | 'top'
  | 'size'
  | 'blanks'
  | 'soak'
  | 'spacer'
  | 'together'
  | 'level'
  /** What the lines of light say of the shape. */
  | 'light'
  /** What sheets pulled out from under a platform say of its level. */
  | 'tugs'
  /** Where thin pieces over a platform failed. */
  | 'pieces'
  /** The skirt that prints, looked at side by side at its own tool. */
  | 'skirt'
  /** Strips of tape for what the lines of light say, planned at their own tool. */
  | 'strips'
  /** What the rounds of lapping so far say. */
  | 'lap';

export type OnlyWhen = { choice: string; is: string[] } | { answered: string; is: string[] };

export interface ProcedureAnswer {
  id: string;
  label: string;
  to: Target;
  /** What the step's sum says where this is the answer: then nobody is asked. */
  when?: string;
  /** Not offered where the step's sum says this. */
  unless?: string;
  /** Offered on machines of this family alone. */
  family?: 'filament' | 'resin';
  /** Giving it is passing the gate: it says what has been seen. No knock and no stray tap gives it. */
  proves?: true;
}

/**
 * What comes to lie where, as thick as a reading said or as a number is; without either, what lay there is gone. `name`: a
 * plain layer under what lies in the slot (a pad, washers) · `only`: with these options of a choice.
 */
export interface StackLayerAsk {
  slot: 'platform' | 'base' | 'top';
  reading?: string;
  name?: string;
  only?: { choice: string; is: string[] };
  /** The part that it is; its material is known from there. */
  part?: string;
  /** What lay there stays: this comes beside it. */
  beside?: true;
  /** It is stuck to this part and goes where it goes: the part is as thick as both, on any machine. */
  joins?: string;
}

/** What a step changes in the shop's records. Parts not named at the start are passed over. */
export type StepEffect = {
  /** pass: when it goes on to `next` or by an answer (default) · always: also on a branch, or when it could not be done to its end. */ on?:
    'pass' | 'always';
  /** Only with one of these answers; not said: with any. */
  answers?: string[];
} & (
  | { kind: 'take-off'; part: string; place: string }
  | { kind: 'mount'; part: string }
  | { kind: 'hold'; part: string; hold: HoldKind; hours: number | { hoursOf: string }; reason: string }
  /** `answerTo`: a step whose answer says why. */
  | { kind: 'retire'; part: string; why: string | { answerTo: string } }
  /** What it waited for is off it again: the hold ends. */
  | { kind: 'release'; part: string; reason: string }
  | { kind: 'work'; part: string; work: SurfaceWork; note: string }
  /** `codes`: the card's code by answer, or by the value of the reading that `by` names; "*": any other. */
  | {
      kind: 'inspect';
      part: string;
      card: string;
      codes: Record<string, string>;
      numbers: Record<string, string>;
      by?: string;
    }
  /** A part was measured: it stays with it. */
  | { kind: 'thickness'; part: string; reading: string }
  /** The plain layers that the job's sums name are there now: washers. */
  | { kind: 'lay-layers' }
  /** The plain layers under a part went with it: a pad, an adhesive. */
  | { kind: 'lift-layers'; part: string }
  /** A level by hand: its way is the option of a choice; its readings are kept raw. */
  | { kind: 'level'; way: { choice: string }; drag: { choice: string }; takes: Record<string, string> }
  /** The key of the platform's screws, as a reading said it: it stays with the machine. */
  | { kind: 'key'; reading: string }
  /** The Z offset that works with what lies on top of the machine, as a reading said it. */
  | { kind: 'offset'; reading: string }
  /** Zero was set, `home`: where home trips was moved. */
  | { kind: 'zero' }
  | { kind: 'home-moved' }
  /** All rounds of lapping, raw, as the readings of a step said them each time. */
  | { kind: 'lapped'; part: string; step: string; how: { choice: string } }
  /** What lines of light said, raw. */
  | { kind: 'surveyed'; part: string; takes: Record<string, string> }
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
  'proud-clip',
  'magnet-under-board',
  'sheet-as-template',
  'release-cold',
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
