import { figuresFor, type Reader } from './figures';

/** How sums say what they refuse: "countersink needs a hole narrower than the head of 5.5 mm, got 7". */
const NAMED = /^(?:a |an )?[a-z]+(?:[A-Z][a-z]*)* (needs|knows|takes|wants|holds|has|can)\b/;
const GOT = /, got [^,;.]*(?:\.\d[^,;.]*)*$/;

/**
 * What a sum refused, for whoever typed it: without the sum's own name, without what it got (that stands in the field), and
 * in the reader's units.
 * @example faultWords('soak needs a setpoint of 100 °C or less, got 400', reader) // "This needs a setpoint of 212 °F or less."
 */
export function faultWords(message: string, reader: Reader): string {
  const { size, temperature, short } = figuresFor(reader);
  const plain = message.replace(GOT, '').replace(NAMED, 'This $1');
  const told = plain
    .replace(/(-?\d{1,9}(?:\.\d{1,9})?) mm\b(?!²|³|\/)/g, (_, mm: string) =>
      size(Number(mm), Math.abs(Number(mm)) < 1 ? 3 : 2),
    )
    .replace(/(-?\d{1,9}(?:\.\d{1,9})?) °C/g, (_, celsius: string) => temperature(Number(celsius)))
    .replace(/(?<![\d.,])(\d+\.\d+)(?![\d.]| (?:in|mm|°))/g, (_, number: string) => short(Number(number), 4));
  const first = told.charAt(0).toUpperCase() + told.slice(1);
  return /[.!?]$/.test(first) ? first : `${first}.`;
}
