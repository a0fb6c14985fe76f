import type { LevelSetup, RawReading, Reckoning, TurnMade } from '@even-bed/core';
import { useEffect, useState } from 'react';
import { reckoner } from '../workers/reckoner';

export type ReckoningState =
  | { kind: 'none' }
  | { kind: 'busy' }
  | { kind: 'done'; reckoning: Reckoning; key: string }
  | { kind: 'failed'; message: string; key: string };

interface Asked {
  now: RawReading | null;
  setup: LevelSetup;
  previous?: (RawReading & { made: readonly TurnMade[] }) | undefined;
}

/** Typing pauses this long before the text is read again, ms. */
const SETTLE_MS = 150;

/** What the sums say of a reading, worked out in the worker; an answer that comes too late is dropped. */
export function useReckoning({ now, setup, previous }: Asked): ReckoningState {
  const key = now ? JSON.stringify([now, previous ?? null, setup]) : '';
  const [state, setState] = useState<ReckoningState>({ kind: 'none' });
  useEffect(() => {
    if (key === '') return undefined;
    let current = true;
    const timer = setTimeout(() => {
      const [askedNow, askedPrevious, askedSetup] = JSON.parse(key) as [
        RawReading,
        Asked['previous'] | null,
        LevelSetup,
      ];
      reckoner()
        .reckon({ now: askedNow, setup: askedSetup, previous: askedPrevious ?? undefined })
        .then((answer) => {
          if (!current) return;
          setState(
            answer.ok
              ? { kind: 'done', reckoning: answer.reckoning, key }
              : { kind: 'failed', message: answer.message, key },
          );
        })
        .catch(() => current && setState({ kind: 'failed', message: 'These heights could not be worked out.', key }));
    }, SETTLE_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [key]);
  if (key === '') return { kind: 'none' };
  return 'key' in state && state.key === key ? state : { kind: 'busy' };
}
