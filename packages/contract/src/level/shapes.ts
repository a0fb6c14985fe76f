import type { HeightPoint, QuarterTurn, ShapeKind, ShapeRaw, ShapeResult, Side } from '@even-bed/core';
import { LAYER_LOOKS } from '@even-bed/core/level/compareFirstLayer';
import { GRITS } from '@even-bed/core/level/grits';
import { LAP_PLACES } from '@even-bed/core/level/lapProgress';
import { LIGHTS, SURVEY_LINES } from '@even-bed/core/level/lightSurvey';
import { LAP_SCHOOLS, SHAPE_KINDS } from '@even-bed/core/level/shapeRecord';
import Joi from 'joi';
import { idField, lengthField, record, toldTime } from '../kit/fields';
import type { HeightSource } from './records';

/** A survey by light, strips laid, rounds of lapping or a first layer measured: raw, of a machine or of a surface. */
export interface ShapeWrite {
  machineId: string | null;
  surfaceId: string | null;
  at: number;
  raw: ShapeRaw;
}

export interface ShapeRecord extends ShapeWrite {
  id: string;
  kind: ShapeKind;
  result: ShapeResult;
  /** The job that it was done in; null: by itself. */
  jobId: string | null;
  personName: string | null;
}

/** A map that a machine's bed was read as, with what lay on it then. */
export interface BedMap {
  /** Of the round. */
  id: string;
  checkId: string;
  at: number;
  source: HeightSource;
  points: HeightPoint[];
  /** The top surface as it lay; null: none was written down. */
  sheet: { id: string; tag: string; turned: QuarterTurn; side: Side } | null;
}

export interface MachineMaps {
  /** The latest first. */
  items: BedMap[];
  /** Standard deviation of one reading, mm, from all that was read twice; null: nothing says it. */
  noise: number | null;
}

/** More places are no map of a bed that anybody reads. */
export const MOST_MAP_POINTS = 441;

const word = (values: readonly string[], label: string) =>
  Joi.string()
    .valid(...values)
    .required()
    .label(label);
const place = (label: string) => lengthField(label, { min: -5000, max: 5000 }).required();
const share = (label: string) => Joi.number().min(0).max(1).required().label(label);
const map = Joi.array()
  .items(Joi.object({ x: place('X'), y: place('Y'), z: lengthField('Height', { min: -100, max: 100 }).required() }))
  .min(3)
  .max(MOST_MAP_POINTS)
  .required()
  .label('Heights');

const lightKeys = {
  plate: Joi.object({
    width: lengthField('Width', { min: 20, max: 5000 }).required(),
    depth: lengthField('Depth', { min: 20, max: 5000 }).required(),
  })
    .required()
    .label('Plate'),
  lines: Joi.array()
    .items(
      Joi.object({
        id: word(
          SURVEY_LINES.map(({ id }) => id),
          'Line',
        ),
        stretches: Joi.array()
          .items(
            Joi.object({
              from: share('From'),
              to: share('To'),
              light: word(LIGHTS, 'Light'),
              feeler: lengthField('Feeler', { min: 0.005, max: 5 }).allow(null).required(),
            }),
          )
          .max(6)
          .required()
          .label('Where light shows'),
      }),
    )
    .unique('id')
    .min(4)
    .max(SURVEY_LINES.length)
    .required()
    .label('Lines'),
  aim: lengthField('Aim', { min: 0.001, max: 10 }).allow(null).required(),
};

const stripKeys = {
  map,
  tape: Joi.object({
    thickness: lengthField('Thickness of the tape', { min: 0.005, max: 1 }).required(),
    width: lengthField('Width of the tape', { min: 3, max: 500 }).required(),
  })
    .required()
    .label('Tape'),
  strips: Joi.array()
    .items(
      Joi.object({
        along: word(['x', 'y'], 'Along'),
        at: place('Middle'),
        from: place('From'),
        to: place('To'),
        layer: Joi.number().integer().min(1).max(4).required().label('Layer'),
      }),
    )
    .min(1)
    .max(60)
    .required()
    .label('Strips'),
};

const lapKeys = {
  rounds: Joi.array()
    .items(
      Joi.object({
        strokes: Joi.number().min(1).max(1000).required().label('Strokes'),
        touched: Joi.object(
          Object.fromEntries(LAP_PLACES.map((id) => [id, Joi.number().min(0).max(100).required().label('Touched')])),
        ).required(),
      }),
    )
    .min(1)
    .max(60)
    .required()
    .label('Rounds'),
  school: word(LAP_SCHOOLS, 'School'),
  grit: Joi.number()
    .valid(...GRITS.map(({ grit }) => grit), null)
    .required()
    .label('Grit'),
};

const layerKeys = {
  readings: Joi.array()
    .items(
      Joi.object({
        x: place('X'),
        y: place('Y'),
        thickness: Joi.array()
          .items(lengthField('Thickness', { min: 0.005, max: 5 }))
          .max(40)
          .required(),
        look: Joi.string()
          .valid(...LAYER_LOOKS)
          .allow(null)
          .required()
          .label('Look'),
      }),
    )
    .min(1)
    .max(60)
    .required()
    .label('Readings'),
  map,
  nominal: lengthField('Layer', { min: 0.02, max: 2 }).allow(null).required(),
  sign: Joi.string().valid('higher').allow(null).required().label('What + means'),
  compensation: word(['on', 'off'], 'Compensation'),
};

const ofKind = (name: ShapeKind, keys: Joi.SchemaMap) => Joi.object({ kind: Joi.valid(name).required(), ...keys });
const raw = Joi.alternatives()
  .conditional('.kind', {
    switch: [
      { is: 'light', then: ofKind('light', lightKeys) },
      { is: 'strips', then: ofKind('strips', stripKeys) },
      { is: 'lap', then: ofKind('lap', lapKeys) },
      { is: 'layer', then: ofKind('layer', layerKeys) },
    ],
    otherwise: Joi.object({ kind: word(SHAPE_KINDS, 'Kind') }).unknown(),
  })
  .required()
  .label('What was read');

export const shapeWriteSchema = record<ShapeWrite>({
  machineId: idField().allow(null).required().label('Machine'),
  surfaceId: idField().allow(null).required().label('Surface'),
  at: toldTime('Time').required(),
  raw,
});

export interface ShapeFilter {
  machineId?: string;
  surfaceId?: string;
}
export const shapeListSchema = record<ShapeFilter>({
  machineId: idField().label('Machine'),
  surfaceId: idField().label('Surface'),
});
export { takenBackSchema as shapeTakenBackSchema } from './notes';
