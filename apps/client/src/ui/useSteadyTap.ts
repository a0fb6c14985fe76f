import { useRef } from 'react';
import { rightNow } from './useNow';

/** A glove bounces: what stands under a finger only since this long is not what it meant. */
const BOUNCE_MS = 350;

/** Wraps presses that change what stands under the finger, so that a second tap in haste presses nothing else. */
export function useSteadyTap(): (work: () => void) => () => void {
  const pressedAt = useRef(0);
  return (work) => () => {
    const now = rightNow();
    if (now - pressedAt.current < BOUNCE_MS) return;
    pressedAt.current = now;
    work();
  };
}
