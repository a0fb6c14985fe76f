import type { ColumnMatch, GuessedMatch, PrintColumn, PrintFailure, PrintRelease, Side } from '@even-bed/core';
import { PLATE_PLACES, type PlatePlace } from '@even-bed/core/wear/platePlaces';
import { FAILURES, RELEASES } from '@even-bed/core/wear/printWords';
import { PRINT_COLUMNS } from '@even-bed/core/wear/readPrintLine';
import Joi from 'joi';
import { idField, record, timeField, toldTime } from '../kit/fields';

/** A print as far as surfaces need it. Surface and side are what lay there when it ended. */
export interface Print {
  id: string;
  machineId: string;
  machineName: string;
  surfaceId: string | null;
  surfaceTag: string | null;
  side: Side | null;
  material: string;
  endedAt: number;
  /** s */
  duration: number | null;
  grams: number | null;
  held: boolean;
  failure: PrintFailure | null;
  release: PrintRelease | null;
  /** Where on the plate it failed, seen from the machine's front. */
  places: PlatePlace[];
  note: string;
  source: 'tap' | 'grid' | 'list' | 'machine';
  personName: string | null;
  withdrawnAt: number | null;
}

export interface PrintFacts {
  machineId: string;
  material: string;
  endedAt: number;
  duration: number | null;
  grams: number | null;
  held: boolean;
  failure: PrintFailure | null;
  release: PrintRelease | null;
  places?: PlatePlace[];
  note: string;
}

const failureKey = Joi.string()
  .valid(...FAILURES, null)
  .label('How it failed');
const releaseKey = Joi.string()
  .valid(...RELEASES, null)
  .label('How it came off');
const placesKey = Joi.array()
  .items(Joi.string().valid(...PLATE_PLACES))
  .unique()
  .label('Where on the plate');

const printKeys = {
  machineId: idField().required().label('Machine'),
  material: Joi.string().trim().max(40).allow('').default('').label('Material'),
  endedAt: toldTime('Ended').required(),
  duration: Joi.number().integer().min(0).max(5e6).allow(null).default(null).label('Duration'),
  grams: Joi.number().min(0).max(1e6).allow(null).default(null).label('Grams'),
  held: Joi.boolean().required().label('Held'),
  failure: failureKey.default(null),
  release: releaseKey.default(null),
  places: placesKey.default([]),
  note: Joi.string().trim().max(200).allow('').default('').label('Note'),
};

const printFacts = record<PrintFacts>(printKeys)
  .custom((value: PrintFacts, helpers) => (value.held && value.failure !== null ? helpers.error('print.both') : value))
  .messages({ 'print.both': 'A print that held has not failed: leave out how it failed, or say that it failed.' });

export const printWriteSchema = printFacts;

/** What is said of a print later on: only what changes is sent, so that two devices don't take each other's words. */
export interface PrintWords {
  failure?: PrintFailure | null;
  release?: PrintRelease | null;
  places?: PlatePlace[];
  note?: string;
  /** When it was said; a device may have had no signal since. */
  at: number;
}
export const printWordsSchema = record<PrintWords>({
  failure: failureKey,
  release: releaseKey,
  places: placesKey,
  note: Joi.string().trim().max(200).allow('').label('Note'),
  at: toldTime('Time').required(),
})
  .or('failure', 'release', 'places', 'note')
  .messages({ 'object.missing': 'Say what is to be added: how it failed, where, how it came off, or a note.' });

export const printsWriteSchema = record<PrintsWrite>({
  prints: Joi.array()
    .items((printFacts as Joi.ObjectSchema).keys({ id: idField().required() }))
    .min(1)
    .max(500)
    .unique('id')
    .required()
    .label('Prints'),
});
export interface PrintsWrite {
  prints: (PrintFacts & { id: string })[];
}

/** Which prints. */
export interface PrintFilter {
  machineId?: string;
  surfaceId?: string;
  held?: boolean;
  search: string;
  from?: number;
  to?: number;
}
export const printListSchema = record<PrintFilter>({
  machineId: idField().label('Machine'),
  surfaceId: idField().label('Surface'),
  held: Joi.boolean().label('Held'),
  search: Joi.string().trim().max(60).allow('').default('').label('Search'),
  from: timeField('From'),
  to: timeField('To'),
});

/** A list of prints that is being read in. */
export interface PrintList {
  id: string;
  name: string;
  /** Heads of its columns. */
  heads: string[];
  /** Its first lines, as they stand there. */
  sample: string[][];
  lines: number;
  /** Lines that still wait: not taken yet, or bad. */
  waiting: number;
  taken: number;
  /** Lines that were in the shop already. */
  known: number;
  /** As it was matched last, or as its heads and dates say. */
  match: GuessedMatch;
  at: number;
}

/** What would become of a part of a list. */
export interface ListPreview {
  /** Of the lines looked at. */
  good: number;
  known: number;
  bad: BadLine[];
  badCount: number;
  /** The first good ones, as they would be written. */
  first: { line: number; machineName: string; endedAt: number; held: boolean; material: string }[];
  /** Names of machines that are not here, with how many lines name them. */
  strangers: { name: string; lines: number }[];
}

export interface BadLine {
  line: number;
  cells: string[];
  faults: Partial<Record<PrintColumn, string>>;
}

/** A part of a list was taken: where the next part begins, or null at the end. */
export interface ListTaken {
  taken: number;
  known: number;
  bad: number;
  next: number | null;
}

const matchField = Joi.object({
  columns: Joi.object(
    Object.fromEntries(PRINT_COLUMNS.map((name) => [name, Joi.number().integer().min(0).max(200).label(name)])),
  )
    .required()
    .label('Columns'),
  dayFirst: Joi.boolean().required().label('Day first'),
  durationUnit: Joi.string().valid('s', 'min', 'h').required().label('Unit of spans'),
  weightUnit: Joi.string().valid('g', 'kg').label('Unit of weights'),
})
  .required()
  .label('Columns');

export interface ListUpload {
  name: string;
}
export const listUploadSchema = record<ListUpload>({
  name: Joi.string().trim().max(120).allow('').default('').label('Name'),
});
export type ListPreviewAsk = Pick<ListTake, 'match'>;
export const listPreviewSchema = record<ListPreviewAsk>({ match: matchField });
export const listTakeSchema = record<ListTake>({
  match: matchField,
  from: Joi.number().integer().min(0).required().label('From'),
});
export interface ListLine {
  cells: string[];
}
export const listLineSchema = record<ListLine>({
  cells: Joi.array().items(Joi.string().max(500).allow('')).max(200).required().label('Cells'),
});
export interface ListTake {
  match: ColumnMatch;
  from: number;
}
