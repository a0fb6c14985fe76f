import { RUN_MANNERS, type RunManner } from '@even-bed/core/care/runCard';
import { useSyncExternalStore } from 'react';

// Small choices of this device, at once and for good: how a person works a job, whether it is read aloud, whether a knock
// goes on. They are of the hands that hold it and no record of the shop.

const listeners = new Set<() => void>();
const read = (key: string) => (typeof localStorage === 'undefined' ? null : localStorage.getItem(key));

function write(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // A full device forgets it with the page.
  }
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const useKept = (key: string) =>
  useSyncExternalStore(
    listen,
    () => read(key),
    () => null,
  );

/** How this person works this job on this device; at first step by step. */
export function useRunManner(personId: string | null, procedureId: string): [RunManner, (manner: RunManner) => void] {
  const key = `manner ${personId ?? ''} ${procedureId}`;
  const kept = useKept(key);
  const manner = RUN_MANNERS.find((one) => one === kept) ?? 'step-by-step';
  return [manner, (next) => write(key, next)];
}

/** A switch of this device; off at first. */
export function useSwitch(name: 'read-aloud' | 'knock'): [boolean, (on: boolean) => void] {
  const kept = useKept(name);
  return [kept === 'on', (on) => write(name, on ? 'on' : 'off')];
}
