/** How numbers, lengths and times are shown. */
export interface Manner {
  units: 'mm' | 'in';
  /** IANA name of a time zone. */
  zone: string;
  numbers: 'point' | 'comma';
  /** Not said by a device that had not heard of it yet: parts. */
  turns?: 'parts' | 'degrees';
}

const HOUSE: Manner = { units: 'mm', zone: Intl.DateTimeFormat().resolvedOptions().timeZone, numbers: 'point' };

let manner = HOUSE;

/** Sets how everything is shown from now on; null: as the house does. What is on screen has to be drawn anew. */
export function readAs(next: Manner | null): void {
  manner = next ?? HOUSE;
}

/** How the shop reads now. */
export const currentManner = (): Manner => manner;
