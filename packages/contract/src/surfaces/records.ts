import { FACES } from '@even-bed/core/fit/compatibility';
import { MATERIALS } from '@even-bed/core/fit/materials';
import type {
  Face,
  Life,
  MountAsk,
  OffsetPrediction,
  MountCheck,
  QuarterTurn,
  Side,
  Slot,
  SurfaceCondition,
  SurfaceEvent,
  SurfaceGroup,
  SurfaceState,
} from '@even-bed/core';
import { LABEL_SHEETS } from '@even-bed/core/surfaces/labelSheet';
import { CARE_ITEMS, type CareItem } from '@even-bed/core/surfaces/namedCare';
import { GROUPS } from '@even-bed/core/surfaces/surfaceKind';
import Joi from 'joi';
import { idField, lengthField, nameField, record, tagField, timeField, toldTime } from '../kit/fields';

export type { CareItem };
export type Verdict = 'yes' | 'care' | 'no';
export const VERDICTS: readonly Verdict[] = ['yes', 'care', 'no'];

/** Defaults that surfaces of one kind share. A shop adds its own. Lengths in mm, temperatures in °C. */
export interface SurfaceKindFacts {
  name: string;
  group: SurfaceGroup;
  thickness: number;
  /** Continuous limit; null when not known. */
  limit: number | null;
  /** What its body is made of: an id of the table of materials; null when not known. */
  material: string | null;
  /** Has magnetic pole lines. */
  directional: boolean;
  /** What the face of side A and of side B is, as far as care goes; null when not known. As many as sides. */
  faces: (Face | null)[];
  /** Finish of side A and of side B; one entry when it has one usable side. */
  sides: string[];
  life: Life | null;
  care: Partial<Record<CareItem, Verdict>>;
  note: string;
}

export interface SurfaceKind extends SurfaceKindFacts {
  id: string;
  version: number;
}

/** What a person says of one surface. */
export interface SurfaceFacts {
  /** Empty when it is added: the next free one of its letter is given. */
  tag: string;
  kindId: string;
  width: number;
  depth: number;
  /** As measured; null: its kind's. */
  thickness: number | null;
  boughtAt: number | null;
  /** In the shop's money. */
  price: number | null;
  note: string;
}

/** What a surface has been used for since it was new or renewed. */
export interface SideUse {
  prints: number;
  grams: number;
}

export interface Surface extends SurfaceFacts {
  id: string;
  kind: SurfaceKind;
  state: SurfaceState;
  machineName: string | null;
  use: Record<Side, SideUse>;
  /** Prints of its whole life, and failures since it was renewed. */
  prints: number;
  failures: number;
  renewedAt: number | null;
  version: number;
  createdAt: number;
}

/** A machine's stack, bottom first. */
export interface MachineStack {
  machineId: string;
  layers: MachineLayer[];
  /** Of the plain layers, for changing them. */
  version: number;
}

export interface MachineLayer {
  name: string;
  /** Of the table of materials; a plain layer's is read from its name; null when not known. */
  material: string | null;
  thickness: number;
  measured: boolean;
  limit: number | null;
  fittedAt: number;
  fittedBy: string | null;
  slot: Slot | null;
  /** The surface that this layer is; null for a plain one: a plate, an adhesive, a pad. */
  surfaceId: string | null;
  tag: string | null;
  /** Stays when the top is lifted off. */
  fixed: boolean;
  sideUp: Side | null;
  turned: QuarterTurn | null;
}

/** A plain layer: "under" says which slot it lies below. */
export interface PlainLayer {
  name: string;
  under: 'platform' | 'base' | 'top';
  thickness: number;
  measured: boolean;
  limit: number | null;
}

export interface MountAnswer extends MountCheck {
  surfaceId: string;
  tag: string;
  /** The machine that it is taken off; null when it is in the rack. */
  from: { machineId: string; machineName: string } | null;
  /** The surface that it takes the place of. */
  replaces: { surfaceId: string; tag: string } | null;
  slot: Slot;
}

const limitField = (label: string) => Joi.number().min(20).max(500).allow(null).required().label(label);

export const kindWriteSchema = record<KindWrite>({
  name: nameField('Name').required(),
  group: Joi.string()
    .valid(...GROUPS)
    .required()
    .label('Group'),
  thickness: lengthField('Thickness', { min: 0.01, max: 60 }).required(),
  limit: limitField('Temperature limit'),
  directional: Joi.boolean().required().label('Pole lines'),
  material: Joi.string()
    .valid(...MATERIALS.map(({ id }) => id))
    .allow(null)
    .default(null)
    .label('Material'),
  sides: Joi.array().items(nameField('Finish', 40)).min(1).max(2).required().label('Sides'),
  faces: Joi.array()
    .items(
      Joi.string()
        .valid(...FACES)
        .allow(null),
    )
    .max(2)
    .default([])
    .label('Faces'),
  life: Joi.object({
    unit: Joi.string().valid('prints', 'grams', 'days').required().label('Unit of life'),
    expected: Joi.number().greater(0).max(1e7).required().label('Expected life'),
    spread: Joi.number().min(0).max(1e7).required().label('Spread of life'),
  })
    .allow(null)
    .required()
    .label('Life'),
  care: Joi.object(
    Object.fromEntries(
      CARE_ITEMS.map((item) => [
        item,
        Joi.string()
          .valid(...VERDICTS)
          .label(item),
      ]),
    ),
  )
    .required()
    .label('Care'),
  note: Joi.string().trim().max(1000).allow('').required().label('Note'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type KindWrite = SurfaceKindFacts & { version: number; at: number };

const placeField = () => Joi.string().trim().max(60).allow('').required().label('Place');

export const surfaceWriteSchema = record<SurfaceWrite>({
  tag: tagField().allow('').required(),
  kindId: idField().required().label('Kind'),
  width: lengthField('Width', { min: 20, max: 2000 }).required(),
  depth: lengthField('Depth', { min: 20, max: 2000 }).required(),
  thickness: Joi.alternatives(Joi.valid(null), lengthField('Thickness', { min: 0.01, max: 60 }))
    .required()
    .label('Thickness'),
  boughtAt: timeField('Bought on').allow(null).required(),
  price: Joi.number().min(0).max(1e7).allow(null).required().label('Price'),
  note: Joi.string().trim().max(1000).allow('').required().label('Note'),
  /** Where it lies when it is added. */
  place: placeField(),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type SurfaceWrite = SurfaceFacts & { place: string; version: number; at: number };

const side = () => Joi.string().valid('A', 'B').label('Side');
const turned = () => Joi.number().valid(0, 90, 180, 270).label('Turned');
const reason = (label: string) => Joi.string().trim().min(1).max(200).required().label(label);
type EventOf<Kind extends SurfaceEvent['kind']> = Extract<SurfaceEvent, { kind: Kind }>;
const event = <Kind extends SurfaceEvent['kind']>(kind: Kind, keys: Joi.SchemaMap = {}) =>
  Joi.object<EventOf<Kind>>({ kind: Joi.string().valid(kind).required(), at: toldTime('Time').required(), ...keys });

/** What a technician writes down of one surface. Mounting and retiring have routes of their own. */
export type SurfaceHappening = Exclude<SurfaceEvent, { kind: 'mounted' | 'retired' | 'brought-back' | 'work-undone' }>;
export const surfaceEventSchema = Joi.object<SurfaceHappening>({
  at: toldTime('Time').required(),
  kind: Joi.string()
    .valid('taken-off', 'moved', 'turned', 'held', 'hold-cut', 'work-asked', 'work-done')
    .required()
    .label('What happened'),
})
  .when(Joi.object({ kind: Joi.valid('taken-off', 'moved') }).unknown(), {
    then: Joi.object({ place: placeField() }),
  })
  .when(Joi.object({ kind: 'turned' }).unknown(), {
    then: Joi.object({ sideUp: side().required(), turned: turned().required() }),
  })
  .when(Joi.object({ kind: 'held' }).unknown(), {
    then: Joi.object({
      hold: Joi.string().valid('cure', 'dry', 'cool', 'soak').required().label('Kind of hold'),
      until: timeField('Until').required(),
      reason: Joi.string().trim().max(200).allow('').required().label('Reason'),
    }),
  })
  .when(Joi.object({ kind: 'hold-cut' }).unknown(), { then: Joi.object({ reason: reason('Reason') }) })
  .when(Joi.object({ kind: 'work-asked' }).unknown(), { then: Joi.object({ what: reason('The work') }) })
  .when(Joi.object({ kind: 'work-done' }).unknown(), {
    then: Joi.object({
      work: Joi.string()
        .valid('wiped', 'washed', 'scrubbed', 'renewed', 'repaired', 'other')
        .required()
        .label('The work'),
      side: side().allow(null).required(),
      note: Joi.string().trim().max(500).allow('').required().label('Note'),
    }),
  });

export const retireSchema = event('retired', { why: reason('Why') });
export const bringBackSchema = event('brought-back', { why: reason('Why'), place: placeField() });

export const moveManySchema = record<MoveMany>({
  ids: Joi.array().items(idField()).min(1).max(500).unique().required().label('Surfaces'),
  place: placeField(),
  at: toldTime('Time').required(),
});
export interface MoveMany {
  ids: string[];
  place: string;
  at: number;
}

/** What is asked before a surface is put on a machine. */
export interface MountCheckAsk {
  surfaceId: string;
  sideUp: Side;
  turned: QuarterTurn;
}
export const mountCheckSchema = record<MountCheckAsk>({
  surfaceId: idField().required().label('Surface'),
  sideUp: side().default('A'),
  turned: turned().default(0),
});

export const mountSchema = record<MountWrite>({
  surfaceId: idField().required().label('Surface'),
  sideUp: side().required(),
  turned: turned().required(),
  /** The questions that were answered with yes. */
  answers: Joi.array()
    .items(Joi.string().valid('clean-dry', 'front-mark', 'size', 'heat'))
    .unique()
    .required()
    .label('Answers'),
  /** The machine that it is taken off, as the person was told; null: it is in the rack. */
  from: idField().allow(null).required().label('The machine that it comes from'),
  /** What it takes the place of, and where that goes; null: the place is free. */
  replaces: Joi.object({ surfaceId: idField().required(), place: placeField() })
    .allow(null)
    .required()
    .label('What it takes the place of'),
  at: toldTime('Time').required(),
});
export interface MountWrite {
  surfaceId: string;
  sideUp: Side;
  turned: QuarterTurn;
  answers: MountAsk['code'][];
  from: string | null;
  replaces: { surfaceId: string; place: string } | null;
  at: number;
}

export const stackWriteSchema = record<StackWrite>({
  layers: Joi.array()
    .items(
      Joi.object({
        name: nameField('Name of the layer', 40).required(),
        under: Joi.string().valid('platform', 'base', 'top').required().label('Lies under'),
        thickness: lengthField('Thickness', { min: 0, max: 100 }).required(),
        measured: Joi.boolean().required().label('Measured'),
        limit: limitField('Temperature limit'),
      }),
    )
    .max(10)
    .required()
    .label('Layers'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export interface StackWrite {
  layers: PlainLayer[];
  version: number;
  at: number;
}

export const SURFACE_STATES = ['in-use', 'in-rack', 'on-hold', 'awaiting-work', 'retired'] as const;

/** Which surfaces. */
export interface SurfaceFilter {
  search: string;
  group?: SurfaceGroup;
  kindId?: string;
  machineId?: string;
  place?: string;
  state?: SurfaceCondition;
  /** A machine that they may go on by kind and size; what is retired or lies there already is left out. */
  fits?: string;
}
export const surfaceListSchema = record<SurfaceFilter>({
  search: Joi.string().trim().max(100).allow('').default('').label('Search'),
  group: Joi.string()
    .valid(...GROUPS)
    .label('Group'),
  kindId: idField().label('Kind'),
  machineId: idField().label('Machine'),
  place: Joi.string().trim().max(60).label('Place'),
  state: Joi.string()
    .valid(...SURFACE_STATES)
    .label('State'),
  fits: idField().label('Fits'),
});

/** Labels to print: of these tags, on this sheet, from these cells of the first one on. */
export const labelsSchema = record<LabelsQuery>({
  sheet: Joi.string()
    .valid(...LABEL_SHEETS.map(({ id }) => id))
    .required()
    .label('Sheet'),
  /** Tags with commas between. */
  tags: Joi.string()
    .pattern(/^[A-Za-z0-9-]+(,[A-Za-z0-9-]+)*$/)
    .max(20_000)
    .required()
    .messages({ 'string.pattern.base': '{#label} must be tags with commas between, such as S-014,S-015.' })
    .label('Tags'),
  /** Cells of the first sheet, from 0, with commas between; left out: all. */
  cells: Joi.string()
    .pattern(/^\d{1,3}(,\d{1,3})*$/)
    .max(1000)
    .label('Cells'),
});
export interface LabelsQuery {
  sheet: string;
  tags: string;
  cells?: string;
}

/** Whose a tag is. */
export interface TagHolder {
  kind: 'surface' | 'machine';
  id: string;
}

/** A Z offset that worked. */
export interface KeptOffset {
  id: string;
  machineId: string;
  machineName: string;
  surfaceId: string;
  surfaceTag: string;
  /** mm */
  offset: number;
  weight: number;
  at: number;
  note: string;
  personName: string | null;
}

export const offsetWriteSchema = record<OffsetWrite>({
  machineId: idField().required().label('Machine'),
  surfaceId: idField().required().label('Surface'),
  offset: lengthField('Z offset', { min: -20, max: 20 }).required(),
  weight: Joi.number().greater(0).max(100).default(1).label('Weight'),
  note: Joi.string().trim().max(200).allow('').default('').label('Note'),
  at: toldTime('Time').required(),
});
export interface OffsetWrite {
  machineId: string;
  surfaceId: string;
  offset: number;
  weight: number;
  note: string;
  at: number;
}

export interface OffsetFilter {
  machineId?: string;
  surfaceId?: string;
}
export const offsetListSchema = record<OffsetFilter>({
  machineId: idField().label('Machine'),
  surfaceId: idField().label('Surface'),
});
export interface OffsetQuestion {
  machineId: string;
  surfaceId: string;
}
export const offsetQuestionSchema = record<OffsetQuestion>({
  machineId: idField().required().label('Machine'),
  surfaceId: idField().required().label('Surface'),
});
/** What the offsets known say of a pair; null when they don't link the two. */
export interface OffsetAnswer {
  prediction: OffsetPrediction | null;
  /** Offsets that were left out as odd, named for people; off by so many mm. */
  odd: { machineName: string; tag: string; off: number }[];
}
