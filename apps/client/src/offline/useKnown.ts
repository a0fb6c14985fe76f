import type { MachineOverview, Surface } from '@even-bed/contract';
import { errorOf } from '../api/errorOf';
import { useMachineQuery, useMachinesQuery } from '../fleet/fleetApi';
import { useSurfaceQuery, useSurfacesQuery, useTagQuery } from '../surfaces/surfacesApi';

interface Known<T> {
  data: T | undefined;
  error: unknown;
  refetch: () => unknown;
}

/** Without a signal: what the lists, that this device has kept, say. */
const silent = (error: unknown) => errorOf(error)?.code === 'no-answer';

/** A surface by its id; where the server doesn't answer, as the list has it. */
export function useKnownSurface(id: string): Known<Surface> {
  const { data, error, refetch } = useSurfaceQuery({ id });
  const { data: all } = useSurfacesQuery(undefined, { skip: data !== undefined || !silent(error) });
  return { data: data ?? all?.find((one) => one.id === id), error, refetch };
}

/** A machine by its id; where the server doesn't answer, as the list has it. */
export function useKnownMachine(id: string): Known<MachineOverview> {
  const { data, error, refetch } = useMachineQuery({ id });
  const { data: all } = useMachinesQuery(undefined, { skip: data !== undefined || !silent(error) });
  return { data: data ?? all?.find((one) => one.id === id), error, refetch };
}

/** Whose a tag is; where the server doesn't answer, as the lists have it. */
export function useKnownTag(tag: string): Known<{ kind: 'surface' | 'machine'; id: string }> {
  const { data, error, refetch } = useTagQuery({ tag });
  const skip = data !== undefined || !silent(error);
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
