import seedrandom from 'seedrandom';
import { v7 as uuid } from 'uuid';

export interface SeededIds {
  /** A UUID v7 for a moment, always the same from the same seed and calls. */
  next: (at: number) => string;
}

export function seededIds(seed: string): SeededIds {
  const random = seedrandom(`${seed} ids`);
  return {
    next: (at) =>
      uuid({
        msecs: at,
        seq: Math.floor(random() * 0x7fffffff),
        random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)),
      }),
  };
}
