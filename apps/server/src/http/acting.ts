import type { Knex } from 'knex';

/**
 * The same database with who acts noted on it: every line that is written to the book through it, or through a
 * transaction begun from it, names that person.
 */
export function acting(db: Knex, personId: string | null): Knex {
  return db.withUserParams({ ...(db.userParams as object), personId });
}

/** Who acts through this database, or null: a machine, the demo, a command. */
export const actorOf = (db: Knex): string | null =>
  (db.userParams as { personId?: string | null } | undefined)?.personId ?? null;

/** A transaction within one, as the same person: done whole or not at all. */
export const within = <T>(db: Knex, act: (trx: Knex) => Promise<T>): Promise<T> =>
  db.transaction((trx) => {
    // Knex hands these on from a database to its transactions, but not from a transaction to one within.
    trx.userParams = db.userParams;
    return act(trx);
  });
