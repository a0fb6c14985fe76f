import { careEvents, type CareEvents } from '../care/events';
import { fitEvents, type FitEvents } from '../fit/events';
import { fleetEvents, type FleetEvents } from '../fleet/events';
import { eventsOf, type EventFacts } from '../kit/event';
import { levelEvents, type LevelEvents } from '../level/events';
import { peopleEvents, type PeopleEvents } from '../people/events';
import { roundsEvents, type RoundsEvents } from '../rounds/events';
import { shopEvents, type ShopEvents } from '../shop/events';
import { surfaceEvents, type SurfaceEvents } from '../surfaces/events';
import { wearEvents, type WearEvents } from '../wear/events';

interface BookEvents {
  /** `was`: what the line said that is corrected. */
  correction: { corrects: string; was: string; text: string };
}

const bookEvents = eventsOf<BookEvents>()({ correction: { touches: [] } });

/** Everything that can happen: kind → payload. */
export interface EventPayloads
  extends
    FleetEvents,
    LevelEvents,
    RoundsEvents,
    PeopleEvents,
    ShopEvents,
    SurfaceEvents,
    WearEvents,
    CareEvents,
    FitEvents,
    BookEvents {}

export type BookKind = keyof EventPayloads;

/** What happened: its kind with its payload. */
export type BookEvent = { [Kind in BookKind]: { kind: Kind; data: EventPayloads[Kind] } }[BookKind];

/** What is said of each kind. */
export const EVENTS: Record<BookKind, EventFacts> = {
  ...fleetEvents,
  ...levelEvents,
  ...roundsEvents,
  ...peopleEvents,
  ...shopEvents,
  ...surfaceEvents,
  ...wearEvents,
  ...careEvents,
  ...fitEvents,
  ...bookEvents,
};
export const BOOK_KINDS = Object.keys(EVENTS) as BookKind[];
