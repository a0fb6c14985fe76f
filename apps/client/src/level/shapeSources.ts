import type { BedMap, MachineMaps, ShapeRecord } from '@even-bed/contract';
import type { HeightPoint } from '@even-bed/core';
import { lightSurvey } from '@even-bed/core/level/lightSurvey';
import { linesOf } from '@even-bed/core/level/shapeRecord';
import { useMemo } from 'react';
import { skipToken } from '@reduxjs/toolkit/query';
import { clockTime, shortDate } from '../ui/formatTime';
import { useMapsQuery, useShapesQuery } from './shapeApi';

/** Heights that a shape can be looked at by: a map of a machine, or a survey by light. */
export interface ShapeSource {
  id: string;
  label: string;
  at: number;
  points: HeightPoint[];
  /** Standard deviation of one reading, mm, where it is known. */
  noise: number | null;
  map: BedMap | null;
  record: ShapeRecord | null;
}

/** What is known of the shape of a machine's bed or of a surface, the latest first. */
export function useShapeSources(
  { machineId, surfaceId }: { machineId: string | null; surfaceId: string | null },
  now: number,
): { sources: ShapeSource[]; ready: boolean } {
  const maps = useMapsQuery(machineId === null ? skipToken : { id: machineId });
  const records = useShapesQuery(machineId !== null ? { machineId } : surfaceId !== null ? { surfaceId } : skipToken);
  const sources = useMemo(
    () => [...ofMaps(maps.data, now), ...ofRecords(records.data ?? [], now)].sort((p, q) => q.at - p.at),
    [maps.data, records.data, now],
  );
  return { sources, ready: !maps.isLoading && !records.isLoading };
}

const ofMaps = (data: MachineMaps | undefined, now: number): ShapeSource[] =>
  (data?.items ?? []).map((map) => ({
    id: map.id,
    label: `Map, ${shortDate(map.at, now)} ${clockTime(map.at)}${map.sheet ? `, ${map.sheet.tag} on it` : ''}`,
    at: map.at,
    points: map.points,
    noise: data!.noise,
    map,
    record: null,
  }));

const ofRecords = (records: readonly ShapeRecord[], now: number): ShapeSource[] =>
  records.flatMap((record): ShapeSource[] => {
    if (record.raw.kind !== 'light') return [];
    const { points, resolution } = lightSurvey({ lines: linesOf(record.raw) });
    return [
      {
        id: record.id,
        label: `Light, ${shortDate(record.at, now)}`,
        at: record.at,
        points,
        noise: resolution / Math.sqrt(12),
        map: null,
        record,
      },
    ];
  });
