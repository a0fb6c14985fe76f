import type { Surface } from '@even-bed/contract';
import { isSilent, type Known } from '../api/known';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useSurfaceQuery, useSurfacesQuery, useTagQuery } from './surfacesApi';

/** A surface by its id; where the server doesn't answer, as the list has it. */
export function useKnownSurface(id: string): Known<Surface> {
  const { data, error, refetch } = useSurfaceQuery({ id });
  const { data: all } = useSurfacesQuery(undefined, { skip: data !== undefined || !isSilent(error) });
  return { data: data ?? all?.find((one) => one.id === id), error, refetch };
}

/** Whose a tag is; where the server doesn't answer, as the lists have it. */
export function useKnownTag(tag: string): Known<{ kind: 'surface' | 'machine'; id: string }> {
  const { data, error, refetch } = useTagQuery({ tag });
  const skip = data !== undefined || !isSilent(error);
  const { data: surfaces } = useSurfacesQuery(undefined, { skip });
  const { data: machines } = useMachinesQuery(undefined, { skip });
  const named = (one: { tag: string }) => one.tag.toUpperCase() === tag.trim().toUpperCase();
  const surface = surfaces?.find(named);
  const machine = machines?.find(named);
  const found = surface
    ? { kind: 'surface' as const, id: surface.id }
    : machine
      ? { kind: 'machine' as const, id: machine.id }
      : undefined;
  return { data: data ?? found, error, refetch };
}
