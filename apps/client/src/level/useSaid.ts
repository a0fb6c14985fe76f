import { useEffect } from 'react';
import { useSwitch } from '../ui/deviceSwitch';
import { hush, speak } from '../ui/speak';

/** Says the next thing aloud when it comes up, where the device is told to. @returns says it now */
export function useSaid(title: string): () => void {
  const [aloud] = useSwitch('read-aloud');
  const language = () => document.documentElement.lang || 'en';
  useEffect(() => {
    if (aloud) speak([title], language());
    return hush;
  }, [aloud, title]);
  return () => speak([title], language());
}
