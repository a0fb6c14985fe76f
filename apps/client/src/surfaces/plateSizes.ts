import type { MachineOverview } from '@even-bed/contract';
import type { SurfaceGroup } from '@even-bed/core';

export interface PlateSize {
  width: number;
  depth: number;
  /** Machines that carry a plate of this size. */
  names: string[];
}

const RESIN: readonly SurfaceGroup[] = ['platform', 'flex-plate', 'film'];
const FILAMENT: readonly SurfaceGroup[] = ['sheet', 'glass', 'laminate', 'cover'];

/**
 * Sizes that a surface of a group may have, from the plates that the shop has, those of most machines first. A base goes
 * on either family.
 */
export function plateSizes(
  machines: readonly Pick<MachineOverview, 'name' | 'family' | 'plateWidth' | 'plateDepth'>[],
  group: SurfaceGroup | null,
): PlateSize[] {
  const sizes = new Map<string, PlateSize>();
  for (const { name, family, plateWidth: width, plateDepth: depth } of machines) {
    if (group && (family === 'resin' ? FILAMENT : RESIN).includes(group)) continue;
    const key = `${width} ${depth}`;
    const known = sizes.get(key);
    if (known) known.names.push(name);
    else sizes.set(key, { width, depth, names: [name] });
  }
  return [...sizes.values()].sort((p, q) => q.names.length - p.names.length);
}
