/** A screw thread as adjusters have it. `pitch` is mm of travel per turn. */
export interface Thread {
  name: string;
  pitch: number;
  standard: 'ISO 261' | 'ASME B1.1';
}

const unified = (name: string, threadsPerInch: number): Thread => ({
  name,
  pitch: 25.4 / threadsPerInch,
  standard: 'ASME B1.1',
});

/**
 * Pitches of the threads found on bed adjusters, mm per turn.
 * Metric: coarse series of ISO 261 (ISO general-purpose metric screw threads, general plan).
 * Unified: UNC and UNF of ASME B1.1, 25.4 mm divided by the threads per inch.
 */
export const THREADS: readonly Thread[] = [
  { name: 'M2', pitch: 0.4, standard: 'ISO 261' },
  { name: 'M2.5', pitch: 0.45, standard: 'ISO 261' },
  { name: 'M3', pitch: 0.5, standard: 'ISO 261' },
  { name: 'M3.5', pitch: 0.6, standard: 'ISO 261' },
  { name: 'M4', pitch: 0.7, standard: 'ISO 261' },
  { name: 'M5', pitch: 0.8, standard: 'ISO 261' },
  { name: 'M6', pitch: 1, standard: 'ISO 261' },
  { name: 'M7', pitch: 1, standard: 'ISO 261' },
  { name: 'M8', pitch: 1.25, standard: 'ISO 261' },
  unified('#2-56 UNC', 56),
  unified('#4-40 UNC', 40),
  unified('#4-48 UNF', 48),
  unified('#5-40 UNC', 40),
  unified('#6-32 UNC', 32),
  unified('#6-40 UNF', 40),
  unified('#8-32 UNC', 32),
  unified('#8-36 UNF', 36),
  unified('#10-24 UNC', 24),
  unified('#10-32 UNF', 32),
  unified('1/4-20 UNC', 20),
  unified('1/4-28 UNF', 28),
];

/**
 * The pitch of a named thread, mm per turn, or undefined when the table has no such thread.
 * @example pitchOf('M4') // 0.7
 */
export function pitchOf(name: string): number | undefined {
  return THREADS.find((thread) => thread.name.toLowerCase() === name.trim().toLowerCase())?.pitch;
}

/**
 * Turns that move an adjuster by `travel` mm: travel / pitch.
 * @throws RangeError a pitch that is not above zero
 * @example turnsFor(0.2, 0.5) // 0.4
 */
export function turnsFor(travel: number, pitch: number): number {
  if (!(pitch > 0)) throw new RangeError(`turnsFor needs a pitch above 0 mm, got ${pitch}`);
  return travel / pitch;
}
