import Joi from 'joi';
import { idField, record, toldTime } from '../kit/fields';

/** What was seen when something was looked at: a card, its code, its numbers. */
export interface Inspection {
  id: string;
  surfaceId: string | null;
  machineId: string | null;
  card: string;
  code: string;
  numbers: Record<string, number>;
  note: string;
  at: number;
  personName: string | null;
  photoIds: string[];
}

export interface InspectionWrite {
  surfaceId: string | null;
  machineId: string | null;
  card: string;
  code: string;
  numbers: Record<string, number>;
  note: string;
  at: number;
}

export const inspectionWriteSchema = record<InspectionWrite>({
  surfaceId: idField().allow(null).required().label('Surface'),
  machineId: idField().allow(null).required().label('Machine'),
  card: Joi.string().max(40).required().label('Inspection'),
  code: Joi.string().max(40).required().label('What was seen'),
  numbers: Joi.object().pattern(Joi.string().max(40), Joi.number()).max(20).required().label('Numbers'),
  note: Joi.string().trim().max(500).allow('').required().label('Note'),
  at: toldTime('Time').required(),
})
  .custom((value: InspectionWrite, helpers) =>
    value.surfaceId === null && value.machineId === null ? helpers.error('inspection.of') : value,
  )
  .messages({ 'inspection.of': 'Say what was looked at: a surface or a machine.' });

/** Of what: a surface, a machine, or all. */
export interface Subject {
  surfaceId?: string | undefined;
  machineId?: string | undefined;
}
/** Which photos: of a surface, of a machine, of a print, or all. */
export interface PhotoFilter extends Subject {
  printId?: string | undefined;
}
export const photoListSchema = record<PhotoFilter>({
  surfaceId: idField().label('Surface'),
  machineId: idField().label('Machine'),
  printId: idField().label('Print'),
});
export const subjectQuerySchema = record<Subject>({
  surfaceId: idField().label('Surface'),
  machineId: idField().label('Machine'),
});

export interface Photo {
  id: string;
  surfaceId: string | null;
  machineId: string | null;
  inspectionId: string | null;
  printId: string | null;
  at: number;
  note: string;
  width: number;
  height: number;
  personName: string | null;
}

export const photoUploadSchema = record<PhotoUpload>({
  surfaceId: idField().label('Surface'),
  machineId: idField().label('Machine'),
  inspectionId: idField().label('Inspection'),
  printId: idField().label('Print'),
  at: toldTime('Time').required(),
  note: Joi.string().trim().max(200).allow('').default('').label('Note'),
});
export interface PhotoUpload {
  surfaceId?: string;
  machineId?: string;
  inspectionId?: string;
  /** Of this print: machine and surface are then known. */
  printId?: string;
  at: number;
  note: string;
}

export interface PhotoFileAsk {
  size: 'small' | 'full';
}
export const photoFileSchema = record<PhotoFileAsk>({
  size: Joi.string().valid('small', 'full').default('full').label('Size'),
});
