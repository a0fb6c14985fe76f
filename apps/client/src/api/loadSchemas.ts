import type * as Schemas from './schemas';

let loading: Promise<typeof Schemas> | null = null;

/** The schemas, fetched once. In a component: `use(loadSchemas())`, under a boundary that waits. */
export function loadSchemas(): Promise<typeof Schemas> {
  loading ??= import('./schemas').catch((error: unknown) => {
    // No signal just now: the next one who asks tries again.
    loading = null;
    throw error;
  });
  return loading;
}
