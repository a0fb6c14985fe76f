import { useRef, useSyncExternalStore } from 'react';
import { rightNow } from './useNow';

/** A glove bounces: what stands under a finger only since this long is not what it meant. */
const BOUNCE_MS = 350;
/** A finger that bounces comes down again within this distance, px; further away something else was meant. */
const SAME_PLACE = 48;

/** Where the last press came down; null: by a key, a knock or a pedal. */
let finger: Press['finger'] = null;
/** When a tap was last left out; 0: none was. */
let leftOutAt = 0;
const listeners = new Set<() => void>();

const isWeb = typeof document !== 'undefined';
if (isWeb) {
  const down = ({ clientX: x, clientY: y }: PointerEvent) => (finger = { x, y });
  window.addEventListener('pointerdown', down, { capture: true, passive: true });
  window.addEventListener('keydown', () => (finger = null), { capture: true, passive: true });
}

interface Press {
  at: number;
  finger: { x: number; y: number } | null;
}

/** Whether a press is the one before that bounced: right after it, and not elsewhere on the page. */
export function isBounce(before: Press, press: Press): boolean {
  if (press.at - before.at >= BOUNCE_MS) return false;
  const [from, to] = [before.finger, press.finger];
  return from === null || to === null || Math.hypot(from.x - to.x, from.y - to.y) <= SAME_PLACE;
}

/** Says on the page, for whoever drives it, that a tap in the same place would be left out now. */
function rest(): void {
  if (!isWeb) return;
  const { dataset } = document.documentElement;
  const mark = String(rightNow());
  dataset['resting'] = mark;
  setTimeout(() => {
    if (dataset['resting'] === mark) delete dataset['resting'];
  }, BOUNCE_MS);
}

function leaveOut(now: number): void {
  leftOutAt = now;
  if (isWeb) navigator.vibrate?.(30);
  for (const listener of listeners) listener();
}

/**
 * Wraps presses that change what stands under the finger, so that a second tap in haste presses nothing else. Only one in
 * the same place is left out, and whoever taps is told.
 */
export function useSteadyTap(): (work: () => void) => () => void {
  const last = useRef<Press>({ at: 0, finger: null });
  return (work) => () => {
    const press = { at: rightNow(), finger };
    if (isBounce(last.current, press)) return leaveOut(press.at);
    last.current = press;
    rest();
    work();
  };
}

const listen = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** When a tap was last left out; 0: none was. */
export const useLeftOut = (): number => useSyncExternalStore(listen, () => leftOutAt);
