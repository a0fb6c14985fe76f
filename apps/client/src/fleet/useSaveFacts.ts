import type { MachineFacts } from '@even-bed/contract';
import { useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { errorOf, type ReadableError } from '../api/errorOf';
import { useSaveAreaMutation, useSaveMachineMutation } from './fleetApi';

/** Saves a machine's facts, and its new area first where there is one. False when the server said no. */
export function useSaveFacts(id: string, version: number) {
  const [saveMachine, { isLoading }] = useSaveMachineMutation();
  const [saveArea] = useSaveAreaMutation();
  const [failure, setFailure] = useState<ReadableError | null>(null);
  // One area for this form, however often it is sent.
  const area = useRef<{ name: string; id: string } | null>(null);

  async function save(facts: MachineFacts, newArea: string | null): Promise<boolean> {
    setFailure(null);
    let { areaId } = facts;
    if (newArea !== null) {
      if (area.current?.name !== newArea) {
        const write = { id: uuid(), key: uuid(), body: { name: newArea, position: 0, version: 0, at: Date.now() } };
        const made = await saveArea(write);
        if (made.error) {
          setFailure(errorOf(made.error));
          return false;
        }
        area.current = { name: newArea, id: write.id };
      }
      areaId = area.current.id;
    }
    const saved = await saveMachine({ id, key: uuid(), body: { ...facts, areaId, version, at: Date.now() } });
    if (!saved.error) return true;
    setFailure(errorOf(saved.error));
    return false;
  }

  return { save, busy: isLoading, failure };
}
