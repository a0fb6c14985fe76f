import { useEffect, useState } from 'react';

/** The present, in epoch ms, moving on once a minute. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 60_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** The present when something is pressed, in epoch ms; not for what is drawn. */
export const rightNow = (): number => Date.now();
