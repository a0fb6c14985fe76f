import { timeTaken } from '@even-bed/words/span';
import type { Soak } from '@even-bed/core';
import { clockTime, shopZone } from '../ui/formatTime';
import type { HeatLine } from '../ui/HeatChart';
import { set } from 'date-fns/set';

/** Points of a drawn curve. */
const POINTS = 61;

/** Values at equal steps up to `end`, between the points that the sum took; level after its own end. */
export function sampled(time: readonly number[], values: readonly number[], end: number, points = POINTS): number[] {
  let i = 0;
  return Array.from({ length: points }, (_, n) => {
    const at = (end * n) / (points - 1);
    while (i < time.length - 2 && time[i + 1]! < at) i++;
    const span = time[i + 1]! - time[i]!;
    const share = span > 0 ? Math.min(1, (at - time[i]!) / span) : 0;
    return values[i]! + (values[i + 1]! - values[i]!) * share;
  });
}

/** The lines of the chart: bottom and top, and the top of the one that was kept. */
export function curvesOf(
  { curve }: Soak,
  kept: { result: Soak } | null,
): { lines: HeatLine[]; labels: string[]; label: string } {
  const end = Math.max(curve.time.at(-1)!, kept?.result.curve.time.at(-1) ?? 0);
  const lines: HeatLine[] = [
    { name: 'Bottom, as the sensor sees it', values: sampled(curve.time, curve.bottom, end), dashed: true },
    { name: 'Top', values: sampled(curve.time, curve.top, end), dashed: false },
  ];
  if (kept)
    lines.push({
      name: 'Top of the one kept',
      values: sampled(kept.result.curve.time, kept.result.curve.top, end),
      dashed: false,
    });
  const inMinutes = end >= 180;
  const labels = Array.from({ length: 5 }, (_, n) => {
    const at = (end * n) / 4;
    return n === 4 ? '' : inMinutes ? `${Math.round(at / 60)} min` : `${Math.round(at)} s`;
  });
  return { lines, labels, label: `Temperature of bottom and top over ${timeTaken(end)}` };
}

/**
 * When to switch on so that the top is hot at a time of day ("14:30"), today or else tomorrow; in words.
 * @returns null while no time is typed
 */
export function startOf(typed: string, seconds: number, now: number): string | null {
  const [, hours, minutes] = /^\s*(\d{1,2})[:.h](\d{2})\s*$/.exec(typed) ?? [];
  if (hours === undefined || Number(hours) > 23 || Number(minutes) > 59) return null;
  const today = set(
    now,
    { hours: Number(hours), minutes: Number(minutes), seconds: 0, milliseconds: 0 },
    { in: shopZone() },
  );
  const begin = today.getTime() - seconds * 1000;
  if (begin >= now) return `switch on at ${clockTime(begin)}`;
  return today.getTime() <= now
    ? `switch on tomorrow at ${clockTime(begin + 86_400_000)}`
    : `it is late: begun now it is hot at ${clockTime(now + seconds * 1000)}`;
}
