import { faultWords } from '@even-bed/words/fault';
import { useEffect, useRef, useState } from 'react';
import { currentManner } from '../ui/manner';

export type Worked<R> =
  | { kind: 'none' }
  | { kind: 'busy' }
  | { kind: 'done'; result: R; stale: boolean }
  | { kind: 'failed'; message: string };

/** Typing pauses this long before it is worked out again, ms. */
const SETTLE_MS = 120;

/**
 * What a worker makes of an input, worked out again when it changes; an answer that comes too late is dropped. Stale: the
 * answer is still that of the input before, it may be shown, not acted upon.
 * The worker answers with the result or with the words of the sum's own refusal.
 */
export function useWorked<I, R>(
  input: I | null,
  work: (input: I) => Promise<{ ok: true; result: R } | { ok: false; message: string }>,
): Worked<R> {
  const key = input === null ? '' : JSON.stringify(input);
  const [state, setState] = useState<{ key: string; worked: Worked<R> } | null>(null);
  const turn = useRef(Promise.resolve());
  useEffect(() => {
    if (key === '') return undefined;
    let current = true;
    const answered = (worked: Worked<R>) => current && setState({ key, worked });
    const timer = setTimeout(() => {
      // After the one that is still under way; what was typed over in the meantime is never begun.
      turn.current = turn.current.then(async () => {
        if (!current) return;
        try {
          const answer = await work(JSON.parse(key) as I);
          answered(
            answer.ok
              ? { kind: 'done', result: answer.result, stale: false }
              : { kind: 'failed', message: faultWords(answer.message, currentManner()) },
          );
        } catch {
          answered({ kind: 'failed', message: 'This could not be worked out.' });
        }
      });
    }, SETTLE_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [key, work]);
  if (key === '') return { kind: 'none' };
  // The last answer stays on the page while the next is worked out.
  if (state?.key === key) return state.worked;
  return state?.worked.kind === 'done' ? { ...state.worked, stale: true } : { kind: 'busy' };
}
