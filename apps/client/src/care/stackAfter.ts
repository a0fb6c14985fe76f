import type { JobLayer } from '@even-bed/contract';
import type { ProcedureStep } from '@even-bed/core/care/procedure';

/** What comes to lie there; what the top is made of is known where its surface was named. */
const COMES = { base: { name: 'base', material: 'base' }, top: { name: 'top', material: null } } as const;

/**
 * The stack as it will be: what lay in the places named is gone, and what was measured comes to lie there.
 * @returns bottom first; null while something was not measured yet
 */
export function stackAfter(
  before: readonly JobLayer[],
  layers: NonNullable<ProcedureStep['layers']>,
  readings: Record<string, number>,
  top: string | null = null,
): JobLayer[] | null {
  const gone = new Set<string | null>(layers.map(({ slot }) => slot));
  // With a base, whatever lay on the plate is gone; adhesive and plate stay.
  if (gone.has('base')) gone.add('top');
  const stays = before.filter(({ slot }) => slot === null || !gone.has(slot));
  const come: JobLayer[] = [];
  for (const { slot, reading } of layers) {
    if (reading === undefined) continue;
    const thickness = readings[reading];
    if (thickness === undefined) return null;
    come.push({
      ...COMES[slot],
      ...(slot === 'top' ? { material: top } : {}),
      thickness,
      measured: true,
      limit: null,
      slot,
    });
  }
  return [...stays, ...come];
}
