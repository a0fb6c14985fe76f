import { tz } from '@date-fns/tz/tz';
import { format as formatIn } from 'date-fns/format';
import { currentManner } from './manner';

/** Dates and times are shown in the shop's zone, wherever the device is. */
export const shopZone = () => tz(currentManner().zone);
const format = (at: number, pattern: string) => formatIn(at, pattern, { in: shopZone() });

/** "25 Nov", with the year when it isn't this one. */
export const shortDate = (at: number, now: number): string =>
  format(at, format(at, 'yyyy') === format(now, 'yyyy') ? 'd MMM' : 'd MMM yyyy');

/** "Wed 25 Nov, 14:20" */
export const dayAndTime = (at: number) => format(at, 'EEE d MMM, HH:mm');

/** "14:20" */
export const clockTime = (at: number) => format(at, 'HH:mm');

/** "Wednesday 25 November 2026" */
export const longDay = (at: number) => format(at, 'EEEE d MMMM yyyy');

/** "Wednesday 14:20" */
export const weekdayTime = (at: number) => format(at, 'EEEE HH:mm');
