import { useEffect, useState } from 'react';

const EVERY_MS = 15 * 60_000;
const FIRST_MS = 8000;
/** The longest wait for the kept files to be replaced before the page is loaded anew. */
const REPLACED_MS = 10_000;
const ENTRY = /\/entry-[0-9a-z]+\.js/i;

/** The app's first script as this page runs it; its name changes with every build that differs. */
const running = () => ENTRY.exec(document.querySelector<HTMLScriptElement>('script[src*="/entry-"]')?.src ?? '')?.[0];

/** Whether the server has another build than this page runs; false where that can't be told. */
async function isNewer(): Promise<boolean> {
  const ours = running();
  if (!ours) return false;
  try {
    const answer = await fetch('/version.txt', { cache: 'no-store' });
    const theirs = ENTRY.exec(await answer.text())?.[0];
    return answer.ok && theirs !== undefined && theirs !== ours;
  } catch {
    return false;
  }
}

/** True once the server has a newer build: looked for when the page comes to the front, and now and then. */
export function useNewVersion(): boolean {
  const [newer, setNewer] = useState(false);
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production') return;
    const look = () => {
      if (document.visibilityState === 'visible') void isNewer().then((is) => is && setNewer(true));
    };
    const first = setTimeout(look, FIRST_MS);
    const timer = setInterval(look, EVERY_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, []);
  return newer;
}

/** Loads the server's build: the files kept on this device are replaced first, or the old ones would open again. */
export async function loadNewVersion(): Promise<void> {
  const kept = await navigator.serviceWorker?.getRegistration().catch(() => undefined);
  if (kept) {
    const replaced = new Promise<void>((resolve) => {
      navigator.serviceWorker.addEventListener('controllerchange', () => resolve(), { once: true });
      setTimeout(resolve, REPLACED_MS);
    });
    const updated = await kept.update().catch(() => undefined);
    if (updated?.installing ?? updated?.waiting) await replaced;
  }
  window.location.reload();
}
