import type { LapRound, ShapeRaw, SurveyLineId } from '@even-bed/core';
import { LAP_PLACES } from '@even-bed/core/level/lapProgress';
import { FEELERS, SURVEY_LINES } from '@even-bed/core/level/lightSurvey';
import seedrandom from 'seedrandom';
import { keepShape } from '../level/shapeStore';
import type { DemoEvent } from './loadDemo';
import { DAY_MS, MACHINES, MODELS } from './saltmarsh';
import type { SeededIds } from './seededIds';

interface Year {
  machineIds: ReadonlyMap<string, string>;
  ids: SeededIds;
  seed: string;
  begin: number;
  now: number;
}

const HOUR_MS = 3_600_000;

/** A year of shapes: the platform that needed lapping, a plate that got strips, first layers held against their maps. */
export function yearOfShapes({ machineIds, ids, seed, begin, now }: Year): DemoEvent[] {
  const events: DemoEvent[] = [];
  const shape = (at: number, of: { machine?: string; surface?: string }, raw: ShapeRaw) => {
    const id = ids.next(at);
    const machineId = of.machine === undefined ? null : machineIds.get(of.machine)!;
    events.push({
      at,
      write: async (db) => {
        const row = of.surface === undefined ? null : await db('surfaces').where({ tag: of.surface }).first('id');
        await keepShape(db, id, { machineId, surfaceId: (row as { id: string } | null)?.id ?? null, at, raw });
      },
    });
  };
  const day = (days: number, hour: number) => begin + days * DAY_MS + hour * HOUR_MS;

  // P-003: hollow by 0.15, lapped in six rounds, flat.
  const platform = { width: 153, depth: 87 };
  shape(day(186, 9.5), { surface: 'P-003' }, { kind: 'light', plate: platform, lines: hollow(0.15), aim: null });
  shape(
    day(195, 12),
    { surface: 'P-003' },
    { kind: 'lap', rounds: lapped(seedrandom(`${seed} lapped`)), school: 'wet', grit: 80 },
  );
  shape(day(196, 9.5), { surface: 'P-003' }, { kind: 'light', plate: platform, lines: hollow(0), aim: null });

  // A plate hollow from front to rear, by light, and the strips that were laid on it.
  const at = now - 24 * DAY_MS;
  const { plate } = MODELS[MACHINES.find(({ name }) => name === 'Plover')!.model];
  const map = [0, 1, 2, 3, 4].flatMap((row) =>
    [0, 1, 2, 3, 4].map((column) => {
      const v = row / 2 - 1;
      const z = Math.round(-150 * (1 - v * v)) / 1000;
      return { x: (plate[0] * column) / 4, y: (plate[1] * row) / 4, z };
    }),
  );
  const middle = plate[1] / 2;
  const strip = (across: number, layer: number) => ({ along: 'x' as const, at: across, from: 0, to: plate[0], layer });
  shape(
    at,
    { machine: 'Plover' },
    { kind: 'light', plate: { width: plate[0], depth: plate[1] }, lines: hollow(0.15, 'depth'), aim: null },
  );
  shape(
    at + 3 * HOUR_MS,
    { machine: 'Plover' },
    {
      kind: 'strips',
      map,
      tape: { thickness: 0.076, width: 50 },
      strips: [strip(middle, 1), strip(middle - 50, 1), strip(middle + 50, 1), strip(middle, 2)],
    },
  );
  return events;
}

/** Lines of a plate that is hollow by so much: all round, or from front to rear alone. */
function hollow(
  depth: number,
  way: 'round' | 'depth' = 'round',
): { id: SurveyLineId; stretches: Extract<ShapeRaw, { kind: 'light' }>['lines'][number]['stretches'] }[] {
  return SURVEY_LINES.slice(0, 6).map(({ id }) => {
    const diagonal = id.startsWith('diagonal');
    const gap = way === 'depth' ? (id.startsWith('across') ? 0 : depth) : diagonal ? depth : depth / 2;
    const feeler = FEELERS.findLast((one) => one <= gap + 1e-9) ?? null;
    return { id, stretches: gap < 0.02 ? [] : [{ from: 0.03, to: 0.97, light: 'clear', feeler }] };
  });
}

/** Rounds that touch more and more, as an eye tells it. */
function lapped(random: () => number): LapRound[] {
  return [30, 48, 62, 75, 90, 100].map((share) => ({
    strokes: 20,
    touched: Object.fromEntries(
      LAP_PLACES.map((place) => {
        // Hollow: the rim is touched first, the middle last.
        const told = share + (place === 'middle' ? -15 : 0) + 10 * (random() - 0.5);
        return [place, share === 100 ? 100 : Math.round(Math.min(95, Math.max(5, told)) / 5) * 5];
      }),
    ) as LapRound['touched'],
  }));
}
