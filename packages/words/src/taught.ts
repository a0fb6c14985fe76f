import type { JobTaught } from '@even-bed/core/care/jobTaught';
import { figuresFor, type Reader } from './figures';

interface TaughtJob extends JobTaught {
  fitted: { tag: string; kind: string; width: number; depth: number; thickness: number | null }[];
}

/** What a job on another machine of the model taught, in sentences; empty: nothing of use elsewhere. */
export function taughtJobWords({ homeMoved, readings, fitted }: TaughtJob, reader: Reader): string[] {
  const { short, size, temperature } = figuresFor(reader);
  const across = (mm: number) => size(mm, 1).replace(/ \S+$/, '');
  const said = ({ label, value, unit, said: choice }: JobTaught['readings'][number]) => {
    if (choice !== null) return `${label}: ${choice}.`;
    if (unit === 'mm') return `${label}: ${size(value)}.`;
    return `${label}: ${unit === '°C' ? temperature(value) : [short(value, 2), unit].filter(Boolean).join(' ')}.`;
  };
  return [
    ...(homeMoved === null ? [] : [homeMoved ? 'Home had to be moved.' : 'Home was not moved.']),
    ...fitted.map(
      ({ tag, kind, width, depth, thickness }) =>
        `${tag} went on: ${kind}, ${across(width)} × ${thickness === null ? size(depth, 1) : `${across(depth)} × ${size(thickness)}`}.`,
    ),
    ...readings.map(said),
  ];
}

/** Facts that were written down for another machine of the model; empty: none that help. */
export function taughtFactWords(
  { platformKey, threads }: { platformKey: number | null; threads: readonly string[] },
  reader: Reader,
): string[] {
  const { size } = figuresFor(reader);
  return [
    ...(threads.length === 0 ? [] : [`Adjusters: ${threads.join(', ')}.`]),
    ...(platformKey === null ? [] : [`Key of the platform’s screws: ${size(platformKey)}.`]),
  ];
}
