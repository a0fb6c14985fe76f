import { useEffect, useRef } from 'react';

/** Marks the entry of the browser's history that belongs to what lies over the page. */
const MARK = 'evenBedOver';

type Marked = Record<string, unknown> | null;
const isMarked = () => typeof window !== 'undefined' && (window.history.state as Marked)?.[MARK] === true;

/** What lies over the page now, the topmost last. */
const over: { close: () => void }[] = [];
/** Going back was ours: it says nothing to anybody. */
let own = false;
/** An entry of ours is passed over: what comes next is where somebody meant to go. */
let passing = false;
let listening = false;

function listen(): void {
  if (listening) return;
  listening = true;
  // Before the router hears it: it would leave the page.
  window.addEventListener(
    'popstate',
    (event) => {
      if (own) {
        own = false;
        event.stopImmediatePropagation();
        return;
      }
      if (passing) {
        passing = false;
        return;
      }
      const top = over.pop();
      if (top) {
        event.stopImmediatePropagation();
        top.close();
      } else if (isMarked()) {
        // The entry of a sheet that was left by going on to another page: it is the same page once more.
        event.stopImmediatePropagation();
        passing = true;
        window.history.back();
      }
    },
    true,
  );
  // Also while somebody types, which is why it is heard first: a field keeps its keys to itself.
  document.addEventListener(
    'keydown',
    (event) => {
      const top = over.at(-1);
      if (event.key !== 'Escape' || !top) return;
      event.preventDefault();
      top.close();
    },
    true,
  );
}

/**
 * While something lies over the page, Back and Escape close that, the topmost first, and the page stays. The browser gets an entry for
 * it, which is taken away again when it is closed in another way.
 */
export function useOver(open: boolean, onClose: () => void): void {
  const close = useRef(onClose);
  useEffect(() => {
    close.current = onClose;
  });
  useEffect(() => {
    if (!open || typeof window === 'undefined' || typeof window.history?.pushState !== 'function') return undefined;
    listen();
    const mine = { close: () => close.current() };
    window.history.pushState({ ...(window.history.state as Marked), [MARK]: true }, '');
    over.push(mine);
    return () => {
      const at = over.indexOf(mine);
      if (at < 0) return;
      over.splice(at, 1);
      // Whatever closed it may go on to another page in the same breath: then the entry is passed over on the way back.
      setTimeout(() => {
        if (!isMarked()) return;
        own = true;
        window.history.back();
      }, 0);
    };
  }, [open]);
}
