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
