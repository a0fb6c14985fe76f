import { useEffect, useRef } from 'react';

/**
 * Single keys as shortcuts while a view is there. Silent while somebody types, and with Ctrl, Alt or Meta held.
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
      const action = latest.current[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
