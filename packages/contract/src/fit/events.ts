import type { ToolId } from '@even-bed/core';
import { eventsOf } from '../kit/event';

export interface FitEvents {
  /** `sentence`: what the tool answered when it was kept. */
  'plan-kept': { planId: string; tool: ToolId; title: string; sentence: string };
  'plan-withdrawn': { planId: string; title: string };
}

export const fitEvents = eventsOf<FitEvents>()({
  'plan-kept': { touches: ['Plan'] },
  'plan-withdrawn': { touches: ['Plan'] },
});
