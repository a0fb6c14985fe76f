import { needNumbers } from '../needNumbers';
/**
 * Mass of a flat layer in g.
 * @param layer width, depth, thickness in mm; density in kg/m³
 * @throws RangeError values below 0 or no numbers
 * @example layerMass({ width: 133, depth: 159, thickness: 3, density: 2500 }) // 158.6
 */
export function layerMass({
  width,
  depth,
  thickness,
  density,
}: {
  width: number;
  depth: number;
  thickness: number;
  density: number;
}): number {
  needNumbers('layerMass', { width, depth, thickness, density });
  if (!(width >= 0 && depth >= 0 && thickness >= 0 && density >= 0))
    throw new RangeError(`layerMass needs sizes of 0 or more, got ${width} × ${depth} × ${thickness}, ${density}`);
  return (width * depth * thickness * density) / 1e6;
}
