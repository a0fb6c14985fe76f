import type { RecordKind } from './operation';

/** What is said of a kind of event beside its payload: the records that are old on other devices once it was written. */
export interface EventFacts {
  touches: readonly RecordKind[];
}

/** Facts of every kind of an area's events, and of no other. */
export const eventsOf =
  <Payloads>() =>
  (facts: Record<keyof Payloads & string, EventFacts>): Record<keyof Payloads & string, EventFacts> =>
    facts;
