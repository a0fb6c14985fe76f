import { useSyncExternalStore } from 'react';

let printing = false;
const watchers = new Set<() => void>();

function turn(to: boolean) {
  printing = to;
  // React draws what such a store tells before the event is over, and so before the sheet is.
  watchers.forEach((tell) => tell());
}
if (typeof document !== 'undefined') {
  window.addEventListener('beforeprint', () => turn(true));
  window.addEventListener('afterprint', () => turn(false));
}

const watch = (tell: () => void) => {
  watchers.add(tell);
  return () => void watchers.delete(tell);
};

/** Whether the page is being put on paper: nothing folded, and nothing that only hands on glass need. */
export const usePrinting = (): boolean =>
  useSyncExternalStore(
    watch,
    () => printing,
    () => false,
  );
