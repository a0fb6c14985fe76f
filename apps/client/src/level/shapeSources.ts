import type { MachineMaps, ShapeRecord } from '@even-bed/contract';
import type { HeightPoint } from '@even-bed/core';
import { lightSurvey, surveyNoise } from '@even-bed/core/level/lightSurvey';
import { linesOf } from '@even-bed/core/level/shapeRecord';
import { useMemo } from 'react';
import { skipToken } from '@reduxjs/toolkit/query';
import { clockTime, shortDate } from '../ui/formatTime';
import { useMapsQuery, useShapesQuery } from './shapeApi';

/** Heights that a shape can be looked at by: a map of a machine, or a survey by light. */
export interface ShapeSource {
  id: string;
  label: string;
  points: HeightPoint[];
  /** Standard deviation of one reading, mm, where it is known. */
  noise: number | null;
  by: 'map' | 'light' | 'pasted';
}

/** One that can be chosen; its heights are worked out when it is. */
export interface ShapeOption extends Pick<ShapeSource, 'id' | 'label' | 'by'> {
  at: number;
  source: () => ShapeSource;
}

/** What is known of the shape of a machine's bed or of a surface, the latest first. */
export function useShapeOptions(
  { machineId, surfaceId }: { machineId: string | null; surfaceId: string | null },
  now: number,
): { options: ShapeOption[]; ready: boolean } {
  const maps = useMapsQuery(machineId === null ? skipToken : { id: machineId });
  const records = useShapesQuery(machineId !== null ? { machineId } : surfaceId !== null ? { surfaceId } : skipToken);
  const options = useMemo(
    () => [...ofMaps(maps.data, now), ...ofRecords(records.data ?? [], now)].sort((p, q) => q.at - p.at),
    [maps.data, records.data, now],
  );
  return { options, ready: !maps.isLoading && !records.isLoading };
}

/** The one that is chosen, or the first; null: there is none. */
export function useChosen(options: readonly ShapeOption[], id: string | null): ShapeSource | null {
  const option = options.find((one) => one.id === id) ?? options[0] ?? null;
  return useMemo(() => option?.source() ?? null, [option]);
}

const ofMaps = (data: MachineMaps | undefined, now: number): ShapeOption[] =>
  (data?.items ?? []).map(({ id, at, points, sheet }) => {
    const label = `Map, ${shortDate(at, now)} ${clockTime(at)}${sheet ? `, ${sheet.tag} on it` : ''}`;
    return { id, label, by: 'map', at, source: () => ({ id, label, by: 'map', points, noise: data!.noise }) };
  });

const ofRecords = (records: readonly ShapeRecord[], now: number): ShapeOption[] =>
  records.flatMap(({ id, at, raw }): ShapeOption[] => {
    if (raw.kind !== 'light') return [];
    const label = `Light, ${shortDate(at, now)}`;
    const source = (): ShapeSource => {
      const { points, resolution } = lightSurvey({ lines: linesOf(raw) });
      return { id, label, by: 'light', points, noise: surveyNoise(resolution) };
    };
    return [{ id, label, by: 'light', at, source }];
  });
