import type { BookKind } from '@even-bed/contract';

/** What each kind of line is called. */
export const KIND_NAMES: Record<BookKind, string> = {
  'area-added': 'Area added',
  'area-changed': 'Area changed',
  'machine-added': 'Machine added',
  'machine-changed': 'Machine changed',
  'rule-set': 'Rule set',
  'check-started': 'Check begun',
  'heights-read': 'Heights read',
  'turns-made': 'Turns made',
  'check-finished': 'Check finished',
  'check-dropped': 'Check dropped',
  'level-noted': 'Levelled by hand',
  'level-note-withdrawn': 'Level taken back',
  'shape-noted': 'Shape',
  'shape-withdrawn': 'Shape taken back',
  'gauge-kept': 'Gauge kept',
  'gauge-withdrawn': 'Gauge let go',
  practised: 'Practice',
  'z-marked': 'Home or zero',
  'z-mark-withdrawn': 'Home or zero taken back',
  'person-added': 'Person added',
  'person-changed': 'Person changed',
  'settings-changed': 'Settings changed',
  'token-made': 'Token made',
  'token-revoked': 'Token revoked',
  'kind-added': 'Kind added',
  'kind-changed': 'Kind changed',
  'stack-changed': 'Stack changed',
  'surface-added': 'Surface added',
  'surface-changed': 'Surface changed',
  'surface-mounted': 'Put on',
  'surface-taken-off': 'Taken off',
  'surface-moved': 'Moved',
  'surface-turned': 'Turned',
  'surface-held': 'Put on hold',
  'surface-hold-cut': 'Hold cut short',
  'surface-work-asked': 'Work asked for',
  'surface-work-done': 'Work done',
  'surface-work-undone': 'Work taken back',
  'surface-retired': 'Retired',
  'surface-brought-back': 'Brought back',
  'print-logged': 'Print',
  'print-described': 'Print details',
  'print-withdrawn': 'Print withdrawn',
  'prints-added': 'Prints added',
  'offset-kept': 'Offset kept',
  'offset-withdrawn': 'Offset withdrawn',
  inspected: 'Inspected',
  'photo-added': 'Photo',
  'job-started': 'Job begun',
  'job-step': 'Job',
  'job-handed-over': 'Job handed over',
  'job-ended': 'Job ended',
  'procedure-saved': 'Procedure saved',
  'plan-kept': 'Plan kept',
  'plan-withdrawn': 'Plan withdrawn',
  correction: 'Correction',
};

export const KINDS = Object.keys(KIND_NAMES) as BookKind[];

/** Where a line leads: its check, its surface, or its machine. */
export function recordOf(entry: { checkId: string | null; surfaceId: string | null; machineId: string | null }) {
  if (entry.checkId) return `/level/${entry.checkId}` as const;
  if (entry.surfaceId) return `/rack/${entry.surfaceId}` as const;
  return entry.machineId ? (`/floor/${entry.machineId}` as const) : undefined;
}
