import { contourBed } from '@even-bed/core/level/contourBed';
import { compareMaps } from '@even-bed/core/level/compareMaps';
import { DegenerateInput, UnreadableHeights } from '@even-bed/core/level/errors';
import { stlOf } from '@even-bed/core/fit/solidFile';
import {
  firstLayerPrint,
  padSolid,
  type FirstLayerPrint,
  type FirstLayerPrintAsk,
} from '@even-bed/core/level/firstLayerPrint';
import { flatness, loneReading, type Flatness, type LoneReading } from '@even-bed/core/level/flatness';
import { gridOf } from '@even-bed/core/level/gridOf';
import type { HeightPoint } from '@even-bed/core/level/HeightPoint';
import { lightSurvey, type LightSurvey } from '@even-bed/core/level/lightSurvey';
import { parseHeights } from '@even-bed/core/level/parseHeights';
import type { ParsedHeights, ParseOptions, QuestionCode } from '@even-bed/core/level/heightReading';
import { planShims, raised, type PlanShimsAsk, type ShimPlan } from '@even-bed/core/level/planShims';
import { describeShape, type BedShape } from '@even-bed/core/level/describeShape';
import { shapeCures, type ShapeCure, type ShapeCuresAsk } from '@even-bed/core/level/shapeCures';
import { layerComparison, linesOf, type ShapeRaw } from '@even-bed/core/level/shapeRecord';
import { splitShape, type ShapeSplit } from '@even-bed/core/level/splitShape';
import type { BedContours } from '@even-bed/core/level/contourBed';
import type { FirstLayerComparison } from '@even-bed/core/level/compareFirstLayer';
import type { MapComparison } from '@even-bed/core/level/compareMaps';
import { thinMap } from '@even-bed/core/level/thinMap';
import { expose } from 'comlink';
import type { Answered } from './sums.worker';

/** Sums off the page's thread. What they refuse comes back in their own words. */
function answer<R>(work: () => R): Answered<R> {
  try {
    return { ok: true, result: work() };
  } catch (error) {
    if (error instanceof RangeError || (error as { code?: unknown }).code !== undefined)
      return { ok: false, message: (error as Error).message };
    throw error;
  }
}

/** Contours of heights with the tilt of their least zone taken out: what screws leave. */
function levelled(points: readonly HeightPoint[]): { points: HeightPoint[]; contours: BedContours } {
  const { plane } = flatness(points);
  const rest = points.map((point) => ({ ...point, z: point.z - plane.a * point.x - plane.b * point.y - plane.c }));
  return { points: rest, contours: contourBed({ points: rest, grid: gridOf(rest), finest: 0.01 }) };
}

/** What is pasted goes back and forth between page and worker: so many readings are enough of any bed. */
const MOST_PASTED = 2_500;

export interface ShapeLook {
  flatness: Flatness;
  lone: LoneReading | null;
  shape: BedShape;
  drawn: { points: HeightPoint[]; contours: BedContours };
}

/** Heights that were pasted, as they were understood. */
export interface PastedRead {
  parsed: Omit<ParsedHeights, 'points' | 'grid'>;
  points: HeightPoint[];
  /** For the question that is asked first: what each answer would make of it. */
  ways: PastedWay[] | null;
}
interface PastedWay {
  code: QuestionCode;
  option: string;
  points: HeightPoint[];
  contours: BedContours | null;
  flatness: number | null;
}

function wayOf(text: string, reading: ParseOptions, code: QuestionCode, option: string): PastedWay {
  const answers = { ...reading.answers, [code]: option };
  try {
    const { points } = parseHeights(text, { ...reading, answers });
    return { code, option, ...levelled(points), flatness: flatness(points).value };
  } catch (error) {
    if (!(error instanceof UnreadableHeights || error instanceof DegenerateInput)) throw error;
    return { code, option, points: [], contours: null, flatness: null };
  }
}

const shapes = {
  light: (input: Pick<Extract<ShapeRaw, { kind: 'light' }>, 'plate' | 'lines' | 'aim'>): Answered<LightSurvey> =>
    answer(() => lightSurvey({ lines: linesOf(input), ...(input.aim === null ? {} : { aim: input.aim }) })),
  look: ({ map, noise }: { map: readonly HeightPoint[]; noise?: number | undefined }): Answered<ShapeLook> =>
    answer(() => {
      const found = flatness(map);
      return {
        flatness: found,
        lone: loneReading(map, found),
        shape: describeShape(map, { noise }),
        drawn: levelled(map),
      };
    }),
  cures: (input: ShapeCuresAsk): Answered<ShapeCure[]> => answer(() => shapeCures(input).cures),
  shims: (input: PlanShimsAsk): Answered<{ plan: ShimPlan; before: ShapeLook['drawn']; after: ShapeLook['drawn'] }> =>
    answer(() => {
      const plan = planShims(input);
      return { plan, before: levelled(input.map), after: levelled(raised(input.map, plan.strips, input.tape)) };
    }),
  maps: (
    input: Parameters<typeof compareMaps>[0],
  ): Answered<{
    change: MapComparison;
    before: ShapeLook['drawn'];
    after: ShapeLook['drawn'];
    difference: BedContours | null;
  }> =>
    answer(() => {
      const change = compareMaps(input);
      const rest = change.points.map((point, i) => ({ ...point, z: change.shapeChange[i] ?? point.z }));
      return {
        change,
        before: levelled(input.before),
        after: levelled(input.after),
        difference:
          rest.length >= 6 && change.verdict !== 'apart'
            ? contourBed({ points: rest, grid: gridOf(rest), finest: 0.01 })
            : null,
      };
    }),
  split: (input: Parameters<typeof splitShape>[0]): Answered<ShapeSplit> => answer(() => splitShape(input)),
  layer: (input: Parameters<typeof layerComparison>[0]): Answered<FirstLayerComparison> =>
    answer(() => layerComparison(input)),
  print: (input: FirstLayerPrintAsk): Answered<FirstLayerPrint> => answer(() => firstLayerPrint(input)),
  solid: (input: Parameters<typeof padSolid>[0]): Answered<Uint8Array> => answer(() => stlOf(padSolid(input))),
  read: ({ text, reading }: { text: string; reading: ParseOptions }): Answered<PastedRead> =>
    answer(() => {
      const { points, grid: _, ...parsed } = parseHeights(text, reading);
      const open = parsed.needs.length > 0 ? undefined : parsed.questions.find(({ taken }) => taken === null);
      const ways = open?.options.map((option) => wayOf(text, reading, open.code, option));
      return { parsed, points: thinMap(points, MOST_PASTED), ways: ways ?? null };
    }),
};

export type ShapesWorker = typeof shapes;
expose(shapes);
