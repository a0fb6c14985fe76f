import type { LitStretch, SurveyLineId } from '@even-bed/core';
import { SURVEY_LINES, surveyLines } from '@even-bed/core/level/lightSurvey';
import type { DrawnLine } from '../ui/LightPlan';

/** A survey by light as it is held on the device. */
export interface LightBench {
  machineId: string | null;
  surfaceId: string | null;
  width: string;
  depth: string;
  /** By line; not there: not looked along yet. */
  seen: Partial<Record<SurveyLineId, LitStretch[]>>;
  /** The line meant; null: all are done. */
  at: SurveyLineId | null;
  /** With the two through the middle. */
  eight: boolean;
}

export const FIRST_SIX = SURVEY_LINES.slice(0, 6).map(({ id }) => id);
export const ALL_EIGHT = SURVEY_LINES.map(({ id }) => id);

export const linesAsked = ({ eight }: Pick<LightBench, 'eight'>): readonly SurveyLineId[] =>
  eight ? ALL_EIGHT : FIRST_SIX;

/** The next line that nobody looked along, or null. */
export const nextLine = (bench: LightBench): SurveyLineId | null =>
  linesAsked(bench).find((id) => bench.seen[id] === undefined) ?? null;

/** The same survey with some lines to be looked along again. */
export function withoutLines(bench: LightBench, again: readonly string[]): LightBench {
  const seen = Object.fromEntries(Object.entries(bench.seen).filter(([id]) => !again.includes(id)));
  return { ...bench, seen, at: nextLine({ ...bench, seen }) };
}

/** A stretch added to a line: what it covers of others gives way. */
export function withStretch(stretches: readonly LitStretch[], added: LitStretch): LitStretch[] {
  const left = stretches.flatMap((one): LitStretch[] => {
    if (one.to <= added.from || one.from >= added.to) return [one];
    return [
      ...(one.from < added.from - 0.04 ? [{ ...one, to: added.from }] : []),
      ...(one.to > added.to + 0.04 ? [{ ...one, from: added.to }] : []),
    ];
  });
  return [...left, added].sort((p, q) => p.from - q.from);
}

export function drawnLines(
  plate: { width: number; depth: number },
  bench: Pick<LightBench, 'seen' | 'eight'>,
  doubted: readonly string[] = [],
): DrawnLine[] {
  const asked = linesAsked(bench);
  return surveyLines(plate)
    .filter(({ id }) => asked.includes(id as SurveyLineId))
    .map((line) => {
      const stretches = bench.seen[line.id as SurveyLineId];
      return {
        ...line,
        seen: stretches !== undefined,
        doubted: doubted.includes(line.id),
        lit: (stretches ?? []).map(({ from, to, light, feeler }) => ({
          from,
          to,
          strong: feeler !== null || light === 'clear',
        })),
      };
    });
}
