import Joi from 'joi';
import { idField, timeField } from './fields';

export const BOOK_KINDS = [
  'area-added',
  'area-changed',
  'machine-added',
  'machine-changed',
  'rule-set',
  'check-started',
  'heights-read',
  'turns-made',
  'check-finished',
  'check-dropped',
] as const;
export type BookKind = (typeof BOOK_KINDS)[number];

/** One line of the logbook. Entries are never changed; a correction is a new entry that names the old one. */
export interface BookEntry {
  id: string;
  /** Running number; the order of the book. */
  seq: number;
  at: number;
  kind: BookKind;
  machineId: string | null;
  machineName: string | null;
  checkId: string | null;
  /** A sentence for people. */
  text: string;
  /** What changed, as data. */
  data: Record<string, unknown>;
  corrects: string | null;
}

export const bookListSchema = Joi.object({
  search: Joi.string().trim().max(200).allow('').default('').label('Search'),
  machineId: idField().label('Machine'),
  kind: Joi.string()
    .valid(...BOOK_KINDS)
    .label('Kind'),
  before: Joi.number().integer().min(1).label('Before'),
  from: timeField('From'),
  to: timeField('To'),
  limit: Joi.number().integer().min(1).max(200).default(50).label('Limit'),
});
