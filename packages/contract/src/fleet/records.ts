import type { Adjuster, Extent, SeenFrom, Side, SmallMap } from '@even-bed/core';
import type { Readiness, ReadinessFacts } from '@even-bed/core/fleet/readiness';
import { MOTOR_THREAD } from '@even-bed/core/level/plainAdjuster';
import { THREADS } from '@even-bed/core/level/threads';
import Joi from 'joi';
import { extentSchema, idField, lengthField, nameField, record, tagField, toldTime } from '../kit/fields';

export type Family = 'filament' | 'resin';

/** How a machine finds Z. */
export type Finding = 'endstop' | 'contact-probe' | 'inductive-probe' | 'by-hand';
export const FINDINGS: readonly Finding[] = ['endstop', 'contact-probe', 'inductive-probe', 'by-hand'];

/** A room or a corner of the shop with machines in it. */
export interface Area {
  id: string;
  name: string;
  position: number;
  version: number;
}

/** An adjuster of a machine. `clockwise` is what a clockwise turn does as the machine's `seenFrom` says. */
export interface MachineAdjuster extends Omit<Adjuster, 'motor'> {
  name: string;
  /** A name of the thread table, "other" with the pitch given by hand, or "motor": then a turn is 1 mm, + up. */
  thread: string;
}

/** The console of a machine: a line protocol over TCP. */
export interface ConsoleAddress {
  host: string;
  port: number;
  /** True for the simulated machines that ship with the shop; they are told which turns were made. */
  simulated: boolean;
  /** The commands that make it print its heights, one a line. */
  scanCommand: string;
  /** °C to which the bed is heated before a scan; 0 leaves it as it is. */
  bedTemperature: number;
}

/** What a person says of a machine. Lengths in mm. Positions are in its print coordinates: x to the right, y to the rear. */
export interface MachineFacts {
  name: string;
  areaId: string;
  shelf: string;
  model: string;
  family: Family;
  /** The real plate, not the advertised print area. */
  plateWidth: number;
  plateDepth: number;
  printWidth: number;
  printDepth: number;
  /** Where the front-left corner of the print area lies on the plate. */
  originX: number;
  originY: number;
  adjusters: MachineAdjuster[];
  seenFrom: SeenFrom;
  compensation: boolean;
  firstLayer: number;
  /** Largest range wanted; null: the default for its first layer. */
  aim: number | null;
  finding: Finding;
  /** What + means in the heights its console prints. */
  plus: 'higher' | 'lower';
  /** Where the outermost readings of its bare height maps lie, once somebody has said so. */
  mapExtent: Extent | null;
  mapFirstRow: 'front' | 'rear' | null;
  console: ConsoleAddress | null;
  /** °C of the hottest bed it prints at; null when not known. */
  hottest: number | null;
  /** Key that the screws of its platform take, mm across; null when not known. */
  platformKey: number | null;
  /** Empty when it is added: the next free one is given. */
  tag: string;
  note: string;
}

/** How the last finished check of a machine ended. */
export interface LastCheck {
  id: string;
  endedAt: number;
  /** Range at its first and last reading, mm. */
  before: number;
  after: number;
  withinAim: boolean;
  aim: number;
  /** Its last heights as a few cells; null where they were not kept. */
  map: SmallMap | null;
}

export interface Machine extends MachineFacts {
  id: string;
  version: number;
  createdAt: number;
  updatedAt: number;
}

/** A machine as lists show it: with its rule, its last check and a check under way. */
export interface MachineOverview extends Machine {
  areaName: string;
  rule: { id: string; everyDays: number; nextDueAt: number; version: number } | null;
  lastCheck: LastCheck | null;
  openCheckId: string | null;
  /** Until when what lies on it is on hold, or a job on it waits; may be past; null: never was. */
  heldUntil: number | null;
  /** What is printed on, and which side of it is up; null: nothing is written down. */
  top: { tag: string; sideUp: Side } | null;
  /** What the records hold of whether it can print: what is against it changes with the hour. */
  stands: ReadinessFacts;
  /** What stands against printing on it at the hour of the answer, the weightiest first. */
  readiness: Readiness;
}

const LARGEST = 2000;
const place = (label: string) => lengthField(label, { min: -500, max: LARGEST }).required();
const size = (label: string) => lengthField(label, { min: 20, max: LARGEST }).required();

export const adjusterSchema = record<MachineAdjuster>({
  id: nameField('The id of the adjuster', 40).required(),
  name: nameField('Name of the adjuster', 40).required(),
  x: place('X of the adjuster'),
  y: place('Y of the adjuster'),
  thread: Joi.string()
    .valid(...THREADS.map(({ name }) => name), 'other', MOTOR_THREAD)
    .required()
    .label('Thread'),
  pitch: lengthField('Pitch', { min: 0.1, max: 5 }).required(),
  clockwise: Joi.string().valid('raises', 'lowers').required().label('What a clockwise turn does'),
});

export const consoleSchema = record<ConsoleAddress>({
  host: nameField('Address of the console', 120)
    .pattern(/^[A-Za-z0-9.:_-]+$/)
    .messages({ 'string.pattern.base': '{#label} must be a name or an address, such as 192.168.1.20.' })
    .required(),
  port: Joi.number().integer().min(1).max(65535).required().label('Port of the console'),
  simulated: Joi.boolean().required().label('Simulated'),
  scanCommand: Joi.string().trim().min(1).max(200).required().label('Scan command'),
  bedTemperature: Joi.number().min(0).max(150).required().label('Bed temperature'),
});

const machineKeys = {
  name: nameField('Name').required(),
  areaId: idField().required().label('Area'),
  shelf: Joi.string().trim().max(40).allow('').required().label('Shelf'),
  model: nameField('Model').required(),
  family: Joi.string().valid('filament', 'resin').required().label('Family'),
  plateWidth: size('Width of the plate'),
  plateDepth: size('Depth of the plate'),
  printWidth: size('Width of the print area'),
  printDepth: size('Depth of the print area'),
  originX: lengthField('Left margin', { min: -200, max: LARGEST }).required(),
  originY: lengthField('Front margin', { min: -200, max: LARGEST }).required(),
  adjusters: Joi.array().items(adjusterSchema).unique('id').max(12).required().label('Adjusters'),
  seenFrom: Joi.string().valid('above', 'below').required().label('Seen from'),
  compensation: Joi.boolean().required().label('Compensation'),
  firstLayer: lengthField('First layer', { min: 0.02, max: 2 }).required(),
  aim: Joi.alternatives(Joi.valid(null), lengthField('Aim', { min: 0.005, max: 5 }))
    .required()
    .label('Aim'),
  finding: Joi.string()
    .valid(...FINDINGS)
    .required()
    .label('What finds Z'),
  plus: Joi.string().valid('higher', 'lower').required().label('What + means'),
  mapExtent: extentSchema.allow(null).required().label('Extent of height maps'),
  mapFirstRow: Joi.string().valid('front', 'rear', null).required().label('First row of height maps'),
  console: consoleSchema.allow(null).required().label('Console'),
  hottest: Joi.number().min(0).max(400).allow(null).default(null).label('Hottest bed'),
  platformKey: lengthField('Key of the platform', { min: 0.5, max: 30 }).allow(null).default(null),
  tag: tagField().allow('').default(''),
  note: Joi.string().trim().max(2000).allow('').required().label('Note'),
};
export const machineFactsSchema = record<MachineFacts>(machineKeys);

/** A machine is made with version 0; an edit names the version it began with. */
export const machineWriteSchema = record<MachineWrite>({
  ...machineKeys,
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type MachineWrite = MachineFacts & { version: number; at: number };

export const areaWriteSchema = record<AreaWrite>({
  name: nameField('Name of the area').required(),
  position: Joi.number().integer().min(0).max(1000).required().label('Position'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type AreaWrite = Pick<Area, 'name' | 'position' | 'version'> & { at: number };
