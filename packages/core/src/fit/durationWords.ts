/**
 * A time in words, to the second below an hour and to the minute above.
 * @param seconds s
 * @example durationWords(372) // '6 min 12 s'
 */
export function durationWords(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  const minutes = Math.floor(whole / 60);
  if (minutes < 60) return whole % 60 === 0 ? `${minutes} min` : `${minutes} min ${whole % 60} s`;
  const rounded = Math.round(whole / 60);
  return rounded % 60 === 0 ? `${rounded / 60} h` : `${Math.floor(rounded / 60)} h ${rounded % 60} min`;
}
