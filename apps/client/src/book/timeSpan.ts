import { endOfDay } from 'date-fns/endOfDay';
import { isValid } from 'date-fns/isValid';
import { parse } from 'date-fns/parse';
import { startOfDay } from 'date-fns/startOfDay';
import { shopZone } from '../ui/formatTime';

const FORMATS = ['yyyy-MM-dd', 'd.M.yyyy', 'd/M/yyyy', 'd MMM yyyy', 'd MMMM yyyy'];

/**
 * A day as people type it ("2026-11-25", "25.11.2026", "25 Nov 2026"); null when it is none.
 * @param edge which end of the day, epoch ms
 */
export function readDay(text: string, edge: 'start' | 'end'): number | null {
  const zone = shopZone();
  for (const format of FORMATS) {
    const day = parse(text.trim(), format, Date.now(), { in: zone });
    if (isValid(day) && day.getFullYear() > 1990) return (edge === 'start' ? startOfDay(day) : endOfDay(day)).getTime();
  }
  return null;
}
