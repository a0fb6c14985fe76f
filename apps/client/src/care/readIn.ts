import type { Procedure } from '@even-bed/core';
import { loadSchemas } from '../api/loadSchemas';
import { deviceStore } from '../offline/deviceStore';

/** Longer files are no procedure. */
const LONGEST = 500_000;

/**
 * Reads a procedure from JSON and keeps it on this device until it is saved.
 * @returns what is wrong with it, or null
 */
export async function keepReadIn(text: string): Promise<string | null> {
  if (text.length > LONGEST) return 'This file is too long for a job.';
  let doc: unknown;
  try {
    doc = JSON.parse(text);
  } catch {
    return 'This file is no JSON.';
  }
  const { procedureSchema, validate } = await loadSchemas();
  const read = validate<Procedure>(procedureSchema, doc);
  if (!read.ok) {
    const [[path, message]] = Object.entries(read.fields) as [[string, string]];
    return `This is no job that can be read: ${message}${path ? ` (${path})` : ''}`;
  }
  await deviceStore.set('procedure', 'read-in', read.value);
  return null;
}

export const readInKept = () => deviceStore.get<Procedure>('procedure', 'read-in');
