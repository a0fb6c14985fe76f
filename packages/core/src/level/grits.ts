/**
 * Coated abrasives by their P number: median grain, µm. Source: ISO 6344-2:1998 (macrogrits) and ISO 6344-3:1998 (microgrits),
 * as FEPA 43-1; from memory.
 */
export const GRITS: readonly { grit: number; grain: number }[] = [
  { grit: 60, grain: 269 },
  { grit: 80, grain: 201 },
  { grit: 100, grain: 162 },
  { grit: 120, grain: 125 },
  { grit: 150, grain: 100 },
  { grit: 180, grain: 82 },
  { grit: 220, grain: 68 },
  { grit: 240, grain: 58.5 },
  { grit: 320, grain: 46.2 },
  { grit: 400, grain: 35 },
  { grit: 600, grain: 25.8 },
  { grit: 800, grain: 21.8 },
  { grit: 1000, grain: 18.3 },
  { grit: 1500, grain: 12.6 },
  { grit: 2000, grain: 10.3 },
];

/** @throws RangeError a grit that the standard does not have */
export function grainOf(grit: number): number {
  const found = GRITS.find((one) => one.grit === grit);
  if (!found) throw new RangeError(`grainOf knows grits ${GRITS.map((one) => one.grit).join(', ')}, got ${grit}`);
  return found.grain;
}
