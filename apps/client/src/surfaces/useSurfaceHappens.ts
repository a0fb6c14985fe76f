import type { SurfaceHappening } from '@even-bed/contract';
import type { SurfaceEvent } from '@even-bed/core';
import { v7 as uuid } from 'uuid';
import { useBringSurfaceBackMutation, useRetireSurfaceMutation, useSurfaceEventMutation } from './surfacesApi';

/** What a person may write down of a surface. */
export type SurfaceHappened = SurfaceHappening | Extract<SurfaceEvent, { kind: 'retired' | 'brought-back' }>;

/** Writes down what happened to a surface, whichever operation that is. */
export function useSurfaceHappens() {
  const [happen, happening] = useSurfaceEventMutation();
  const [retire, retiring] = useRetireSurfaceMutation();
  const [bring, bringing] = useBringSurfaceBackMutation();
  const all = [happening, retiring, bringing];
  return {
    write: (id: string, event: SurfaceHappened) => {
      const key = uuid();
      if (event.kind === 'retired') return retire({ id, key, body: event });
      if (event.kind === 'brought-back') return bring({ id, key, body: event });
      return happen({ id, key, body: event });
    },
    isLoading: all.some(({ isLoading }) => isLoading),
    error: all.find(({ error }) => error !== undefined)?.error,
    reset: () => all.forEach(({ reset }) => reset()),
  };
}
