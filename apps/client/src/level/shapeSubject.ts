import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import type { MachineOverview, Surface } from '@even-bed/contract';
import type { ShapeRaw } from '@even-bed/core';
import type { Href } from 'expo-router';
import { useLocalSearchParams } from 'expo-router';
import { v7 as uuid } from 'uuid';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppSelector } from '../state/store';
import { useSurfaceQuery } from '../surfaces/surfacesApi';
import type { Crumb } from '../ui/Page';
import { rightNow } from '../ui/useNow';

/** Whose shape a tool looks at: a machine's bed, a surface, or nobody's. */
export interface ShapeSubject {
  machineId: string | null;
  surfaceId: string | null;
  machine: MachineOverview | null;
  surface: Surface | null;
  machines: readonly MachineOverview[];
  ready: boolean;
  /** The page that it has, and the way back to it. */
  home: Href | null;
  crumbs: Crumb[];
  /** To name it in the address of another tool. */
  query: string;
  /** By which what is typed for it is kept on this device. */
  key: string;
}

/** As the address names it. */
export function useNamedSubject(): Pick<ShapeSubject, 'machineId' | 'surfaceId' | 'key'> {
  const { machine, surface } = useLocalSearchParams<{ machine?: string; surface?: string }>();
  return { machineId: machine ?? null, surfaceId: surface ?? null, key: machine ?? surface ?? '' };
}

/** What the shop knows of it. */
export function useShapeSubject({ machineId, surfaceId }: Pick<ShapeSubject, 'machineId' | 'surfaceId'>): ShapeSubject {
  const { data: machines = [], isLoading } = useMachinesQuery();
  const { data: found } = useSurfaceQuery({ id: surfaceId ?? '' }, { skip: surfaceId === null });
  const machine = machines.find(({ id }) => id === machineId) ?? null;
  const surface = machineId === null ? (found ?? null) : null;
  const home =
    machineId !== null ? (`/floor/${machineId}` as const) : surfaceId !== null ? (`/rack/${surfaceId}` as const) : null;
  const name = machine?.name ?? surface?.tag ?? null;
  return {
    machineId,
    surfaceId,
    machine,
    surface,
    machines,
    ready: !isLoading,
    home,
    crumbs: home && name ? [{ label: name, href: home }] : [{ label: 'Tools', href: '/tools' }],
    query: machineId !== null ? `?machine=${machineId}` : surfaceId !== null ? `?surface=${surfaceId}` : '',
    key: machineId ?? surfaceId ?? '',
  };
}

/** Keeps a record of its shape; null: it is nobody's, or who is here only looks. */
export function useKeepShape({
  machineId,
  surfaceId,
  home,
}: Pick<ShapeSubject, 'machineId' | 'surfaceId' | 'home'>): ((raw: ShapeRaw, what: string) => void) | null {
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  if (!mayDo || home === null) return null;
  return (raw, what) => {
    const id = uuid();
    later(shapeOperations.keepShape, {
      params: { id },
      body: { machineId, surfaceId, at: rightNow(), raw },
      key: id,
      what,
      at: home as string,
    });
  };
}
