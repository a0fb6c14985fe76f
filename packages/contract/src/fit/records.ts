import type { ToolId, ToolInputs } from '@even-bed/core';
import { ABRASIVES, FACES, GLUES, PRINTED, SOLVENTS, TOOLS as HAND_TOOLS } from '@even-bed/core/fit/compatibility';
import { COUNTERSUNK_HEADS } from '@even-bed/core/fit/countersink';
import { MATERIALS } from '@even-bed/core/fit/materials';
import { METALS } from '@even-bed/core/fit/inductiveProbe';
import { TOOLS } from '@even-bed/core/fit/toolInputs';
import { WASHERS } from '@even-bed/core/fit/washers';
import { COMPARE_READS, HELD, type CompareReads } from '@even-bed/core/level/compareMethods';
import { RESIN_WAYS } from '@even-bed/core/level/gapBudget';
import Joi from 'joi';
import { idField, lengthField, nameField, numberField, record, toldTime } from '../kit/fields';

/** A sum that was kept for a machine: what was asked. What it says is computed anew. */
export interface Plan<T extends ToolId = ToolId> {
  id: string;
  machineId: string;
  tool: T;
  title: string;
  input: ToolInputs[T];
  /** What the tool answered when it was kept. */
  sentence: string;
  at: number;
  personName: string | null;
}

export interface PlanWrite<T extends ToolId = ToolId> {
  machineId: string;
  tool: T;
  title: string;
  input: ToolInputs[T];
  at: number;
}

/** May be left empty: then it is not known. */
const optional = (field: Joi.Schema) => field.empty('').allow(null).default(null);
const thickness = (label: string) => lengthField(label, { min: 0, max: 200 });
const size = (label: string) => lengthField(label, { min: 0.1, max: 5000 });
const place = (label: string) => lengthField(label, { min: -1000, max: 5000 });
const oneOf = (values: readonly string[], label: string) =>
  Joi.string()
    .valid(...values)
    .label(label);

const fitLayer = Joi.object({
  name: nameField('Layer', 80).required(),
  thickness: thickness('Thickness').required(),
  measured: Joi.boolean().label('Measured'),
  limit: optional(numberField('Temperature limit', { min: 20, max: 500 })),
  metal: optional(oneOf(METALS, 'For the probe')),
  mass: optional(numberField('Mass', { min: 0, max: 100_000 })),
});

/** A field that belongs to some choices only: needed with them, unknown with the others. */
const onlyWith = (field: Joi.Schema, key: string, choices: readonly string[]) =>
  field.when(key, { is: Joi.valid(...choices), then: Joi.required(), otherwise: Joi.forbidden() });

/** A field that belongs to some choices only, where it may be left empty. */
const optionalWith = (field: Joi.Schema, key: string, choices: readonly string[]) =>
  field.when(key, { is: Joi.valid(...choices), then: Joi.any().empty('').allow(null), otherwise: Joi.forbidden() });

const finding = Joi.object({
  by: oneOf(['spacer', 'stop-screw', 'flag', 'fixed', 'contact-probe', 'inductive-probe'], 'What finds Z').required(),
  pitch: onlyWith(lengthField('Pitch of the stop screw', { min: 0.1, max: 5 }), 'by', ['stop-screw']),
  clockwise: onlyWith(oneOf(['sooner', 'later'], 'What clockwise does'), 'by', ['stop-screw']),
  part: onlyWith(oneOf(['flag', 'sensor'], 'What can be moved'), 'by', ['flag']),
  rides: onlyWith(oneOf(['moving', 'frame'], 'Where it sits'), 'by', ['flag']),
  now: optionalWith(thickness('Spacer there today'), 'by', ['spacer']),
  range: optionalWith(lengthField('Sensing distance', { min: 0.1, max: 50 }), 'by', ['inductive-probe']),
  above: optionalWith(lengthField('Face above the nozzle', { min: 0, max: 50 }), 'by', ['inductive-probe']),
});

const stack = Joi.object({
  before: Joi.array().items(fitLayer).max(20).required().label('Layers now'),
  after: Joi.array().items(fitLayer).min(1).max(20).required().label('Layers planned'),
  finding: finding.required().label('What finds Z'),
  family: oneOf(['filament', 'resin'], 'Family').required(),
  moves: optional(oneOf(['head', 'bed', 'platform'], 'What moves')),
  home: optional(oneOf(['surface', 'away'], 'Where home lies')),
  adjusters: Joi.object({
    up: thickness('What the adjusters can still raise').required(),
    down: thickness('What the adjusters can still lower').required(),
    pitch: lengthField('Pitch of the adjusters', { min: 0.1, max: 5 }),
    clockwise: oneOf(['raises', 'lowers'], 'What clockwise does'),
  })
    .empty('')
    .allow(null)
    .default(null)
    .label('Adjusters'),
  spacerLayer: optional(lengthField('Layer height of the spacer', { min: 0.02, max: 1 })),
  buildHeight: optional(size('Build height')),
  slack: optional(thickness('Gap at home')),
});

const underbed = Joi.object({
  parts: Joi.array()
    .items(Joi.object({ name: nameField('Part', 60).required(), height: thickness('Height').required() }))
    .max(20)
    .required()
    .label('Parts'),
  springCompressed: thickness('Spring, fully compressed').required(),
  washers: thickness('Washers there').required(),
  screw: oneOf(
    WASHERS.map(({ thread }) => thread),
    'Screw',
  ).required(),
  pitch: optional(lengthField('Pitch', { min: 0.1, max: 5 })),
  backOff: numberField('Turns back', { min: 0, max: 100 }).required(),
  travel: optional(thickness('Travel')),
});

const top = Joi.object({
  items: Joi.array()
    .items(
      Joi.object({
        name: nameField('What stands there', 60).required(),
        kind: oneOf(['clip', 'screw', 'tab'], 'Kind').required(),
        height: thickness('Height above the plate').required(),
        beside: Joi.boolean().required().label('Beside the base'),
        thread: oneOf(
          COUNTERSUNK_HEADS.map(({ thread }) => thread),
          'Thread',
        ),
        hole: lengthField('Hole', { min: 1, max: 20 }),
      }),
    )
    .min(1)
    .max(30)
    .required()
    .label('What stands there'),
  base: thickness('Base').required(),
  sheet: thickness('Sheet').required(),
  plate: optional(thickness('Plate')),
  passes: Joi.array()
    .items(
      Joi.object({
        name: nameField('What passes', 60).required(),
        above: thickness('Above the nozzle tip').required(),
      }),
    )
    .max(10)
    .required()
    .label('What passes over'),
  travel: thickness('Height of travel').required(),
});

const rect = {
  x: place('X').required(),
  y: place('Y').required(),
  width: size('Width').required(),
  depth: size('Depth').required(),
};
const sizeCheck = Joi.object({
  plate: Joi.object({
    width: size('Width of the plate').required(),
    depth: size('Depth of the plate').required(),
  }).required(),
  print: Joi.object(rect).required(),
  piece: Joi.object({
    width: size('Width of the piece').required(),
    depth: size('Depth of the piece').required(),
    x: place('Left edge of the piece'),
    y: place('Front edge of the piece'),
  }).required(),
  notches: Joi.array().items(Joi.object(rect)).max(20).required().label('Notches'),
  keepOuts: Joi.array()
    .items(Joi.object({ ...rect, name: nameField('What must stay free', 60).required() }))
    .max(20)
    .required()
    .label('What must stay free'),
  pad: Joi.object({ width: size('Width of the pad').required(), depth: size('Depth of the pad').required() })
    .empty('')
    .allow(null)
    .default(null)
    .label('Pad'),
});

const blanks = Joi.object({
  sheet: Joi.object({
    width: size('Width of the sheet').required(),
    depth: size('Depth of the sheet').required(),
  }).required(),
  pieces: Joi.array()
    .items(
      Joi.object({
        name: Joi.string().trim().max(40).allow('').default('').label('Name'),
        width: size('Width of the piece').required(),
        depth: size('Depth of the piece').required(),
        count: optional(numberField('How many', { min: 1, max: 500, whole: true })),
        corners: thickness('Corners').required(),
      }),
    )
    .min(1)
    .max(20)
    .required()
    .label('Pieces'),
  kerf: lengthField('Kerf', { min: 0, max: 20 }).required(),
  trim: lengthField('Trim', { min: 0, max: 200 }).required(),
  method: oneOf(['saw', 'snap'], 'Method').required(),
  mayRotate: Joi.boolean().required().label('May turn'),
  sheets: numberField('Sheets', { min: 1, max: 1000, whole: true }).required(),
  price: optional(numberField('Price of a sheet', { min: 0, max: 1e6 })),
});

const soak = Joi.object({
  layers: Joi.array()
    .items(
      Joi.object({
        material: oneOf(
          MATERIALS.map(({ id }) => id),
          'Material',
        ).required(),
        thickness: lengthField('Thickness', { min: 0.01, max: 100 }).required(),
        dry: Joi.boolean().required().label('Lies dry'),
      }),
    )
    .min(1)
    .max(10)
    .required()
    .label('Layers'),
  flux: numberField('Heater', { min: 50, max: 100_000 }).required(),
  setpoint: numberField('Set temperature', { min: 0, max: 400 }).required(),
  ambient: numberField('Air', { min: -20, max: 100 }).required(),
  loss: numberField('Loss', { min: 0, max: 500 }).required(),
  within: numberField('Within', { min: 0.1, max: 50 }).required(),
});

const together = Joi.object({
  face: oneOf(FACES, 'Face').required(),
  limit: optional(numberField('Temperature limit', { min: 20, max: 500 })),
  printed: oneOf(PRINTED, 'Printed'),
  solvent: oneOf(SOLVENTS, 'Solvent'),
  abrasive: oneOf(ABRASIVES, 'Abrasive'),
  glue: oneOf(GLUES, 'Glue'),
  tool: oneOf(HAND_TOOLS, 'Tool'),
  heat: numberField('Bed', { min: -20, max: 400 }),
});

const spacer = Joi.object({
  shape: oneOf(['pad', 'slide-in', 'clip-over', 'gauge'], 'Shape').required(),
  thickness: lengthField('Thickness', { min: 0.02, max: 100 }).required(),
  layer: optional(lengthField('Layer height', { min: 0.02, max: 1 })),
  depth: size('Depth').required(),
  width: onlyWith(size('Width'), 'shape', ['pad', 'slide-in']),
  hole: onlyWith(lengthField('Hole', { min: 0, max: 100 }), 'shape', ['pad']),
  screw: onlyWith(size('Screw'), 'shape', ['slide-in']),
  play: onlyWith(lengthField('Play', { min: 0, max: 5 }), 'shape', ['slide-in', 'clip-over']),
  bodyWidth: onlyWith(size('Width of the switch'), 'shape', ['clip-over']),
  cheek: onlyWith(size('Height of the cheeks'), 'shape', ['clip-over']),
  wall: onlyWith(size('Wall'), 'shape', ['clip-over']),
  step: onlyWith(size('Length of a step'), 'shape', ['gauge']),
});

const gap = Joi.object({
  way: oneOf(RESIN_WAYS, 'Levelled').required(),
  ten: optional(lengthField('Ten sheets together', { min: 0.3, max: 10 })),
  film: lengthField('Film', { min: 0.02, max: 2 }).required(),
  filmMeasured: Joi.boolean().required().label('Film measured'),
  raise: lengthField('Raised before zero', { min: 0, max: 1 }).required(),
  firstLayer: lengthField('First layer', { min: 0.005, max: 1 }).required(),
  flat: Joi.array()
    .items(Joi.object({ height: lengthField('Height, flat', { min: 0.01, max: 500 }).required() }))
    .max(40)
    .default([])
    .label('Printed flat'),
  control: Joi.array()
    .items(Joi.object({ height: lengthField('Height, on supports', { min: 0.01, max: 500 }).required() }))
    .max(40)
    .default([])
    .label('Printed on supports'),
});

/** What is asked by what a comparison reads of each way; of what is not read nothing is kept. */
const byReads = (label: string, by: Partial<Record<CompareReads, Joi.Schema>>) =>
  Joi.any()
    .when('reads', {
      switch: COMPARE_READS.map((reads) => ({
        is: reads,
        then:
          by[reads] ??
          Joi.any()
            .custom(() => [])
            .default([]),
      })),
    })
    .label(label);
const rows = (label: string, row: Joi.PartialSchemaMap) =>
  Joi.array().items(Joi.object(row)).max(200).default([]).label(label);
const readings = (label: string) =>
  byReads(label, {
    length: rows(label, { reading: lengthField('Reading', { min: -1000, max: 1000 }).required() }),
    time: rows(label, { reading: numberField('Minutes', { min: 0, max: 100_000 }).required() }),
  });
const counts = (label: string) =>
  byReads(label, {
    held: rows(label, {
      of: numberField('Tries', { min: 1, max: 1000, whole: true }).required(),
      held: numberField('Held', { min: 0, max: 1000, whole: true })
        .custom((held: number, helpers) => {
          const { of } = helpers.state.ancestors[0] as { of: unknown };
          return held > Number(of) ? helpers.error('count.most', { of }) : held;
        })
        .messages({ 'count.most': 'More held than were tried: {#of}.' })
        .required(),
    }),
  });
const compare = Joi.object({
  first: nameField('The first', 40).required(),
  second: nameField('The second', 40).required(),
  about: optional(oneOf(HELD, 'What it is about')),
  differs: Joi.array().items(oneOf(HELD, 'Not the same')).unique().max(HELD.length).default([]).label('Not the same'),
  reads: oneOf(COMPARE_READS, 'What is read').default('length'),
  a: readings('Readings of the first'),
  b: readings('Readings of the second'),
  heldA: counts('Counts of the first'),
  heldB: counts('Counts of the second'),
  each: numberField('Readings of each until a look', { min: 2, max: 1000, whole: true }).required(),
  looks: numberField('Looks at most', { min: 1, max: 5, whole: true }).required(),
  matters: byReads('A difference that matters', {
    length: lengthField('A difference that matters', { min: 0.0001, max: 100 }).required(),
    time: numberField('A difference that matters', { min: 0.01, max: 10_000 }).required(),
    held: numberField('A difference that matters', { min: 1, max: 99 }).required(),
  }),
});

/** What each tool may be asked. Lengths as numbers in mm or as people type them. */
export const TOOL_SCHEMAS: Record<ToolId, Joi.Schema> = {
  stack,
  underbed,
  top,
  size: sizeCheck,
  blanks,
  soak,
  together,
  spacer,
  gap,
  compare,
};

const machineAndTool = {
  machineId: idField().required().label('Machine'),
  title: nameField('Title', 80).required(),
  at: toldTime('Time').required(),
};

/** A plan of whichever tool. */
export type AnyPlanWrite = PlanWrite;
export const planWriteSchema = record<AnyPlanWrite>({
  ...machineAndTool,
  tool: oneOf(TOOLS, 'Tool').required(),
  input: Joi.object()
    .when('tool', {
      switch: TOOLS.map((tool) => ({ is: tool, then: TOOL_SCHEMAS[tool] })),
    })
    .required()
    .label('What was asked'),
});

export interface PlanFilter {
  machineId?: string;
}
export const planListSchema = record<PlanFilter>({
  machineId: idField().label('Machine'),
});

/** Paper that a layout of blanks is printed on: one page as large as the sheet, or pages laid edge to edge. */
export const PAPERS = ['whole', 'a4', 'letter'] as const;
export type Paper = (typeof PAPERS)[number];
export interface BlanksPdfAsk {
  input: ToolInputs['blanks'];
  paper: Paper;
}
export const blanksPdfSchema = record<BlanksPdfAsk>({
  input: blanks.required().label('What was asked'),
  paper: oneOf(PAPERS, 'Paper').required(),
});

export interface WithdrawPlan {
  at: number;
}
export const withdrawPlanSchema = record<WithdrawPlan>({ at: toldTime('Time').required() });
