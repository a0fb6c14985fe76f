import type { HeightPoint } from '@even-bed/core';
import { deviceStore } from '../offline/deviceStore';

/** Heights handed to the tool of strips on this device: what was surveyed need not be kept first. */
export interface HandedHeights {
  map: readonly HeightPoint[];
  noise: number | null;
  plate: { width: number; depth: number } | null;
  from: 'light' | 'map';
}

/** The name under which they wait for it. @param key of whose shape it is */
export const handedName = (key: string) => `strips from ${key}`;

export const handStrips = (key: string, heights: HandedHeights): Promise<void> =>
  deviceStore.set('tool', handedName(key), heights);
