import { lightSurvey, surveyLines, type LightLine, type LightSurvey, type LitStretch } from '../level/lightSurvey';

/** Where light shows along one line under a straightedge, as a reading of a job says it. */
export const LIGHT = { none: 0, middle: 1, ends: 2, first: 3, last: 4 } as const;
/** How much, as a reading says it. */
const CLEAR = 2;

const PARTS: Record<number, readonly [from: number, to: number][]> = {
  [LIGHT.none]: [],
  [LIGHT.middle]: [[0.05, 0.95]],
  [LIGHT.ends]: [
    [0, 0.4],
    [0.6, 1],
  ],
  [LIGHT.first]: [[0, 0.5]],
  [LIGHT.last]: [[0.5, 1]],
};

/**
 * The lines of a plate as the readings of a job say them: coarser than a slide of the finger, and joined in the same way.
 * @param readings by "line.where", "line.light" and "line.feeler"
 * @param ids of the lines that are asked
 * @returns null while one is not looked at
 */
export function linesByReadings(
  readings: Readonly<Record<string, number>>,
  ids: readonly string[],
  plate: { width: number; depth: number },
): LightLine[] | null {
  const lines = surveyLines(plate).filter(({ id }) => ids.includes(id));
  if (lines.length < ids.length) return null;
  const read = lines.map((line): LightLine | null => {
    const where = readings[`${line.id}.where`];
    if (where === undefined) return null;
    const light = readings[`${line.id}.light`];
    // How much is asked together with where: what is not said yet is not known.
    if (where !== LIGHT.none && light === undefined) return null;
    const stretches = (PARTS[where] ?? []).map(([from, to]): LitStretch => ({
      from,
      to,
      light: light === CLEAR ? 'clear' : 'faint',
      feeler: readings[`${line.id}.feeler`] ?? null,
    }));
    return { ...line, stretches };
  });
  return read.every((line) => line !== null) ? read : null;
}

/** What the lines of a job say together, or null while one is missing. */
export function surveyByReadings(
  readings: Readonly<Record<string, number>>,
  ids: readonly string[],
  plate: { width: number; depth: number },
): LightSurvey | null {
  const lines = linesByReadings(readings, ids, plate);
  return lines && lightSurvey({ lines });
}
