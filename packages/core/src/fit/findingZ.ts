import { MATERIALS } from './materials';
import type { Metal } from './inductiveProbe';
import type { ZFinding } from './stackChange';

/** How a machine's page says that it finds Z. */
export type MachineFinding = 'endstop' | 'contact-probe' | 'inductive-probe' | 'by-hand';

/** What the shop knows of a machine's way of finding Z; an endstop may be of several kinds, a spacer is the commonest. */
export function findingFrom(finding: MachineFinding, family: 'filament' | 'resin'): ZFinding['by'] {
  if (finding === 'contact-probe' || finding === 'inductive-probe') return finding;
  if (finding === 'by-hand') return 'fixed';
  return family === 'resin' ? 'flag' : 'spacer';
}

/** What an inductive probe senses of a material; null: nothing, or it is not known. */
export const metalOf = (material: string | null): Metal | null =>
  MATERIALS.find(({ id }) => id === material)?.metal ?? null;
