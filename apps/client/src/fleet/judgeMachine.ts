import type { MachineFacts } from '@even-bed/contract';
import { loadSchemas } from '../api/loadSchemas';
import { centredMargin } from './centredMargin';
import { factsOf, type MachineForm } from './machineForm';

/** What stands for the area until it is made. */
export const NEW_AREA = 'new';
const PLACEHOLDER_ID = '00000000-0000-7000-8000-000000000000';

/**
 * The contract's own schema judges the form, so that client and server never disagree.
 * @returns the facts, with a placeholder for an area that is still to be made; or a message by field of the contract
 */
export async function judgeMachine(
  form: MachineForm,
): Promise<{ ok: true; facts: MachineFacts; newArea: string | null } | { ok: false; faults: Record<string, string> }> {
  const { machineFactsSchema, validate } = await loadSchemas();
  const isNew = form.areaId === NEW_AREA;
  const asked = { ...factsOf(form, centredMargin), ...(isNew ? { areaId: PLACEHOLDER_ID } : {}) };
  const result = validate<MachineFacts>(machineFactsSchema, asked);
  const faults: Record<string, string> = result.ok ? {} : { ...result.fields };
  if (faults['areaId']) faults['areaId'] = 'Choose an area.';
  if (isNew && form.newArea.trim() === '') faults['newArea'] = 'Name of the area is missing.';
  if (!result.ok || faults['newArea']) return { ok: false, faults };
  return { ok: true, facts: result.value, newArea: isNew ? form.newArea.trim() : null };
}
