import { BOOK_KINDS, type BookEvent, type BookKind } from './events';
import Joi from 'joi';
import { idField, record, timeField, toldTime } from '../kit/fields';

/**
 * One line of the logbook: what happened, kind and payload, with when, where and by whom. Entries are never changed; a
 * correction is a new entry that names the old one.
 */
export type BookEntry = BookLine & BookEvent;

export interface BookLine {
  id: string;
  /** Running number; the order of the book. */
  seq: number;
  /** When it happened, as told: by a device that may have been without a signal, or by a person. */
  at: number;
  /** When the server wrote the line, by its own clock; null for lines from before that was kept. */
  writtenAt: number | null;
  machineId: string | null;
  machineName: string | null;
  checkId: string | null;
  surfaceId: string | null;
  surfaceTag: string | null;
  /** Who did it; null: a machine, or nobody was signed in yet. */
  personId: string | null;
  personName: string | null;
  /** A sentence for people, made when it is read: in the shop’s units and with present names. */
  text: string;
  /** The entry that this one corrects, and the one that corrects this. */
  corrects: string | null;
  correctedBy: string | null;
  /** Hash of the entry before and of this one. */
  beforeHash: string;
  hash: string;
}

/** Which lines of the book. */
export interface BookFilter {
  search: string;
  machineId?: string;
  surfaceId?: string;
  personId?: string;
  kind?: BookKind;
  from?: number;
  to?: number;
}
export const bookListSchema = record<BookFilter>({
  search: Joi.string().trim().max(200).allow('').default('').label('Search'),
  machineId: idField().label('Machine'),
  surfaceId: idField().label('Surface'),
  personId: idField().label('Person'),
  kind: Joi.string()
    .valid(...BOOK_KINDS)
    .label('Kind'),
  from: timeField('From'),
  to: timeField('To'),
});

export const correctionSchema = record<CorrectionWrite>({
  corrects: idField().required().label('The entry to correct'),
  text: Joi.string().trim().min(1).max(500).required().label('What is right'),
  at: toldTime('Time').required(),
});
export interface CorrectionWrite {
  corrects: string;
  text: string;
  at: number;
}

/** What checking the chain of the book has found. */
export interface BookCheck {
  entries: number;
  sound: boolean;
  /** Running number of the first line that doesn't follow from the one before, and why. */
  fault: { seq: number; reason: string } | null;
  /** Hash of the last line: written down elsewhere, it also shows lines missing at the end. */
  lastHash: string;
}

/** Where following the book begins: after this line; left out: with what happens from now on. */
export interface FollowAsk {
  after?: number;
}
export const followSchema = record<FollowAsk>({
  after: Joi.number().integer().min(0).label('After'),
});

/** A line of the book as it is told to whoever follows. */
export type BookHappening = Pick<
  BookEntry,
  'id' | 'seq' | 'at' | 'kind' | 'machineId' | 'checkId' | 'surfaceId' | 'personId'
>;
