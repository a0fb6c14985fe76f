import type { Finding } from '@even-bed/contract';

/** How a machine finds Z, in words. */
export const FINDING_NAMES: Record<Finding, string> = {
  endstop: 'Endstop at the bottom of travel',
  'contact-probe': 'Contact probe on the surface',
  'inductive-probe': 'Inductive probe on metal',
  'by-hand': 'By hand',
};
