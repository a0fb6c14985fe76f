import { format } from 'date-fns/format';

/** "25 Nov", with the year when it isn't this one. */
export function shortDate(at: number, now: number): string {
  const sameYear = new Date(at).getFullYear() === new Date(now).getFullYear();
  return format(at, sameYear ? 'd MMM' : 'd MMM yyyy');
}

/** "Wed 25 Nov, 14:20" */
export const dayAndTime = (at: number) => format(at, 'EEE d MMM, HH:mm');

/** "14:20" */
export const clockTime = (at: number) => format(at, 'HH:mm');

/** "Wednesday 25 November 2026" */
export const longDay = (at: number) => format(at, 'EEEE d MMMM yyyy');

/** "Wednesday 14:20" */
export const weekdayTime = (at: number) => format(at, 'EEEE HH:mm');
