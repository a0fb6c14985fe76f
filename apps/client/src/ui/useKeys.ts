import { useEffect, useRef } from 'react';

const OFF = 'one-key-shortcuts-off';

/** Whether single letters act on this device: who speaks to the machine, or rests a hand on its keys, switches them off. */
export const singleKeysAct = (): boolean => typeof localStorage === 'undefined' || localStorage.getItem(OFF) === null;

export function setSingleKeysAct(act: boolean): void {
  if (act) localStorage.removeItem(OFF);
  else localStorage.setItem(OFF, 'yes');
}

/**
 * Single keys as shortcuts while a view is there. Silent while somebody types, with Ctrl, Alt or Meta held, and where
 * they are switched off.
 * @param keys action by the key's value ("?", "m")
 */
export function useKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    if (typeof document === 'undefined' || !document.addEventListener) return undefined;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      const typing = target !== null && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable);
      if (typing || event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
      if (event.key.length === 1 && !singleKeysAct()) return;
      const action = latest.current[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
