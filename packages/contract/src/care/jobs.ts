import type { FoundLayer, Procedure, RunEvent, Side, ToolId } from '@even-bed/core';
import type { JobTaught } from '@even-bed/core/care/jobTaught';
import { CAUTIONS } from '@even-bed/core/care/cautions';
import { PICTURES, type StepEffect } from '@even-bed/core/care/procedure';
import { ABRASIVES, SOLVENTS, TOOLS } from '@even-bed/core/fit/compatibility';
import { GROUPS } from '@even-bed/core/surfaces/surfaceKind';
import Joi from 'joi';
import { idField, nameField, numberField, record, timeField, toldTime } from '../kit/fields';

/** A procedure as lists show it. */
export interface ProcedureEntry {
  id: string;
  /** 0 for those that ship with the shop: they are never changed, only copied. */
  version: number;
  title: string;
  family: Procedure['family'];
  about: string;
  minutes: number;
  /** The shipped one that a shop's own was copied from. */
  basedOn: string | null;
}

/** A procedure with its document. Every saved version is kept: runs go on with the one they began with. */
export interface ProcedureRecord extends ProcedureEntry {
  doc: Procedure;
  /** Which edition of a procedure that ships: it changes with the document. */
  edition: string | null;
  at: number | null;
  personName: string | null;
}

export interface ProcedureWrite {
  doc: Procedure;
  basedOn: string | null;
  version: number;
  at: number;
}

export interface JobStart {
  procedureId: string;
  version: number;
  machineId: string;
  /** Option by choice. */
  choices: Record<string, string>;
  /** Surface by part; parts not named are not followed. */
  parts: Record<string, string>;
  /** Which side of a part goes up, where it has two; not said: A. */
  sides: Record<string, Side>;
  /** The same for every machine of a fleet that is refitted alike; null: this machine alone. */
  together: string | null;
  /** Of a procedure that ships: which of its editions the device knows; not said: the latest. */
  edition?: string;
  at: number;
}

/** A layer as a job found it. */
export type JobLayer = FoundLayer;

/** A job as lists show it. */
export interface JobEntry {
  id: string;
  title: string;
  machineId: string;
  machineName: string;
  startedAt: number;
  /** Who has it in hand. */
  holderName: string | null;
  /** The step in hand, and when its timer lets go. */
  stepTitle: string | null;
  enteredAt: number;
  waitUntil: number | null;
  ended: 'done' | 'stopped' | null;
  endedAt: number | null;
  step: number;
  steps: number;
  /** Jobs begun for several machines at once share it; null: this machine alone. */
  together: string | null;
  /** The surfaces that it is about, by the part they are. */
  parts: Record<string, string>;
}

/** What other machines of a model taught, each with where it comes from. */
export interface Taught {
  facts: { machineId: string; machineName: string; platformKey: number | null; threads: string[] }[];
  /** Jobs that were finished there, the latest of each kind on each machine, the latest first. */
  jobs: (JobTaught & {
    jobId: string;
    procedureId: string;
    title: string;
    machineId: string;
    machineName: string;
    endedAt: number;
    /** What was fitted from the rack. Sizes in mm; thickness null: not measured. */
    fitted: { tag: string; kind: string; width: number; depth: number; thickness: number | null }[];
  })[];
  /** Plans that stand, the latest first. */
  plans: {
    planId: string;
    tool: ToolId;
    title: string;
    sentence: string;
    machineId: string;
    machineName: string;
    at: number;
  }[];
}

/** A job with all that is needed to go on with it anywhere, also without a signal. */
export interface Job extends JobEntry {
  procedure: Procedure;
  choices: Record<string, string>;
  /** The machine's stack as it was when the job began, bottom first: what its sums start from. */
  stackBefore: JobLayer[];
  events: (RunEvent & { id: string; personName: string | null })[];
}

/** What happened, in its order: one moment of a card, taken whole or not at all. The first has the id of the address. */
export interface JobEventWrite {
  event: RunEvent;
  rest?: { id: string; event: RunEvent }[];
}

/** More doings than any card has. */
const MOST_AT_ONCE = 60;

const target = Joi.string().max(80);
const id = (label: string) => Joi.string().trim().min(1).max(60).label(label);
const duration = Joi.object({ seconds: numberField('Seconds', { min: 0, max: 1e7 }), hoursOf: Joi.string().max(60) });

/** What an effect cannot be without, by its kind; other fields may be left out. */
const NEEDED: Record<StepEffect['kind'], readonly string[]> = {
  'take-off': ['part', 'place'],
  mount: ['part'],
  hold: ['part', 'hold', 'hours', 'reason'],
  retire: ['part', 'why'],
  release: ['part', 'reason'],
  work: ['part', 'work', 'note'],
  inspect: ['part', 'card', 'codes', 'numbers'],
  thickness: ['part', 'reading'],
  'lay-layers': [],
  'lift-layers': ['part'],
  level: ['way', 'drag', 'takes'],
  key: ['reading'],
  offset: ['reading'],
  zero: [],
  'home-moved': [],
  lapped: ['part', 'step', 'how'],
  surveyed: ['part', 'takes'],
  book: ['text'],
  materials: ['used'],
};
const neededWith = (keys: Record<string, Joi.Schema>): Record<string, Joi.Schema> =>
  Object.fromEntries(
    Object.entries(keys).map(([key, schema]) => {
      const kinds = Object.entries(NEEDED).flatMap(([kind, needed]) => (needed.includes(key) ? [kind] : []));
      return [
        key,
        kinds.length === 0 ? schema : schema.when('kind', { is: Joi.valid(...kinds), then: Joi.required() }),
      ];
    }),
  );
const effect = Joi.object({
  on: Joi.string().valid('pass', 'always'),
  kind: Joi.string()
    .valid(...Object.keys(NEEDED))
    .required()
    .label('Effect'),
  answers: Joi.array().items(Joi.string().max(60)).max(8),
  ...neededWith({
    part: id('Part'),
    place: Joi.string().trim().max(60).allow('').label('Place'),
    hold: Joi.string().valid('cure', 'dry', 'cool', 'soak').label('Hold'),
    hours: Joi.alternatives(
      Joi.number().min(0).max(1000),
      Joi.object({ hoursOf: Joi.string().max(60).required() }),
    ).label('Hours'),
    reason: Joi.string().max(200).label('Reason'),
    why: Joi.alternatives(Joi.string().max(200), Joi.object({ answerTo: id('Step').required() })).label('Why'),
    work: Joi.string().valid('wiped', 'washed', 'scrubbed', 'renewed', 'repaired', 'other').label('Work'),
    note: Joi.string().max(300).allow('').label('Note'),
    card: Joi.string().max(40).label('Card'),
    codes: Joi.object().pattern(Joi.string().max(40), Joi.string().max(40)).label('Codes'),
    numbers: Joi.object().pattern(Joi.string().max(40), Joi.string().max(40)).label('Numbers'),
    text: Joi.string().max(300).label('Text'),
    by: Joi.string().max(60),
    reading: Joi.string().max(130).label('Reading'),
    way: Joi.object({ choice: id('Choice').required() }).label('Way'),
    drag: Joi.object({ choice: id('Choice').required() }).label('Drag'),
    how: Joi.object({ choice: id('Choice').required() }).label('How'),
    step: Joi.string().max(60).label('Step'),
    takes: Joi.object().pattern(Joi.string().max(130), Joi.string().max(130)).label('Readings'),
    used: Joi.array().items(Joi.string().max(60)).max(20).label('Materials'),
  }),
});

const step = Joi.object({
  id: id('Name of the step').required(),
  title: nameField('Title of the step', 80).required(),
  doing: Joi.string().trim().min(1).max(600).required().label('What the hands do'),
  why: Joi.string().trim().max(400).allow('').label('Why'),
  cautions: Joi.array()
    .items(
      Joi.string()
        .valid(...Object.keys(CAUTIONS))
        .label('Caution'),
    )
    .max(6),
  picture: Joi.string()
    .valid(...PICTURES)
    .label('Picture'),
  mark: Joi.number().integer().min(1).max(6).label('Place in the picture'),
  phase: id('Phase'),
  bound: Joi.boolean().valid(true).label('Hands full'),
  byChoice: Joi.object({
    choice: id('Choice').required(),
    says: Joi.object().pattern(Joi.string().max(60), Joi.string().max(300)).required(),
  }),
  only: Joi.object({
    choice: id('Choice'),
    answered: id('Answered step'),
    is: Joi.array().items(Joi.string().max(60)).min(1).required(),
  }).xor('choice', 'answered'),
  readings: Joi.array()
    .items(
      Joi.object({
        id: id('Reading').required(),
        label: nameField('Reading', 80).required(),
        unit: Joi.string().valid('mm', '°C', 'turns', 'wipes', '%', 'h', 'g', '').default('').label('Unit'),
        min: numberField('Least possible', { min: -1e5, max: 1e5 }).required(),
        max: numberField('Most possible', { min: -1e5, max: 1e5 }).required(),
        least: numberField('At least', { min: -1e5, max: 1e5 }),
        most: numberField('At most', { min: -1e5, max: 1e5 }),
        optional: Joi.boolean().valid(true).label('May be left out'),
        teaches: Joi.boolean().valid(true).label('Of the machine itself'),
        options: Joi.array()
          .items(
            Joi.object({
              value: numberField('Value', { min: -1e5, max: 1e5 }).required(),
              label: nameField('Option', 60).required(),
            }),
          )
          .min(1)
          .max(8),
        where: Joi.object({
          reading: id('Reading').required(),
          over: numberField('Over', { min: -1e5, max: 1e5 }).required(),
        }),
        known: Joi.object({
          of: Joi.string().valid('thickness', 'plate', 'spring', 'pile', 'lowest-layer', 'key').required(),
          part: Joi.string().max(60),
          side: Joi.string().valid('width', 'depth'),
        }),
      }),
    )
    .max(12),
  ask: Joi.object({
    question: nameField('Question', 200).required(),
    answers: Joi.array()
      .items(
        Joi.object({
          id: id('Answer').required(),
          label: nameField('Answer', 80).required(),
          to: target.required().label('Where it leads'),
          when: Joi.string().max(40),
          unless: Joi.string().max(40),
          family: Joi.string().valid('filament', 'resin'),
          proves: Joi.boolean().valid(true),
        }),
      )
      .min(1)
      .max(8)
      .required(),
  }),
  branches: Joi.array()
    .items(
      Joi.object({
        reading: id('Reading').required(),
        of: id('Share of'),
        over: numberField('Over', { min: -1e5, max: 1e5 }),
        under: numberField('Under', { min: -1e5, max: 1e5 }),
        to: target.required(),
      }),
    )
    .max(6),
  timer: Joi.object({ name: nameField('Timer', 80).required(), least: duration, most: duration, late: target }),
  gate: Joi.object({ checks: Joi.array().items(nameField('Check', 200)).max(8).required() }),
  onceOnly: Joi.boolean(),
  behind: Joi.array().items(id('Gate')).min(1).max(8),
  sum: Joi.string()
    .valid(
      'stack',
      'underbed',
      'top',
      'size',
      'blanks',
      'soak',
      'spacer',
      'together',
      'level',
      'light',
      'tugs',
      'pieces',
      'skirt',
      'strips',
      'lap',
    )
    .label('Sum'),
  takes: Joi.object().pattern(Joi.string().max(130), Joi.string().max(130)),
  setpoint: numberField('Temperature meant', { min: 0, max: 200 }),
  about: id('Part'),
  uses: Joi.object({
    solvent: Joi.string().valid(...SOLVENTS),
    abrasive: Joi.string().valid(...ABRASIVES),
    tool: Joi.string().valid(...TOOLS),
    choice: id('Choice'),
  }).min(1),
  layers: Joi.array()
    .items(
      Joi.object({
        slot: Joi.string().valid('platform', 'base', 'top').required(),
        reading: Joi.string().max(130),
        name: nameField('Layer', 60),
        only: Joi.object({ choice: id('Choice').required(), is: Joi.array().items(id('Option')).max(10).required() }),
        part: id('Part'),
        beside: Joi.boolean().valid(true),
        joins: id('Part'),
      }),
    )
    .max(6),
  photo: Joi.boolean(),
  cant: Joi.array()
    .items(Joi.object({ label: nameField('What is in the way', 80).required(), to: target.required() }))
    .min(1)
    .max(6)
    .required()
    .label('When it can’t be done'),
  next: target.required().label('Next'),
  effects: Joi.array().items(effect).max(10),
});

/** The form of a procedure; whether it can be worked through is `checkProcedure`'s to say. */
export const procedureSchema = record<Procedure>({
  id: id('Name').required(),
  title: nameField('Title', 80).required(),
  family: Joi.string().valid('filament', 'resin', 'any').required().label('Family'),
  about: nameField('What it is for', 300).required(),
  minutes: numberField('Minutes of hands’ work', { min: 1, max: 2000 }).required(),
  tools: Joi.array().items(nameField('Tool', 80)).max(30).required().label('Tools'),
  materials: Joi.array().items(nameField('Material', 80)).max(30).required().label('Materials'),
  parts: Joi.array()
    .items(
      Joi.object({
        id: id('Part').required(),
        label: nameField('Part', 80).required(),
        groups: Joi.array()
          .items(Joi.string().valid(...GROUPS))
          .min(1)
          .required(),
        from: Joi.string().valid('machine', 'rack').required(),
      }),
    )
    .max(8)
    .required(),
  choices: Joi.array()
    .items(
      Joi.object({
        id: id('Choice').required(),
        question: nameField('Question', 200).required(),
        options: Joi.array()
          .items(
            Joi.object({
              id: id('Option').required(),
              label: nameField('Option', 100).required(),
              because: Joi.string().trim().max(300).allow('').default('').label('Because'),
              hours: numberField('Hours', { min: 0, max: 1000 }),
            }),
          )
          .min(1)
          .max(6)
          .required(),
        usual: id('Usual option').required(),
        only: Joi.object({
          choice: id('Choice').required(),
          is: Joi.array().items(id('Option')).min(1).max(6).required(),
        }),
      }),
    )
    .max(6)
    .required(),
  phases: Joi.array()
    .items(Joi.object({ id: id('Phase').required(), title: nameField('Phase', 40).required() }))
    .min(1)
    .max(12)
    .label('Phases'),
  steps: Joi.array().items(step).min(1).max(80).required().label('Steps'),
  then: Joi.array().items(Joi.string().max(60)).max(5).label('What follows'),
}).label('The procedure');

export const procedureWriteSchema = record<ProcedureWrite>({
  doc: procedureSchema.required(),
  basedOn: Joi.string().max(60).allow(null).required().label('Copied from'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});

const named = (label: string) =>
  Joi.object().pattern(Joi.string().max(60), Joi.string().max(60)).required().label(label);

export const jobStartSchema = record<JobStart>({
  procedureId: Joi.string().max(60).required().label('Job'),
  version: Joi.number().integer().min(0).required().label('Version'),
  machineId: idField().required().label('Machine'),
  choices: named('Choices'),
  parts: Joi.object().pattern(Joi.string().max(60), idField()).required().label('Parts'),
  sides: Joi.object().pattern(Joi.string().max(60), Joi.string().valid('A', 'B')).default({}).label('Sides'),
  together: idField().allow(null).default(null).label('Begun together'),
  edition: Joi.string().max(40).label('Edition'),
  at: toldTime('Time').required(),
});

const onlyWith = (field: Joi.Schema, kinds: readonly string[]) =>
  field.when('kind', { is: Joi.valid(...kinds), then: Joi.required(), otherwise: Joi.forbidden() });

const runEvent = Joi.object({
  kind: Joi.string()
    .valid('done', 'cant', 'undone', 'noted', 'handed-over', 'stopped')
    .required()
    .label('What happened'),
  // The server counts no later time than its own.
  at: timeField('Time').required(),
  stepId: Joi.string().max(60).required().label('Step'),
  readings: onlyWith(Joi.object().pattern(Joi.string().max(60), Joi.number()).max(10).label('Readings'), ['done']),
  checks: onlyWith(Joi.array().items(Joi.number().integer().min(0)).max(20).label('Checks'), ['done']),
  answer: onlyWith(Joi.string().max(60).allow(null).label('Answer'), ['done']),
  way: onlyWith(Joi.number().integer().min(0).max(20).label('What is in the way'), ['cant']),
  note: onlyWith(Joi.string().trim().max(500).allow('').label('Note'), ['cant', 'noted', 'handed-over']),
  toId: onlyWith(idField(), ['handed-over']),
  toName: onlyWith(nameField('Person'), ['handed-over']),
  why: onlyWith(Joi.string().trim().min(1).max(500).label('Why'), ['stopped']),
}).label('Event');

export const jobEventSchema = record<JobEventWrite>({
  event: runEvent.required(),
  rest: Joi.array()
    .items(Joi.object({ id: idField().required(), event: runEvent.required() }))
    .max(MOST_AT_ONCE)
    .label('What followed at once'),
});

export interface JobFilter {
  machineId?: string;
  /** Only those begun together under this id. */
  together?: string;
  open: boolean;
}
export const jobListSchema = record<JobFilter>({
  machineId: idField().label('Machine'),
  together: idField().label('Begun together'),
  open: Joi.boolean().default(false).label('Open'),
});

export interface ProcedureAsk {
  version?: number;
}
export const procedureQuerySchema = record<ProcedureAsk>({
  version: Joi.number().integer().min(0).label('Version'),
});
