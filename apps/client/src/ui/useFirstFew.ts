import { useDeferredValue } from 'react';

/** About as many rows as a phone shows. */
const FEW = 12;

/** A long list of which the first few are drawn at once, and the rest when nothing waits for it. */
export function useFirstFew<T>(items: readonly T[]): readonly T[] {
  const settled = useDeferredValue(items);
  return settled === items ? items : items.slice(0, FEW);
}
