import { useSyncExternalStore } from 'react';

/** Browsers give camera, motion and what works without a signal to secure pages alone (W3C Secure Contexts). */
export const isSecurePage = (): boolean => typeof window === 'undefined' || window.isSecureContext !== false;

/** kept: the app opens without a signal · insecure: the address has no https · distrusted: the device doesn't trust the shop's certificate · none: not built for that, or a browser that can't. */
export type OfflineState = 'kept' | 'insecure' | 'distrusted' | 'none';

let offline: OfflineState = 'none';
const listeners = new Set<() => void>();

export function offlineIs(state: OfflineState): void {
  offline = state;
  for (const listener of listeners) listener();
}

const listen = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether this device opens the app without a signal, or why not. */
export const useOffline = (): OfflineState => useSyncExternalStore(listen, () => offline);

/** Why something that needs a secure page doesn't work here; null: the page is one. */
export const whyNot = (what: string): string | null =>
  isSecurePage()
    ? null
    : `${what} needs https, and this address has none. “People” says how this device gets in over https.`;
