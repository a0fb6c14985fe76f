import type { Finding } from '@even-bed/contract';
import type { ZFinding } from '@even-bed/core';
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

/** What a way of finding Z asks for beside itself, as it stands in the form at first. */
export function findingForm(by: ZFinding['by']): Record<string, string> {
  switch (by) {
    case 'stop-screw':
      return { by, pitch: '0.5', clockwise: 'sooner' };
    case 'flag':
      return { by, part: 'flag', rides: 'moving', homing: 'down' };
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

/** The material that a layer's name means, for heat and for what a probe sees. */
export function materialNamed(name: string): (typeof MATERIALS)[number] | undefined {
  const text = name.toLowerCase();
  const id = /glass/.test(text)
    ? 'glass'
    : /base|magnet/.test(text)
      ? 'base'
      : /steel|sheet|flex plate/.test(text)
        ? 'steel'
        : /fibreglass|laminate|g10|fr4/.test(text)
          ? 'fibreglass'
          : /adhesive|tape|glue/.test(text)
            ? 'adhesive'
            : /pad|silicone/.test(text)
              ? 'pad'
              : /pei|cover|film/.test(text)
                ? /pei/.test(text)
                  ? 'pei'
                  : 'polymer'
                : /stone|granite/.test(text)
                  ? 'granite'
                  : /plate|platform|alumin|arm/.test(text)
                    ? 'aluminium'
                    : undefined;
  return MATERIALS.find((material) => material.id === id);
}

/** A layer of a machine's stack as the form holds it. */
export const layerForm = (layer: { name: string; thickness: number; measured: boolean; limit: number | null }) => ({
  name: layer.name,
  thickness: String(layer.thickness),
  measured: layer.measured,
  limit: layer.limit === null ? '' : String(layer.limit),
  metal: materialNamed(layer.name)?.metal ?? false,
});
