import type { LevelNoteRaw, LevelNoteResult, LookAgain, MeasuredLevel, NoteWay, ZeroStands } from '@even-bed/core';
import { LINE_LOOKS, SKIRT_SIDES } from '@even-bed/core/level/skirtTrim';
import { GAUGE_KINDS, type GaugeAsk } from '@even-bed/core/level/gauge';
import { CAUSES, LESSONS, type Cause, type Lesson, type PracticeAct } from '@even-bed/core/level/practiceBed';
import { CORNERS, DRAGS, TUGS } from '@even-bed/core/level/tugs';
import Joi from 'joi';
import { idField, lengthField, nameField, record, toldTime } from '../kit/fields';

/** A level by hand: what was read, raw. What it came to is worked out anew. */
export interface LevelNoteWrite {
  machineId: string;
  at: number;
  raw: LevelNoteRaw;
}

export interface LevelNote extends LevelNoteWrite {
  id: string;
  way: NoteWay;
  result: LevelNoteResult;
  /** The job that it was done in; null: by itself. */
  jobId: string | null;
  personName: string | null;
}

/** home: where the switch trips was moved · zero: where a print starts was set; two facts · learn-anew: what was learned of its adjusters is set back */
export type ZMarkKind = 'home' | 'zero' | 'learn-anew';

export interface ZMarkWrite {
  machineId: string;
  kind: ZMarkKind;
  at: number;
}

export interface ZMark {
  id: string;
  at: number;
  personName: string | null;
}

export interface MachineZero {
  /** When home was moved last, as far as it was written down; null: never. */
  home: ZMark | null;
  zero: ZMark | null;
  stands: ZeroStands;
}

export interface MachineLevels {
  /** The latest first. */
  items: MeasuredLevel[];
  again: LookAgain;
}

export interface TakenBack {
  at: number;
}

const word = (values: readonly string[], label: string) =>
  Joi.string()
    .valid(...values)
    .required()
    .label(label);
const ten = Joi.any().when(Joi.valid(null), {
  then: Joi.valid(null),
  otherwise: lengthField('Ten sheets together', { min: 0.3, max: 10 }),
});
const tugs = Joi.object(Object.fromEntries(CORNERS.map((corner) => [corner, word(TUGS, 'Tug')]))).required();
const place = (label: string) => lengthField(label, { min: -5000, max: 5000 }).required();
const looks = Joi.object(Object.fromEntries(SKIRT_SIDES.map((side) => [side, word(LINE_LOOKS, 'Look')]))).required();
const move = Joi.object({
  do: word(['turn', 'offset'], 'What was done'),
  adjuster: nameField('Adjuster', 40).when('do', { is: 'turn', then: Joi.required(), otherwise: Joi.forbidden() }),
  turns: Joi.number()
    .min(-10)
    .max(10)
    .label('Turns')
    .when('do', { is: 'turn', then: Joi.required(), otherwise: Joi.forbidden() }),
  by: Joi.number()
    .min(-1)
    .max(1)
    .label('Offset')
    .when('do', { is: 'offset', then: Joi.required(), otherwise: Joi.forbidden() }),
});

const skirtKeys = {
  adjusters: Joi.array()
    .items(
      Joi.object({
        id: nameField('The id of the adjuster', 40).required(),
        x: place('X of the adjuster'),
        y: place('Y of the adjuster'),
        pitch: lengthField('Pitch', { min: 0.01, max: 20 }).required(),
        clockwise: word(['raises', 'lowers'], 'What a clockwise turn does'),
        motor: Joi.boolean().valid(true).label('Driven by a motor'),
      }),
    )
    .unique('id')
    .max(12)
    .required()
    .label('Adjusters'),
  print: Joi.object({
    x: place('X'),
    y: place('Y'),
    width: lengthField('Width', { min: 1, max: 5000 }).required(),
    depth: lengthField('Depth', { min: 1, max: 5000 }).required(),
  })
    .required()
    .label('Print area'),
  rounds: Joi.array()
    .items(Joi.object({ looks, made: move.allow(null).required() }))
    .min(1)
    .max(60)
    .required()
    .label('Rounds'),
};

const way = (name: string, keys: Joi.SchemaMap = {}) => Joi.object({ way: Joi.valid(name).required(), ...keys });
const raw = Joi.alternatives()
  .conditional('.way', {
    switch: [
      { is: 'quarters', then: way('quarters', { tugs, drag: word(DRAGS, 'Feel'), ten: ten.required() }) },
      { is: 'sheet', then: way('sheet', { tug: word(TUGS, 'Tug'), drag: word(DRAGS, 'Feel'), ten: ten.required() }) },
      { is: 'film', then: way('film') },
      { is: 'lock', then: way('lock') },
      { is: 'skirt', then: way('skirt', skirtKeys) },
    ],
    otherwise: Joi.object({ way: word(['quarters', 'sheet', 'film', 'lock', 'skirt'], 'Way') }).unknown(),
  })
  .required()
  .label('What was read');

export const levelNoteSchema = record<LevelNoteWrite>({
  machineId: idField().required().label('Machine'),
  at: toldTime('Time').required(),
  raw,
});

export const zMarkSchema = record<ZMarkWrite>({
  machineId: idField().required().label('Machine'),
  kind: Joi.string().valid('home', 'zero', 'learn-anew').required().label('What'),
  at: toldTime('Time').required(),
});

export const takenBackSchema = record<TakenBack>({ at: toldTime('Time').required() });

/** What a shop feels gaps with: how many pieces were between the calipers at once, what they said, how many layers are used. */
export interface GaugeWrite extends GaugeAsk {
  name: string;
  at: number;
}

export interface ShopGauge extends GaugeWrite {
  id: string;
  personName: string | null;
}

export const gaugeSchema = record<GaugeWrite>({
  name: nameField('Name of the gauge', 40).required(),
  kind: word(GAUGE_KINDS, 'Kind'),
  caliper: Joi.object({
    pieces: Joi.number().integer().min(1).max(1000).required().label('Pieces'),
    reading: lengthField('What the calipers said', { min: 0.005, max: 100 }).required(),
  })
    .allow(null)
    .required()
    .label('Calipers'),
  layers: Joi.number().integer().min(1).max(50).required().label('Layers'),
  at: toldTime('Time').required(),
});

/** A round on the practice bed: what the learner did, and what they said it was. */
export interface PracticeWrite {
  at: number;
  lesson: Lesson;
  seed: number;
  acts: PracticeAct[];
  said: Cause;
}

const actOf = (name: PracticeAct['do'], keys: Joi.SchemaMap = {}) =>
  Joi.object({ do: Joi.valid(name).required(), ...keys });
const act = Joi.alternatives().conditional('.do', {
  switch: [
    { is: 'feel', then: actOf('feel', { at: nameField('Place', 40).required() }) },
    {
      is: 'turn',
      then: actOf('turn', {
        adjuster: nameField('Adjuster', 40).required(),
        turns: Joi.number().min(-20).max(20).required().label('Turns'),
      }),
    },
    { is: 'caliper', then: actOf('caliper') },
    { is: 'map', then: actOf('map') },
  ],
  otherwise: Joi.object({ do: word(['feel', 'turn', 'caliper', 'map'], 'What was done') }).unknown(),
});

export const practiceSchema = record<PracticeWrite>({
  at: toldTime('Time').required(),
  lesson: word(LESSONS, 'Lesson'),
  seed: Joi.number().integer().min(1).max(60_000).required().label('Bed'),
  acts: Joi.array().items(act).max(400).required().label('What was done'),
  said: word(CAUSES, 'What it was'),
});

export interface LevelNoteFilter {
  machineId?: string;
}
export const levelNoteListSchema = record<LevelNoteFilter>({ machineId: idField().label('Machine') });
