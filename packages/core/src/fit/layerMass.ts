/**
 * Mass of a flat layer in g.
 * @param layer width, depth, thickness in mm; density in kg/m³
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
  return (width * depth * thickness * density) / 1e6;
}
