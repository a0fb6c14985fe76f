import type { Finding } from '@even-bed/contract';
import type { Metal, ZFinding } from '@even-bed/core';
import { MATERIALS } from '@even-bed/core/fit/materials';

/** Ways of finding Z as the tool asks for them. */
export const FINDING_CHOICES: readonly { value: ZFinding['by']; label: string }[] = [
  { value: 'spacer', label: 'Switch, spacer' },
  { value: 'stop-screw', label: 'Stop screw' },
  { value: 'flag', label: 'Flag or sensor' },
  { value: 'fixed', label: 'Fixed' },
  { value: 'contact-probe', label: 'Contact probe' },
  { value: 'inductive-probe', label: 'Inductive probe' },
];

export const METAL_NAMES: Record<Metal, string> = {
  steel: 'Steel, spring or plain',
  stainless: 'Stainless steel',
  aluminium: 'Aluminium',
  brass: 'Brass',
  copper: 'Copper',
  other: 'Another metal',
};

/** What a way of finding Z asks for beside itself, as it stands in the form at first. */
export function findingForm(by: ZFinding['by']): Record<string, string> {
  switch (by) {
    case 'stop-screw':
      return { by, pitch: '0.5', clockwise: 'sooner' };
    case 'flag':
      return { by, part: 'flag', rides: 'moving' };
    default:
      return { by };
  }
}

/** What the shop knows of a machine's way of finding Z; an endstop may be of several kinds, a spacer is the commonest. */
export function findingFrom(finding: Finding, family: 'filament' | 'resin'): ZFinding['by'] {
  if (finding === 'contact-probe' || finding === 'inductive-probe') return finding;
  if (finding === 'by-hand') return 'fixed';
  return family === 'resin' ? 'flag' : 'spacer';
}

/** What an inductive probe senses of a material; null: nothing, or it is not known. */
export const metalOf = (material: string | null) => MATERIALS.find(({ id }) => id === material)?.metal ?? null;

/** A layer of a machine's stack as the form holds it. */
export const layerForm = (layer: {
  name: string;
  thickness: number;
  measured: boolean;
  limit: number | null;
  material: string | null;
}) => ({
  name: layer.name,
  thickness: String(layer.thickness),
  measured: layer.measured,
  limit: layer.limit === null ? '' : String(layer.limit),
  metal: metalOf(layer.material) ?? '',
});
