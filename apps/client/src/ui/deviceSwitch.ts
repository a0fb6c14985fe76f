import { useSyncExternalStore } from 'react';

// Small choices of this device, at once and for good: they are of the hands that hold it and no record of the shop.

const listeners = new Set<() => void>();
const read = (key: string) => (typeof localStorage === 'undefined' ? null : localStorage.getItem(key));

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A word that this device keeps under a name, and what changes it. */
export function useKeptWord(key: string): [string | null, (value: string) => void] {
  const kept = useSyncExternalStore(
    listen,
    () => read(key),
    () => null,
  );
  const write = (value: string) => {
    try {
      localStorage.setItem(key, value);
    } catch {
      // A full device forgets it with the page.
    }
    for (const listener of listeners) listener();
  };
  return [kept, write];
}

/** A switch of this device; off at first. */
export function useSwitch(name: 'read-aloud' | 'knock'): [boolean, (on: boolean) => void] {
  const [kept, write] = useKeptWord(name);
  return [kept === 'on', (on) => write(on ? 'on' : 'off')];
}
