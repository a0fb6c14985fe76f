import { needNumbers, needWord } from '../needNumbers';
import { compareFirstLayer, type FirstLayerComparison, type LayerPlace } from './compareFirstLayer';
import { flatness } from './flatness';
import { gridOf } from './gridOf';
import { heightsBetween } from './heightsBetween';
import type { HeightPoint } from './HeightPoint';
import { lapProgress, type LapProgress, type LapRound } from './lapProgress';
import { lightSurvey, surveyLines, type LightSurvey, type LitStretch, type SurveyLineId } from './lightSurvey';
import { shimmedRange, type ShimStrip, type ShimTape } from './planShims';

export const SHAPE_KINDS = ['light', 'strips', 'lap', 'layer'] as const;
export type ShapeKind = (typeof SHAPE_KINDS)[number];

/** What was looked at, laid, lapped or measured of a shape, as it is kept. Lengths in mm. */
export type ShapeRaw =
  | {
      kind: 'light';
      plate: { width: number; depth: number };
      lines: { id: SurveyLineId; stretches: LitStretch[] }[];
      aim: number | null;
    }
  /** Strips that were laid, on the heights that they were planned by. */
  | { kind: 'strips'; map: HeightPoint[]; tape: ShimTape; strips: ShimStrip[] }
  /** Grit null: nobody said. */
  | { kind: 'lap'; rounds: LapRound[]; school: LapSchool; grit: number | null }
  | {
      kind: 'layer';
      readings: LayerPlace[];
      map: HeightPoint[];
      nominal: number | null;
      sign: 'higher' | null;
      compensation: 'on' | 'off';
    };

/** dry: straight strokes with lift-back, quarter turns · wet: figure eights */
export const LAP_SCHOOLS = ['dry', 'wet'] as const;
export type LapSchool = (typeof LAP_SCHOOLS)[number];

/** What it came to, in the few facts that are kept and told. */
export type ShapeResult =
  | ({ kind: 'light'; closure: number; name: LightSurvey['shape']['name'] } & Pick<
      LightSurvey,
      'verdict' | 'trust' | 'suspects' | 'flatness' | 'resolution'
    >)
  | { kind: 'strips'; before: number; after: number; strips: number; layers: number }
  | ({ kind: 'lap' } & Pick<LapProgress, 'verdict' | 'touched' | 'rounds' | 'left'>)
  | ({ kind: 'layer'; compensation: 'on' | 'off' } & Pick<
      FirstLayerComparison,
      'verdict' | 'way' | 'slope' | 'over' | 'more'
    >);

/** The lines of a survey where they lie on its plate. */
export function linesOf({ plate, lines }: Pick<Extract<ShapeRaw, { kind: 'light' }>, 'plate' | 'lines'>) {
  const all = surveyLines(plate);
  return lines.map(({ id, stretches }) => {
    const line = all.find((one) => one.id === id);
    if (!line) throw new RangeError(`linesOf knows lines ${all.map((one) => one.id).join(', ')}, got ${String(id)}`);
    return { ...line, stretches };
  });
}

/**
 * What a record of a shape came to, computed anew from what was read.
 * @throws RangeError, DegenerateInput as the sums do
 */
export function shapeResult(raw: ShapeRaw): ShapeResult {
  switch (raw.kind) {
    case 'light': {
      const { aim } = raw;
      const survey = lightSurvey({ lines: linesOf(raw), ...(aim === null ? {} : { aim }) });
      const { verdict, trust, suspects, flatness: zone, resolution, closure, shape } = survey;
      return {
        kind: 'light',
        verdict,
        trust,
        suspects,
        flatness: zone,
        resolution,
        closure: closure.most,
        name: shape.name,
      };
    }
    case 'strips': {
      const { map, tape, strips } = raw;
      needNumbers('shapeResult', { tape, strips });
      return {
        kind: 'strips',
        before: flatness(map).value,
        after: shimmedRange(map, strips, tape),
        strips: strips.length,
        layers: strips.reduce((most, { layer }) => Math.max(most, layer), 0),
      };
    }
    case 'lap': {
      needWord('shapeResult', 'schools', raw.school, LAP_SCHOOLS);
      const { verdict, touched, rounds, left } = lapProgress(raw.rounds);
      return { kind: 'lap', verdict, touched, rounds, left };
    }
    case 'layer': {
      const { verdict, way, slope, over, more } = layerComparison(raw);
      return { kind: 'layer', compensation: raw.compensation, verdict, way, slope, over, more };
    }
  }
}

/** A first layer against the heights of a map, read off between its readings. */
export function layerComparison({
  readings,
  map,
  nominal,
  sign,
}: Pick<Extract<ShapeRaw, { kind: 'layer' }>, 'readings' | 'map' | 'nominal' | 'sign'>): FirstLayerComparison {
  const at = heightsBetween(map, gridOf(map));
  return compareFirstLayer({ readings, map: ({ x, y }) => at(x, y), nominal, sign });
}
