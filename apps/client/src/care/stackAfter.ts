import { materialNamed } from '@even-bed/core/fit/materials';
import type { JobLayer } from '@even-bed/contract';
import type { ProcedureStep } from '@even-bed/core/care/procedure';

/** What comes to lie there; what the top is made of is known where its surface was named. */
const COMES = { base: { name: 'base', material: 'base' }, top: { name: 'top', material: null } } as const;

interface StackKnown {
  readings: Record<string, number>;
  /** Option by choice. */
  choices?: Record<string, string>;
  /** What the new top is made of. */
  top?: string | null;
}

/**
 * The stack as it will be: what lay in the places named is gone, and what was measured comes to lie there.
 * @returns bottom first; null while something was not measured yet
 */
export function stackAfter(
  before: readonly JobLayer[],
  layers: NonNullable<ProcedureStep['layers']>,
  { readings, choices = {}, top = null }: StackKnown,
): JobLayer[] | null {
  const gone = new Set<string | null>(layers.map(({ slot }) => slot));
  // With a base, whatever lay on the plate is gone; adhesive and plate stay.
  if (gone.has('base')) gone.add('top');
  const stays = before.filter(({ slot }) => slot === null || !gone.has(slot));
  const come: JobLayer[] = [];
  for (const { slot, reading, name, only } of layers) {
    if (reading === undefined || (only && !only.is.includes(choices[only.choice] ?? ''))) continue;
    const thickness = readings[reading];
    if (thickness === undefined) return null;
    come.push({
      ...(name === undefined
        ? { ...COMES[slot], ...(slot === 'top' ? { material: top } : {}) }
        : { name, material: materialNamed(name)?.id ?? null }),
      thickness,
      measured: true,
      limit: null,
      slot: name === undefined ? slot : null,
    });
  }
  return [...stays, ...come];
}
