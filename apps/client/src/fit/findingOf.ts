import type { Metal, ZFinding } from '@even-bed/core';
import { metalOf } from '@even-bed/core/fit/findingZ';

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
