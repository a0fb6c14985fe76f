import type { Adjuster, AdjusterLearned, ParseOptions, SeenFrom, TurnPlan } from '@even-bed/core';
import { QUESTIONS } from '@even-bed/core/level/heightReading';
import { LONGEST_TEXT } from '@even-bed/core/level/longestText';
import Joi from 'joi';
import { extentSchema, idField, lengthField, nameField, record, toldTime } from '../kit/fields';

/** Where a round's heights came from. */
export type HeightSource = 'machine' | 'pasted' | 'file' | 'typed' | 'felt';

/** What the sums of a check rest on, as it was when the check began. */
export interface CheckSetup {
  /** Looking down, as the plans take them. */
  adjusters: Adjuster[];
  /** As they are written down, where what was learned of them is taken instead. */
  said?: Adjuster[];
  seenFrom: SeenFrom;
  aim: number;
  /** Size of the print area, mm. */
  printWidth: number;
  printDepth: number;
  /** Standard deviation of one reading of its probe as earlier checks show it, mm; not said: nothing was read twice. */
  noise?: number;
}

export interface CheckStart {
  machineId: string;
  startedAt: number;
  setup: CheckSetup;
}

/** One reading of the bed, kept raw: the text as it came, and how it is to be read. */
export interface RoundWrite {
  seq: number;
  takenAt: number;
  source: HeightSource;
  raw: string;
  reading: ParseOptions;
}

/** A turn that was made: signed, + clockwise looking down. */
export interface MadeTurn {
  adjusterId: string;
  turns: number;
}

export interface TurnsWrite {
  madeAt: number;
  turns: MadeTurn[];
}

/** finished: the result stands and the next check gets its date · dropped: nothing was found out. */
export type CheckOutcome = 'finished' | 'dropped';

export interface CheckEnd {
  endedAt: number;
  outcome: CheckOutcome;
  note: string;
}

export interface LevelRound extends RoundWrite {
  id: string;
  plan: TurnPlan;
  points: number;
  madeAt: number | null;
  made: MadeTurn[];
  coreVersion: string;
}

export interface LevelCheckSummary {
  id: string;
  machineId: string;
  machineName: string;
  startedAt: number;
  endedAt: number | null;
  outcome: CheckOutcome | null;
  /** Range at the first and last reading, mm; null before the first. */
  before: number | null;
  after: number | null;
  aim: number;
  rounds: number;
}

export interface LevelCheck extends LevelCheckSummary {
  setup: CheckSetup;
  note: string;
  roundList: LevelRound[];
}

/** What a machine's adjusters really do. */
export interface MachineLearned {
  adjusters: AdjusterLearned[];
  /** Rounds of turns between two readings that it rests on, since its adjusters were last changed. */
  rounds: number;
  /** Levels by paper and feel that it rests on. */
  felt: number;
  /** Standard deviation of one reading of its probe, mm; null: nothing was read twice. */
  noise: number | null;
  /** When it was set back; null: never. */
  since: number | null;
  /** Turns that would teach most in a round of their own, + clockwise looking down, by adjuster. */
  teach: MadeTurn[];
}

const coordinate = (label: string) => lengthField(label, { min: -5000, max: 5000 }).required();

const adjuster = Joi.object({
  id: nameField('The id of the adjuster', 40).required(),
  x: coordinate('X of the adjuster'),
  y: coordinate('Y of the adjuster'),
  pitch: lengthField('Pitch', { min: 0.01, max: 20 }).required(),
  clockwise: Joi.string().valid('raises', 'lowers').required().label('What a clockwise turn does'),
  motor: Joi.boolean().valid(true).label('Driven by a motor'),
});

export const checkStartSchema = record<CheckStart>({
  machineId: idField().required().label('Machine'),
  startedAt: toldTime('Start').required(),
  setup: record<CheckSetup>({
    adjusters: Joi.array().items(adjuster).unique('id').min(3).max(12).required().label('Adjusters'),
    said: Joi.array().items(adjuster).unique('id').min(3).max(12).label('Adjusters as written down'),
    seenFrom: Joi.string().valid('above', 'below').required().label('Seen from'),
    aim: lengthField('Aim', { min: 0.001, max: 10 }).required(),
    printWidth: lengthField('Width of the print area', { min: 1, max: 5000 }).required(),
    printDepth: lengthField('Depth of the print area', { min: 1, max: 5000 }).required(),
    noise: lengthField('Scatter of one reading', { min: 0, max: 10 }),
  }).required(),
});

export const readingSchema = record<ParseOptions>({
  plus: Joi.string().valid('higher', 'lower').label('What + means'),
  extent: extentSchema.label('Extent'),
  firstRow: Joi.string().valid('front', 'rear').label('First row'),
  layout: Joi.string().valid('points', 'matrix').label('Layout'),
  answers: Joi.object(Object.fromEntries(QUESTIONS.map((code) => [code, Joi.string().max(300).label('Answer')]))).label(
    'Answers',
  ),
});

export const roundWriteSchema = record<RoundWrite>({
  seq: Joi.number().integer().min(1).max(1000).required().label('Round'),
  takenAt: toldTime('Time').required(),
  source: Joi.string().valid('machine', 'pasted', 'file', 'typed', 'felt').required().label('Source'),
  raw: Joi.string().min(1).max(LONGEST_TEXT).required().label('The readings'),
  reading: readingSchema.required().label('How to read them'),
});

export const turnsWriteSchema = record<TurnsWrite>({
  madeAt: toldTime('Time').required(),
  turns: Joi.array()
    .items(
      Joi.object({
        adjusterId: nameField('Adjuster', 40).required(),
        turns: Joi.number().min(-100).max(100).required().label('Turns'),
      }),
    )
    .unique('adjusterId')
    .max(12)
    .required()
    .label('Turns'),
});

export const checkEndSchema = record<CheckEnd>({
  endedAt: toldTime('End').required(),
  outcome: Joi.string().valid('finished', 'dropped').required().label('Outcome'),
  note: Joi.string().trim().max(2000).allow('').required().label('Note'),
});

/** A height scan that the server runs on a machine's console. */
export interface Scan {
  id: string;
  machineId: string;
  state: 'running' | 'done' | 'failed' | 'stopped';
  /** What it is doing, for a person. */
  step: string;
  /** Readings taken and expected; expected is null until the machine has said. */
  taken: number;
  expected: number | null;
  /** What the console printed; complete when done. */
  text: string;
  message: string | null;
}

export interface CheckFilter {
  machineId?: string;
  state?: 'open' | 'ended';
}
export const checkListSchema = record<CheckFilter>({
  machineId: idField().label('Machine'),
  state: Joi.string().valid('open', 'ended').label('State'),
});
