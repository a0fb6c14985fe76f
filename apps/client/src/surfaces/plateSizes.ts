import type { MachineOverview } from '@even-bed/contract';
import { groupFacts, type SurfaceGroup } from '@even-bed/core/surfaces/groups';

export interface PlateSize {
  width: number;
  depth: number;
  /** Machines that carry a plate of this size. */
  names: string[];
}

/**
 * Sizes that a surface of a group may have, from the plates that the shop has, those of most machines first. What
 * belongs to no family goes on either.
 */
export function plateSizes(
  machines: readonly Pick<MachineOverview, 'name' | 'family' | 'plateWidth' | 'plateDepth'>[],
  group: SurfaceGroup | null,
): PlateSize[] {
  const sizes = new Map<string, PlateSize>();
  const only = group && groupFacts(group).family;
  for (const { name, family, plateWidth: width, plateDepth: depth } of machines) {
    if (only && family !== only) continue;
    const key = `${width} ${depth}`;
    const known = sizes.get(key);
    if (known) known.names.push(name);
    else sizes.set(key, { width, depth, names: [name] });
  }
  return [...sizes.values()].sort((p, q) => q.names.length - p.names.length);
}
