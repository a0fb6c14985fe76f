import { compatibility, SOLVENTS, type CompatAnswer, type CompatQuestion, type Face } from '../fit/compatibility';
import { findingFrom, metalOf, type MachineFinding } from '../fit/findingZ';
import type { FitLayer, ZFinding } from '../fit/stackChange';
import { toolAnswer, type ToolAnswers } from '../fit/toolAnswer';
import { underbedOf, type ToolId, type ToolInputs } from '../fit/toolInputs';
import { underbedClearance } from '../fit/underbedClearance';
import { PIECE_LOOKS, readTestPlate, TEST_PLACES, type PieceLook, type TestPlateRead } from '../level/testPlate';
import { tugAnswer } from '../level/tugs';
import type { SurfaceGroup } from '../surfaces/groups';
import { applies } from './checkProcedure';
import { surveyByReadings } from './lightCodes';
import { lapProgress, type LapProgress } from '../level/lapProgress';
import { lapRoundIn, lapRoundsOf } from './lapRounds';
import type { LightSurvey } from '../level/lightSurvey';
import type { KnownReading, ProcedureStep, StepSumId } from './procedure';
import type { RunSetup, RunState } from './runProcedure';
import { stackAfter, type FoundLayer } from './stackAfter';

/** What the shop's records know of a named part. Lengths in mm. */
export interface PartFacts {
  tag: string;
  name: string;
  group: SurfaceGroup;
  /** Taken with calipers; null: only the label says it. */
  measured: number | null;
  material: string | null;
  limit: number | null;
  width: number | null;
  depth: number | null;
  face: Face | null;
  /** The shop's own answers to what may touch it. */
  care: Partial<Record<string, CompatAnswer>>;
}

/** What the shop's records know for the sums and readings of a job. Lengths in mm, temperatures in °C. */
export interface JobFacts {
  family: 'filament' | 'resin';
  finding: MachineFinding;
  plate: { width: number; depth: number };
  print: { x: number; y: number; width: number; depth: number };
  /** Thread of its adjusters, and their pitch; null: none, or they differ. */
  thread: string | null;
  pitch: number | null;
  /** How it finds Z, from its latest plan of a stack. */
  z: Pick<ToolInputs['stack'], 'finding' | 'moves' | 'home' | 'adjusters' | 'spacerLayer' | 'slack'> | null;
  /** From its latest plan of what is under the bed. */
  underbed: ToolInputs['underbed'] | null;
  /** Its heater and room, from its latest plan of a soak; null: none was made, a common one is taken. */
  heater: Pick<ToolInputs['soak'], 'flux' | 'ambient' | 'loss' | 'within'> | null;
  /** As it was when the job began, bottom first. */
  stack: readonly FoundLayer[];
  /** As it is now, bottom first. */
  current: readonly FoundLayer[];
  parts: Readonly<Record<string, PartFacts | undefined>>;
  /** How the level check ended that was finished last since the job began; null: none was. */
  level: { range: number; within: boolean } | null;
  /** A resin platform was proven level corner by corner, and zero set after it still holds. */
  proven: boolean;
  /** Key of the platform's screws, mm; null: not known. */
  platformKey: number | null;
}

/** The tools whose sums belong into jobs. */
export type JobTool = Exclude<ToolId, 'gap' | 'compare'>;

/** A tool's sum as a job asks it: what the tool is asked, or what has to be measured or told first. */
export type JobAsk =
  { [T in JobTool]: { tool: T; input: ToolInputs[T] } }[JobTool] | { tool: JobTool; input: null; missing: JobSumGap };

/** The same with what the tool answers. */
export type JobSum =
  | { [T in JobTool]: { tool: T; input: ToolInputs[T]; answer: ToolAnswers[T] } }[JobTool]
  | { tool: JobTool; input: null; missing: JobSumGap };

/**
 * Why a sum can't be worked out: not read yet · what the top is made of, for a probe that senses metal · the machine's
 * page and its plan say different things of how it finds Z · the part isn't named, or what it is isn't known.
 */
export type JobSumGap = 'reading' | 'top-material' | 'finding-differs' | 'part' | 'size' | 'face';

/** Sums that no tool of numbers does: they are worked out from the readings of the card. */
const NO_TOOL: ReadonlySet<string> = new Set<StepSumId>(['level', 'light', 'tugs', 'pieces', 'skirt', 'strips', 'lap']);

/** °C of a bed that is warmed for levelling. Common practice. */
const WARM = 60;
/** A common heater in a common room: W/m², °C, W/m²·K, °C. Common practice. */
const COMMON_HEATER = { flux: 4000, ambient: 22, loss: 12, within: 2 };
/** A pad that most switches take, mm; the tool makes other shapes. Our own figures. */
const COMMON_PAD = { shape: 'pad', width: 12, depth: 12, hole: 0 } as const;

/**
 * What the sum of a step is asked, filled in from the records and from what was read so far, as the tool would be asked it.
 * @returns null: the step has no sum of a tool
 */
export function jobAsk(setup: RunSetup, state: RunState, step: ProcedureStep, facts: JobFacts): JobAsk | null {
  const { sum } = step;
  if (sum === undefined || NO_TOOL.has(sum)) return null;
  const input = INPUTS[sum as JobTool]({ setup, state, step, facts });
  return typeof input === 'string'
    ? { tool: sum as JobTool, input: null, missing: input }
    : ({ tool: sum, input } as JobAsk);
}

/**
 * The sum of a step with its answer: the tool's own.
 * @throws RangeError as the tool's sum does
 */
export function jobSum(setup: RunSetup, state: RunState, step: ProcedureStep, facts: JobFacts): JobSum | null {
  const ask = jobAsk(setup, state, step, facts);
  if (ask === null || ask.input === null) return ask;
  return { ...ask, answer: toolAnswer(ask.tool, ask.input as never) } as JobSum;
}

interface Ask {
  setup: RunSetup;
  state: RunState;
  step: ProcedureStep;
  facts: JobFacts;
}

const taken = ({ state, step }: Ask, name: string): number | undefined => state.readings[step.takes?.[name] ?? ''];

const INPUTS: { [T in JobTool]: (ask: Ask) => ToolInputs[T] | JobSumGap } = {
  stack: ({ setup, state, step, facts }) => stackAsk(setup, state, step, facts),
  underbed: (ask) => {
    const { facts } = ask;
    const [stands, spring] = [taken(ask, 'stands'), taken(ask, 'spring')];
    if (stands === undefined || spring === undefined) return 'reading';
    return {
      parts: [{ name: 'what stands there', height: stands + (taken(ask, 'foam') ?? 0) }],
      springCompressed: spring,
      washers: facts.underbed?.washers ?? 0,
      screw: facts.underbed?.screw ?? facts.thread ?? 'M3',
      pitch: facts.underbed?.pitch ?? facts.pitch,
      // One turn back from fully compressed is how far it is let down in use. Common practice.
      backOff: 1,
      travel: facts.underbed?.travel ?? null,
    };
  },
  top: (ask) => {
    const screw = taken(ask, 'hole') !== undefined;
    // A head that is sunk stands proud, by however much: its cone is the same.
    const height = taken(ask, 'height') ?? (screw ? 1 : undefined);
    if (height === undefined) return 'reading';
    return {
      items: [
        {
          name: screw ? 'screw head' : 'what stands proud',
          kind: screw ? 'screw' : 'clip',
          height,
          beside: taken(ask, 'beside') === 1,
          ...(screw ? { thread: `M${taken(ask, 'thread') ?? 3}`, hole: taken(ask, 'hole')! } : {}),
        },
      ],
      base: taken(ask, 'base') ?? 0,
      sheet: taken(ask, 'sheet') ?? 0,
      plate: taken(ask, 'plate') ?? null,
      passes: [],
      travel: 0,
    };
  },
  size: (ask) => {
    const part = partOf(ask);
    const width = taken(ask, 'width') ?? part?.width ?? null;
    const depth = taken(ask, 'depth') ?? part?.depth ?? null;
    if (width === null || depth === null) return 'size';
    return {
      plate: {
        width: taken(ask, 'plateWidth') ?? ask.facts.plate.width,
        depth: taken(ask, 'plateDepth') ?? ask.facts.plate.depth,
      },
      print: ask.facts.print,
      piece: { width, depth },
      notches: [],
      keepOuts: [],
      pad: null,
    };
  },
  blanks: (ask) => {
    const [sheetWidth, sheetDepth, width, depth] = ['sheetWidth', 'sheetDepth', 'width', 'depth'].map((name) =>
      taken(ask, name),
    );
    if (sheetWidth === undefined || sheetDepth === undefined || width === undefined || depth === undefined)
      return 'reading';
    const kerf = taken(ask, 'kerf');
    // What is left for truing is sawn with the piece, on each of its sides.
    const truing = 2 * (taken(ask, 'allowance') ?? 0);
    return {
      sheet: { width: sheetWidth, depth: sheetDepth },
      pieces: [{ name: '', width: width + truing, depth: depth + truing, count: null, corners: 0 }],
      kerf: kerf ?? 0,
      trim: 0,
      method: kerf === undefined ? 'snap' : 'saw',
      mayRotate: true,
      sheets: 1,
      price: null,
    };
  },
  soak: (ask) => {
    const { step, facts } = ask;
    const layers = facts.current.flatMap(({ material, thickness, slot }) =>
      material !== null && thickness > 0 && slot !== 'film' ? [{ material, thickness, dry: slot === 'top' }] : [],
    );
    if (layers.length === 0) return 'part';
    return { ...(facts.heater ?? COMMON_HEATER), layers, setpoint: taken(ask, 'setpoint') ?? step.setpoint ?? WARM };
  },
  together: (ask) => {
    const part = partOf(ask);
    if (!part) return 'part';
    return part.face === null ? 'face' : { face: part.face, limit: part.limit, ...usesOf(ask) };
  },
  spacer: ({ setup, state, step, facts }) => {
    // What stands in for parts while it is rehearsed is as thick as they are together.
    if (step.takes) {
      const parts = Object.values(step.takes).map((reading) => state.readings[reading]);
      if (parts.some((thickness) => thickness === undefined)) return 'reading';
      const thickness = parts.reduce<number>((sum, one) => sum + one!, 0);
      return { ...COMMON_PAD, thickness, layer: facts.z?.spacerLayer ?? 0.2 };
    }
    const steps = setup.procedure.steps.filter(({ sum }) => sum === 'stack');
    const asked = steps.find((one) => applies(one, { choices: setup.choices, answers: state.answers }));
    const stack = asked && stackAsk(setup, state, asked, facts);
    if (stack === undefined || typeof stack === 'string') return 'reading';
    const spacer = toolAnswer('stack', stack).result.steps.find((move) => move.do === 'spacer');
    if (!spacer) return 'reading';
    return { ...COMMON_PAD, thickness: spacer.printed, layer: stack.spacerLayer };
  },
};

const partOf = ({ setup, step, facts }: Ask): PartFacts | undefined =>
  facts.parts[step.about ?? setup.procedure.parts[0]?.id ?? ''];

/** What the stack's tool is asked by a step: from what lay there when the job began and from what was measured in it. */
export function stackAsk(
  { choices }: Pick<RunSetup, 'choices'>,
  { readings }: Pick<RunState, 'readings'>,
  { layers = [] }: ProcedureStep,
  facts: JobFacts,
): ToolInputs['stack'] | JobSumGap {
  const before = facts.stack.filter(({ slot }) => slot !== 'film');
  const after = stackAfter(before, layers, { readings, choices, parts: facts.parts });
  if (after === null) return 'reading';
  const own = findingFrom(facts.finding, facts.family);
  const probes = own === 'contact-probe' || own === 'inductive-probe';
  const planned = facts.z?.finding.by;
  if (
    planned !== undefined &&
    planned !== own &&
    (probes || planned === 'contact-probe' || planned === 'inductive-probe')
  )
    return 'finding-differs';
  if (own === 'inductive-probe' && after.some(({ slot, material }) => slot === 'top' && material === null))
    return 'top-material';
  return {
    before: before.map(fitLayer),
    after: after.map(fitLayer),
    finding: facts.z?.finding ?? plainFinding(own),
    family: facts.family,
    moves: facts.z?.moves ?? null,
    home: facts.z?.home ?? null,
    adjusters: facts.z?.adjusters ?? null,
    spacerLayer: facts.z?.spacerLayer ?? 0.2,
    buildHeight: null,
    slack: facts.z?.slack ?? null,
  };
}

/** A way of finding Z of which no more is known than the machine's page says: what is missing is asked for. */
function plainFinding(by: ZFinding['by']): ZFinding {
  if (by === 'contact-probe' || by === 'inductive-probe' || by === 'spacer') return { by };
  return { by: 'fixed' };
}

const fitLayer = ({ name, thickness, measured, limit, material }: FoundLayer): FitLayer => ({
  name,
  thickness,
  measured,
  limit,
  metal: metalOf(material),
});

/** What a sum says in a word, where a question of the step can go by it; null: nothing that an answer hangs on. */
export function sumVerdict(sum: JobSum | null): string | null {
  if (sum === null || sum.input === null) return null;
  switch (sum.tool) {
    case 'stack':
      return sum.answer.result.verdict;
    case 'underbed':
      return sum.answer.clear ? 'clear' : sum.answer.pile ? 'washers' : 'move';
    case 'top':
      return sum.answer.items.length === 0 ? 'clear' : 'proud';
    case 'size':
      return sum.answer.verdict;
    default:
      return null;
  }
}

/** What lines of light say together, from the readings that the step takes; null while one is missing. */
export const lightOf = (
  { readings }: Pick<RunState, 'readings'>,
  { takes = {} }: Pick<ProcedureStep, 'takes'>,
  { plate }: Pick<JobFacts, 'plate'>,
): LightSurvey | null => surveyByReadings(readings, Object.keys(takes), plate);

/** What the rounds say with the one that is looked at now; null while a part of it is not said. */
export function lapOf(state: RunState, step: ProcedureStep): LapProgress | null {
  const now = lapRoundIn(state.readings, step.id);
  return now && lapProgress([...lapRoundsOf(state, step.id), now]);
}

/** What sheets say that were pulled from under a platform, by the school that the job goes by. */
export const tugsOf = ({ choices }: Pick<RunSetup, 'choices'>, { readings }: RunState, { takes = {} }: ProcedureStep) =>
  tugAnswer(
    Object.values(takes).map((reading) => readings[reading]),
    choices.drag === 'still' ? 'still' : 'firm',
  );

/** Where thin pieces over a platform failed, and what that says; null while one is not looked at. */
export function piecesOf(
  { readings }: RunState,
  { takes = {} }: ProcedureStep,
  { proven }: Pick<JobFacts, 'proven'>,
): TestPlateRead | null {
  const looks = Object.values(takes).map((reading) => PIECE_LOOKS[readings[reading] ?? -1]);
  if (looks.length !== TEST_PLACES || looks.some((look) => look === undefined)) return null;
  return readTestPlate(looks as PieceLook[], proven);
}

/** The answer of a step's question where its sum gives it, or null: somebody has to be asked. */
export function answerBySum(setup: RunSetup, state: RunState, step: ProcedureStep, facts: JobFacts): string | null {
  if (!step.ask?.answers.some(({ when }) => when !== undefined)) return null;
  const verdict = verdictOf(setup, state, step, facts);
  return step.ask.answers.find(({ when }) => when !== undefined && when === verdict)?.id ?? null;
}

/** What the sum of a step says in a word, or null. */
export function verdictOf(setup: RunSetup, state: RunState, step: ProcedureStep, facts: JobFacts): string | null {
  if (step.sum === 'light') return lightOf(state, step, facts)?.verdict ?? null;
  if (step.sum === 'strips') return null;
  if (step.sum === 'lap') {
    const verdict = lapOf(state, step)?.verdict;
    return verdict === undefined
      ? null
      : verdict === 'first' || verdict === 'go-on' || verdict === 'nearly'
        ? 'on'
        : verdict;
  }
  if (step.sum === 'tugs') return tugsOf(setup, state, step);
  if (step.sum === 'pieces') return piecesOf(state, step, facts)?.verdict ?? null;
  if (step.sum === 'level') return facts.level && (facts.level.within ? 'within' : 'over');
  return sumVerdict(jobSum(setup, state, step, facts));
}

/** A reading as the records hold it, or null. */
export function knownReading(known: KnownReading, setup: RunSetup, state: RunState, facts: JobFacts): number | null {
  switch (known.of) {
    case 'thickness':
      return facts.parts[known.part]?.measured ?? null;
    case 'plate':
      return facts.plate[known.side];
    case 'spring':
      return facts.underbed?.springCompressed ?? null;
    case 'pile':
      return pileOf(setup, state, facts);
    case 'key':
      return facts.platformKey;
    case 'lowest-layer':
      return facts.stack[0]?.measured ? facts.stack[0].thickness : null;
  }
}

/** What touches the part of a step, by the names of the table; not said: what is reached for first. */
export function usesOf({ setup, step: { uses } }: Pick<Ask, 'setup' | 'step'>) {
  const { choice, ...things } = uses ?? { solvent: 'alcohol' as const };
  const chosen = choice === undefined ? undefined : setup.choices[choice];
  const solvent = SOLVENTS.find((one) => one === chosen);
  return { ...things, ...(solvent ? { solvent } : {}) };
}

/** Thickness of the washers that the sum under the bed asks for, on top of those that lie there. */
function pileOf(setup: RunSetup, state: RunState, facts: JobFacts): number | null {
  const step = setup.procedure.steps.find(({ sum }) => sum === 'underbed');
  const sum = step && jobSum(setup, state, step, facts);
  if (sum?.tool !== 'underbed' || sum.input === null) return null;
  return underbedClearance(underbedOf(sum.input)).pile?.thickness ?? null;
}

/** What touches a part in a step, then what else is reached for while cleaning and preparing, and whether its face stands it. */
export const reachedFor = (part: PartFacts, { setup, step }: Pick<Ask, 'setup' | 'step'>) =>
  part.face === null
    ? []
    : [...thingsOf(usesOf({ setup, step })), ...TRIED]
        .filter((asked, i, all) => all.findIndex((one) => JSON.stringify(one) === JSON.stringify(asked)) === i)
        .map((asked) => ({
          asked,
          ...compatibility({ face: part.face!, limit: part.limit, ...asked }, part.care),
        }));

const thingsOf = (uses: ReturnType<typeof usesOf>): Partial<CompatQuestion>[] =>
  Object.entries(uses).map(([kind, thing]) => ({ [kind]: thing }));

const TRIED: Partial<CompatQuestion>[] = [
  { solvent: 'alcohol' },
  { solvent: 'acetone' },
  { abrasive: 'scrub-pad' },
  { abrasive: 'fine-grit' },
];
