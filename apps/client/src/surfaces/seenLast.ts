import type { BookEntry } from '@even-bed/contract';
import { INSPECTION_CARDS } from '@even-bed/core/care/inspectionCards';

export interface SeenLast {
  /** What was seen, in words. */
  words: string;
  weight: 'due' | 'stop';
  at: number;
}

/**
 * The worst that the latest looks say of a surface: of each card its last one, unless something was done to the surface
 * after it that could have cured it. Prints alone know nothing of a face that has faded.
 * @param looks lines of the book of kind "inspected"
 * @param works times at which work was done on it
 */
export function seenLast(looks: readonly BookEntry[], works: readonly number[], since: number): SeenLast | null {
  const worked = Math.max(since, ...works);
  const last = new Map<string, SeenLast | null>();
  for (const look of [...looks].sort((p, q) => q.at - p.at)) {
    if (look.kind !== 'inspected' || look.at <= worked || last.has(look.data.card)) continue;
    const card = INSPECTION_CARDS.find(({ id }) => id === look.data.card);
    const code = card?.codes.find((known) => known.code === look.data.code);
    last.set(
      look.data.card,
      card && code && code.weight !== 'ready'
        ? { words: `${card.title}: ${code.label}`.toLowerCase(), weight: code.weight, at: look.at }
        : null,
    );
  }
  const found = [...last.values()].filter((one) => one !== null);
  return found.find(({ weight }) => weight === 'stop') ?? found[0] ?? null;
}
