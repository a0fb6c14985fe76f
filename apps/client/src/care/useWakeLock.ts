import { useEffect } from 'react';

interface Sentinel {
  release: () => Promise<void>;
}
type WithWakeLock = Navigator & { wakeLock?: { request: (kind: 'screen') => Promise<Sentinel> } };

/** Keeps the screen awake while it is wanted, where the browser can; taken again when the page comes back. */
export function useWakeLock(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || typeof document === 'undefined') return undefined;
    const { wakeLock } = navigator as WithWakeLock;
    if (!wakeLock) return undefined;
    let held: Sentinel | null = null;
    let over = false;
    const hold = () => {
      if (document.visibilityState !== 'visible') return;
      wakeLock
        .request('screen')
        .then((sentinel) => {
          if (over) void sentinel.release();
          else held = sentinel;
        })
        // Refused on low battery: the screen sleeps as it does elsewhere.
        .catch(() => undefined);
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', hold);
      void held?.release();
    };
  }, [wanted]);
}
