import { eventsOf } from '../kit/event';

export interface RoundsEvents {
  'rule-set': { everyDays: { from: number | null; to: number } };
}

export const roundsEvents = eventsOf<RoundsEvents>()({ 'rule-set': { touches: ['Machine'] } });
