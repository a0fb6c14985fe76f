/** Zones shown at once: who sees more types another letter. */
const SHOWN = 30;

/** Every time zone that this device knows, by its IANA name; UTC is always among them. */
const known = (): string[] => ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')];

/**
 * Zones whose name holds all words that were typed ("new york", "lisb"); this device's own and the one in use come first
 * while nothing is typed.
 */
export function zonesFor(typed: string, first: readonly string[], all: readonly string[] = known()): string[] {
  const words = typed
    .toLowerCase()
    .split(/[\s/_]+/)
    .filter(Boolean);
  if (words.length === 0) return [...new Set([...first, ...all])].slice(0, SHOWN);
  return all
    .filter((zone) => {
      const plain = zone.toLowerCase().replaceAll('_', ' ');
      return words.every((word) => plain.includes(word));
    })
    .slice(0, SHOWN);
}

/** What a clock shows there: "14:20". */
export const clockIn = (zone: string, now: number): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(now);
