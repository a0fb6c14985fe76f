// The one way in which spans of time are said.

const MINUTE_MS = 60_000;

/**
 * What is left of a span, to the minute, never less than there is; in days from a day on.
 * @param ms
 * @example timeLeft(250 * 60_000) // '4 h 10 min'
 */
export function timeLeft(ms: number): string {
  const minutes = Math.max(1, Math.ceil(ms / MINUTE_MS));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 24 * 60) {
    const whole = Math.floor(minutes / 60);
    return minutes % 60 === 0 ? `${whole} h` : `${whole} h ${minutes % 60} min`;
  }
  const hours = Math.ceil(minutes / 60);
  const days = Math.floor(hours / 24);
  return hours % 24 === 0 ? `${days} ${days === 1 ? 'day' : 'days'}` : `${days} d ${hours % 24} h`;
}

/**
 * How long something takes or took, to the second below an hour and to the minute above.
 * @param seconds s
 * @example timeTaken(372) // '6 min 12 s'
 */
export function timeTaken(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  const minutes = Math.floor(whole / 60);
  if (minutes < 60) return whole % 60 === 0 ? `${minutes} min` : `${minutes} min ${whole % 60} s`;
  const rounded = Math.round(whole / 60);
  return rounded % 60 === 0 ? `${rounded / 60} h` : `${Math.floor(rounded / 60)} h ${rounded % 60} min`;
}

/**
 * How long something was set to last: to the minute below a day, to the hour from a day on.
 * @param ms
 * @example timeSet(24 * 3_600_000) // '24 h'
 */
export function timeSet(ms: number): string {
  const minutes = Math.round(ms / MINUTE_MS);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 || hours >= 24 ? `${Math.round(minutes / 60)} h` : `${hours} h ${minutes % 60} min`;
}

const DAY_MS = 24 * 60 * MINUTE_MS;

/** Days of the calendar from `now` to `at` in a zone; below 0 it is past. @param zone IANA name */
export function daysAhead(at: number, now: number, zone: string): number {
  const day = dayIn(zone);
  return Math.round((Date.parse(day.format(at)) - Date.parse(day.format(now))) / DAY_MS);
}

/** Making one takes longer than a thousand uses. */
const days = new Map<string, Intl.DateTimeFormat>();
function dayIn(timeZone: string): Intl.DateTimeFormat {
  const known = days.get(timeZone);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
  days.set(timeZone, made);
  return made;
}

/** When something is due, by days of the calendar: "due today", "2 days late", "due in 5 days". */
export function dueIn(days: number): string {
  if (days === 0) return 'due today';
  if (days === 1) return 'due tomorrow';
  if (days > 1) return `due in ${days} days`;
  return days === -1 ? '1 day late' : `${-days} days late`;
}
