import type { BookKind } from '@even-bed/contract';
import type { Knex } from 'knex';
import type { NewEntry } from './book';

/** What a room does when something has happened elsewhere: in the same transaction, so that both are there or neither. */
type Hearer<Kind extends BookKind> = (db: Knex, entry: Extract<NewEntry, { kind: Kind }>) => Promise<void>;

export type Hearers = { [Kind in BookKind]?: Hearer<Kind> };

const hearers: Hearers[] = [];

/** Lets a room hear of events. Called once for each room, before anything is written. */
export function hearing(room: Hearers): void {
  if (!hearers.includes(room)) hearers.push(room);
}

/** Tells the rooms of an event. */
export async function hear(db: Knex, entry: NewEntry): Promise<void> {
  for (const room of hearers) await (room[entry.kind] as Hearer<BookKind> | undefined)?.(db, entry);
}
