import type { Knex } from 'knex';

/**
 * The same database with who acts noted on it: every line that is written to the book through it, or through a
 * transaction begun from it, names that person and the time on the server's clock.
 */
export function acting(db: Knex, personId: string | null, writtenAt?: number): Knex {
  return db.withUserParams({ ...(db.userParams as object), personId, writtenAt });
}

/** Who acts through this database, or null: a machine, the demo, a command. */
export const actorOf = (db: Knex): string | null =>
  (db.userParams as { personId?: string | null } | undefined)?.personId ?? null;

/** What the server's clock shows while this is written, epoch ms: noted on the database, or else now. */
export const writtenAtOf = (db: Knex): number =>
  (db.userParams as { writtenAt?: number } | undefined)?.writtenAt ?? Date.now();

/** A transaction within one, as the same person: done whole or not at all. */
export const within = <T>(db: Knex, act: (trx: Knex) => Promise<T>): Promise<T> =>
  db.transaction((trx) => {
    // Knex hands these on from a database to its transactions, but not from a transaction to one within.
    trx.userParams = db.userParams;
    return act(trx);
  });
