import type { Knex } from 'knex';

type Watcher = () => void;

const watchers = new Set<Watcher>();

/** Calls back after lines were written to the book of whichever shop this process serves. Returns how to stop. */
export function onWritten(watcher: Watcher): () => void {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
}

const tell = () => watchers.forEach((watcher) => watcher());

/** Tells whoever watches, once what was written is there for good. */
export function tellWritten(db: Knex): void {
  if (watchers.size === 0) return;
  const { executionPromise } = db as unknown as Partial<Knex.Transaction>;
  if (!executionPromise) return void setImmediate(tell);
  // Rolled back, nothing was written.
  executionPromise.then(
    () => setImmediate(tell),
    () => undefined,
  );
}
