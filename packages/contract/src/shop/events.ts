import type { Changed } from '../fleet/events';
import { eventsOf } from '../kit/event';
import type { ShopSettings } from './records';

export interface ShopEvents {
  'settings-changed': { changed: Changed<Omit<ShopSettings, 'version'>> };
}

export const shopEvents = eventsOf<ShopEvents>()({ 'settings-changed': { touches: ['Settings', 'Session'] } });
