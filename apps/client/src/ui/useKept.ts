import { useCallback, useState } from 'react';

/** What views keep while the app is open: a search, a filter, a place in a list. It goes with the person. */
const kept = new Map<string, unknown>();

/** Forgets what views kept: another person begins at the top of each list. */
export const forgetKept = (): void => kept.clear();

/**
 * State that is found again when the view is come back to, until the app is closed or another person signs in.
 * @param asked what the address asks for: it goes before what was kept
 */
export function useKept<T>(name: string, initial: T, asked: T | null = null): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => asked ?? (kept.has(name) ? (kept.get(name) as T) : initial));
  const set = useCallback(
    (next: T) => {
      kept.set(name, next);
      setValue(next);
    },
    [name],
  );
  return [value, set];
}

/** What an address asks of a list; null: nothing, so that what was kept counts. */
export const askedIn = <T extends object>(address: T): T | null =>
  Object.values(address).some((value) => value !== undefined && value !== '') ? address : null;

/** The place in a long page where somebody was, px from its top. */
export const placeKept = (name: string): number => (kept.get(`place ${name}`) as number | undefined) ?? 0;
export const keepPlace = (name: string, y: number): void => void kept.set(`place ${name}`, y);
