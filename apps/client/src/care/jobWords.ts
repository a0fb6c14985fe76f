import type { JobEntry } from '@even-bed/contract';
import type { SignalKind } from '../ui/Signal';

/** "71:59:30", "12:05": what is left, for a clock that runs. */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000));
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/** How a job under way stands: waiting by itself, or for a hand. */
export function jobSignal(
  { waitUntil, ended }: Pick<JobEntry, 'waitUntil' | 'ended'>,
  now: number,
): { kind: SignalKind; waits: boolean } {
  if (ended !== null) return { kind: ended === 'done' ? 'ready' : 'stop', waits: false };
  return waitUntil !== null && waitUntil > now ? { kind: 'hold', waits: true } : { kind: 'due', waits: false };
}

/** Where a job under way stands, in words: "Waits for you: dry fit". */
export const jobStands = ({ stepTitle }: Pick<JobEntry, 'stepTitle'>, waits: boolean) =>
  `${waits ? 'Waits by itself' : 'Waits for you'}: ${(stepTitle ?? '').toLowerCase()}`;
