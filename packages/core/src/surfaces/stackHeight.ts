/** One layer of a machine's stack, bottom first in lists. */
export interface StackLayer {
  name: string;
  /** mm */
  thickness: number;
  measured: boolean;
  /** °C it stands for hours; null when not known. */
  limit: number | null;
}

/**
 * Height of a stack and the layer that sets its temperature.
 * @returns height in mm; `limit` null when no layer has one; `measured` true when every thickness was measured
 * @example stackHeight([{ name: 'plate', thickness: 3, measured: true, limit: null }]).height // 3
 */
export function stackHeight(layers: readonly StackLayer[]): {
  height: number;
  measured: boolean;
  limit: { temperature: number; layer: string } | null;
} {
  let height = 0;
  let limit: { temperature: number; layer: string } | null = null;
  for (const layer of layers) {
    if (!(layer.thickness >= 0))
      throw new RangeError(`stackHeight needs thicknesses of 0 or more, ${layer.name} has ${layer.thickness}`);
    height += layer.thickness;
    if (layer.limit !== null && (limit === null || layer.limit < limit.temperature))
      limit = { temperature: layer.limit, layer: layer.name };
  }
  return { height, measured: layers.every(({ measured }) => measured), limit };
}
